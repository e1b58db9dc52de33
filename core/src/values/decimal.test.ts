import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compareDecimals, formatDecimal, parseDecimal, sumOf, type Decimal } from './index.ts';

const decimal = fc.record({ units: fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }), scale: fc.nat(12) });
/** In the smallest part that any of them has. */
const inTrillionths = ({ units, scale }: Decimal): bigint => units * 10n ** BigInt(12 - scale);

test('what is written is read again as the same number with the same decimals', () => {
  fc.assert(fc.property(decimal, (d) => expect(parseDecimal(formatDecimal(d))).toEqual(d)), { seed: 1 });
});

test('sums are exact, in any order, with the decimals of the finest', () => {
  fc.assert(
    fc.property(fc.array(decimal, { maxLength: 12 }), (list) => {
      const sum = sumOf(list);
      expect(inTrillionths(sum)).toBe(list.map(inTrillionths).reduce((a, b) => a + b, 0n));
      expect(sum.scale).toBe(Math.max(0, ...list.map((d) => d.scale)));
      expect(compareDecimals(sum, sumOf(list.toReversed()))).toBe(0);
    }),
    { seed: 2 },
  );
});
