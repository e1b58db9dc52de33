/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { chooseLocale, locale, numberFormat } from './locale.ts';

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
