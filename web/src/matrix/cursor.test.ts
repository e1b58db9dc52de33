import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { moved, type Cursor } from './cursor.ts';

const at = (places: readonly number[]) => places.map((p) => ({ at: p, counts: [1, 0, 0, 0, 0] }));
const matrix = { rows: [at([2, 5]), at([]), at([0, 2])], met: [] };
const extent = { rows: 3, columns: 6, page: 2 };
const go = (row: number, column: number, key: string, ctrlKey = false): string => {
  const to = moved({ row, column }, { key, ctrlKey, metaKey: false }, matrix, extent);
  return to === null ? 'stays' : `${to.row} ${to.column}`;
};

test('arrows go square by square and onto the heads, with Ctrl to the next that holds something, and to the ends', () => {
  expect([go(0, 0, 'ArrowRight'), go(0, 0, 'ArrowLeft'), go(0, 0, 'ArrowUp'), go(0, 0, 'ArrowDown')]).toEqual(['0 1', '0 -1', '-1 0', '1 0']);
  expect([go(0, -1, 'ArrowRight', true), go(0, 2, 'ArrowRight', true), go(0, 5, 'ArrowLeft', true), go(0, 2, 'ArrowLeft', true), go(1, 1, 'ArrowRight', true)]).toEqual(['0 2', '0 5', '0 2', '0 -1', '1 5']);
  expect([go(0, 2, 'ArrowDown', true), go(2, 2, 'ArrowUp', true), go(0, 2, 'ArrowUp', true), go(-1, 0, 'ArrowDown', true)]).toEqual(['2 2', '0 2', '-1 2', '2 0']);
  expect([go(1, 3, 'Home'), go(1, 3, 'End'), go(2, 3, 'Home', true), go(0, 3, 'End', true), go(0, 3, 'PageDown'), go(2, 3, 'PageUp'), go(0, 0, 'Tab')]).toEqual(['1 -1', '1 5', '0 0', '2 5', '2 3', '0 3', 'stays']);
  expect(moved({ row: 0, column: 2 }, { key: 'ArrowRight', ctrlKey: false, metaKey: true }, matrix, extent)).toEqual({ row: 0, column: 5 });
});

test('no key leads out of the matrix, or into its corner', () => {
  const keys = fc.constantFrom('ArrowRight', 'ArrowLeft', 'ArrowDown', 'ArrowUp', 'Home', 'End', 'PageDown', 'PageUp');
  fc.assert(
    fc.property(fc.array(fc.tuple(keys, fc.boolean()), { maxLength: 30 }), fc.nat(3), (pressed, rows) => {
      let cursor: Cursor = { row: 0, column: -1 };
      for (const [key, ctrlKey] of pressed) {
        cursor = moved(cursor, { key, ctrlKey, metaKey: false }, { ...matrix, rows: matrix.rows.slice(0, rows + 1) }, { ...extent, rows: Math.min(3, rows + 1) }) ?? cursor;
        expect([cursor.row >= -1 && cursor.row < Math.min(3, rows + 1), cursor.column >= -1 && cursor.column < 6, cursor.row === -1 && cursor.column === -1]).toEqual([true, true, false]);
      }
    }),
  );
});
