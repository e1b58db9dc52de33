/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { chooseLocale, locale, numberFormat } from './locale.ts';
import { dayName } from './time.ts';

afterEach(() => chooseLocale(undefined));

test('numbers are written by one format, until somebody chooses another way', () => {
  chooseLocale('de-DE');
  const german = numberFormat();
  expect([german.format(1234.5), numberFormat() === german]).toEqual(['1.234,5', true]);
  chooseLocale('en-GB');
  expect([locale(), numberFormat().format(1234.5), numberFormat() === german]).toEqual(['en-GB', '1,234.5', false]);
  chooseLocale(undefined);
  expect(numberFormat().format(1234.5)).toBe((1234.5).toLocaleString());
});

test('the name of a day is written as somebody chose', () => {
  chooseLocale('en-GB');
  expect(dayName('2026-11-24T12:00:00.000Z')).toBe('Tuesday, 24 November 2026');
  chooseLocale('de-DE');
  expect(dayName('2026-11-24T12:00:00.000Z')).toBe('Dienstag, 24. November 2026');
});
