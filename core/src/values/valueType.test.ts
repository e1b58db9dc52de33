import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatBound, lengthInCharacters, parseDecimal, readBound, readValue, sampleValue, type OrderedType } from './index.ts';

const whole: OrderedType = { kind: 'whole' };
const cents: OrderedType = { kind: 'decimal', step: '0.01' };
const date: OrderedType = { kind: 'date' };
const quarter: OrderedType = { kind: 'time', stepSeconds: 900 };
const minute: OrderedType = { kind: 'dateTime', stepSeconds: 60 };
const length: OrderedType = { kind: 'textLength' };

describe('what a text is as a value', () => {
  test.each<[OrderedType, string, string]>([
    [whole, '007', 'ordinal'],
    [whole, '+5', 'ordinal'],
    [whole, '12.0', 'offStep'],
    [whole, '1e5', 'wrongKind'],
    [whole, '99 999', 'wrongKind'],
    [whole, '', 'wrongKind'],
    [whole, '1'.repeat(401), 'wrongKind'],
    [cents, '0.30', 'ordinal'],
    [cents, '.5', 'wrongKind'],
    [cents, '1.234', 'offStep'],
    [cents, '1.230', 'ordinal'],
    [date, '2026-02-28', 'ordinal'],
    [date, '2026-02-29', 'impossibleDate'],
    [date, '2028-02-29', 'ordinal'],
    [date, '28.2.2026', 'wrongKind'],
    [date, '2026-13-01', 'impossibleDate'],
    [quarter, '08:30', 'ordinal'],
    [quarter, '08:31', 'offStep'],
    [quarter, '8:30', 'wrongKind'],
    [quarter, '24:01', 'offStep'],
    [quarter, '25:00', 'wrongKind'],
    [minute, '2026-02-28T23:59', 'ordinal'],
    [minute, '2026-02-28 23:59:30', 'offStep'],
    [minute, '2026-02-30T12:00', 'impossibleDate'],
    [length, '', 'ordinal'],
  ])('%j %s is %s', (type, text, kind) => expect(readValue(type, text).kind).toBe(kind));
});

test('leading zeros and signs do not change a number, and nothing is lost beyond 2^53', () => {
  expect(readValue(whole, '0009007199254740993')).toEqual({ kind: 'ordinal', ordinal: 9007199254740993n });
  expect(parseDecimal('-0.10')).toEqual({ units: -10n, scale: 2 });
});

test('a bound written and read again is itself, whatever the type', () => {
  const days = fc.bigInt({ min: -700_000n, max: 2_900_000n });
  const cases: [OrderedType, fc.Arbitrary<bigint>][] = [
    [whole, fc.bigInt({ min: -(10n ** 60n), max: 10n ** 60n })],
    [cents, fc.bigInt({ min: -(10n ** 40n), max: 10n ** 40n })],
    [date, days],
    [quarter, fc.bigInt({ min: 0n, max: 95n })],
    [minute, days.map((d) => d * 1440n + 17n)],
    [length, fc.bigInt({ min: 0n, max: 10n ** 9n })],
  ];
  for (const [type, ordinals] of cases) {
    fc.assert(
      fc.property(ordinals, (ordinal) => {
        const text = formatBound(type, ordinal);
        expect(text).not.toBeNull();
        expect(readBound(type, text ?? '')).toBe(ordinal);
      }),
    );
  }
});

test('days follow each other as the calendar has them, over four centuries', () => {
  let checked = 0;
  for (let day = readBound(date, '1899-12-31') ?? 0n; checked < 150_000; day += 1n, checked += 1) {
    const text = formatBound(date, day) ?? '';
    const [year = 0, month = 0, inMonth = 0] = text.split('-').map(Number);
    const leap = year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
    const last = inMonth === (month === 2 ? (leap ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31);
    const next = !last ? [year, month, inMonth + 1] : month === 12 ? [year + 1, 1, 1] : [year, month + 1, 1];
    if ((formatBound(date, day + 1n) ?? '').split('-').map(Number).join() !== next.join()) throw new Error(`After ${text} comes ${next.join('-')}`);
  }
  expect(checked).toBe(150_000);
});

test('a sample of a length has that length, and unreasonable ones are not made', () => {
  expect([0n, 1n, 10n, 199n].map((n) => lengthInCharacters(sampleValue(length, n) ?? '-'))).toEqual([0, 1, 10, 199]);
  expect([sampleValue(length, -1n), sampleValue(length, 10_001n), sampleValue(quarter, -1n)]).toEqual([null, null, null]);
});
