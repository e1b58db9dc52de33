import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatBound, meantValue, readBound, typedList, type OrderedType, type WritingHabits } from './index.ts';

const here: WritingHabits = { decimalSign: ',', dates: 'dayFirst' };
const there: WritingHabits = { decimalSign: '.', dates: 'monthFirst' };
const decimal: OrderedType = { kind: 'decimal', step: '0.01' };

test.each<[OrderedType, string, string, string]>([
  [decimal, '1 234,50', '1234.50', '1 234,50'],
  [decimal, '1.234', '1234', '1.234'],
  [decimal, '1,234.50', '1,234.50', '1234.50'],
  [{ kind: 'whole' }, '99 999', '99999', '99999'],
  [{ kind: 'date' }, '4/3/2026', '2026-03-04', '2026-04-03'],
  [{ kind: 'date' }, '31.12.2026', '2026-12-31', '31.12.2026'],
  [{ kind: 'date' }, '2026-03-04', '2026-03-04', '2026-03-04'],
  [{ kind: 'date' }, '30/2/2026', '30/2/2026', '30/2/2026'],
  [{ kind: 'date' }, '4/3/26', '4/3/26', '4/3/26'],
  [{ kind: 'dateTime', stepSeconds: 60 }, '4.3.2026, 8:30', '2026-03-04 08:30', '2026-04-03 08:30'],
  [{ kind: 'time', stepSeconds: 60 }, '8:30', '08:30', '08:30'],
  [decimal, 'about 3', 'about 3', 'about 3'],
])('%j: “%s” is meant as %s, elsewhere as %s', (type, text, mine, theirs) => {
  expect([meantValue(type, text, here), meantValue(type, text, there)]).toEqual([mine, theirs]);
});

test('what Caderno writes itself is read as it is, whoever reads it', () => {
  const types: OrderedType[] = [{ kind: 'whole' }, { kind: 'date' }, { kind: 'dateTime', stepSeconds: 60 }, { kind: 'time', stepSeconds: 60 }, { kind: 'decimal', step: '1' }];
  fc.assert(
    fc.property(fc.constantFrom(...types), fc.bigInt(0n, 1400n), fc.constantFrom(here, there), (type, ordinal, habits) => {
      expect(readBound(type, meantValue(type, formatBound(type, ordinal) ?? '', habits))).toBe(ordinal);
    }),
  );
});

test('a list is typed, or pasted from a column or a row of a sheet', () => {
  expect(typedList(' newest,oldest ,, newest\r\n in a kiosk;yes\tother\n')).toEqual(['newest', 'oldest', 'in a kiosk;yes', 'other']);
});
