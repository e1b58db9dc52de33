import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { continueSeries } from './index.ts';

describe('cells that go on from those given', () => {
  test.each([
    [['1'], ['2', '3', '4']],
    [['5', '10'], ['15', '20', '25']],
    [['3', '1'], ['-1', '-3', '-5']],
    [['0.10', '0.25'], ['0.40', '0.55', '0.70']],
    [['1.5'], ['2.5', '3.5', '4.5']],
    [['007', '008'], ['009', '010', '011']],
    [['99999999999999999'], ['100000000000000000', '100000000000000001', '100000000000000002']],
    [['2026-02-27'], ['2026-02-28', '2026-03-01', '2026-03-02']],
    [['2028-02-22', '2028-02-29'], ['2028-03-07', '2028-03-14', '2028-03-21']],
    [['2026-02-30'], ['2026-02-31', '2026-02-32', '2026-02-33']],
    [['M-2207', 'M-2209'], ['M-2211', 'M-2213', 'M-2215']],
    [['row 09'], ['row 10', 'row 11', 'row 12']],
    [['a', 'b'], ['a', 'b', 'a']],
    [['1', '2', '4'], ['1', '2', '4']],
    [['M-2', 'N-3'], ['M-2', 'N-3', 'M-2']],
    [['M-3', 'M-1'], ['M-3', 'M-1', 'M-3']],
    [['(missing)', '1'], ['(missing)', '1', '(missing)']],
    [['', '""'], ['', '""', '']],
    [['1e5'], ['1e6', '1e7', '1e8']],
  ])('%j', (given, expected) => expect(continueSeries(given, 3)).toEqual(expected));
});

test('a series of whole numbers is the arithmetic one, and goes on from itself', () => {
  fc.assert(
    fc.property(fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }), fc.bigInt({ min: -1000n, max: 1000n }), fc.integer({ min: 2, max: 5 }), fc.integer({ min: 0, max: 20 }), (first, step, length, count) => {
      const whole = Array.from({ length: length + count }, (_, i) => String(first + step * BigInt(i)));
      expect(continueSeries(whole.slice(0, length), count)).toEqual(whole.slice(length));
    }),
  );
});
