import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { newRow, rowId } from '@caderno/core/cases';
import { areRows, rowsSchema } from './rows.ts';

const good = { ...newRow(rowId('r1'), 'low', { p: '007' }), description: 'for it', mark: 'valid' };
const odd = fc.oneof(fc.constantFrom<unknown>(null, undefined, 1, true, '', 'valid', 'a b', 'x\0', '\ud800', 'a'.repeat(201), 'a'.repeat(20_001), [], {}, { p: 1 }, { 'no id': '' }, { constructor: 'x' }, 'toString', { q: 'fine' }), fc.string());

test('rows are judged in one go as the schema judges them, and what is wrong is told with its place', () => {
  let refused = 0;
  fc.assert(
    fc.property(fc.constantFrom('id', 'name', 'description', 'cells', 'mark', 'aside', 'more'), odd, fc.boolean(), (field, value, gone) => {
      const { [field]: _, ...without } = good as Record<string, unknown>;
      const rows = [good, gone ? without : { ...good, id: 'r2', [field]: value }];
      const result = rowsSchema.safeParse(rows);
      expect(areRows(rows)).toBe(result.success);
      if (!result.success) {
        refused += 1;
        expect(result.error.issues[0]?.path[0]).toBe(1);
      }
    }),
  );
  expect(refused).toBeGreaterThan(30);
  expect([rowsSchema.safeParse([good]).success, rowsSchema.safeParse('rows').success, rowsSchema.safeParse([[]]).success]).toEqual([true, false, false]);
});
