import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { extentOf, holds, moved, within, type CellAt, type Selection } from './gridSelection.ts';

const cell = (row: number, column: number): CellAt => ({ row, column });
const size = cell(4, 3);
const at = (row: number, column: number): Selection => ({ anchor: cell(row, column), focus: cell(row, column) });

test('arrows go one cell, with Ctrl to the edge, never beyond; other keys mean nothing', () => {
  expect(moved(at(1, 1), 'ArrowDown', size, false, false)).toEqual(at(2, 1));
  expect(moved(at(1, 1), 'ArrowRight', size, false, true)).toEqual(at(1, 2));
  expect(moved(at(0, 0), 'ArrowUp', size, false, false)).toEqual(at(0, 0));
  expect(moved(at(1, 1), 'a', size, false, false)).toBeNull();
});

test('with shift the anchor stays, and the extent holds what lies between, both ends included', () => {
  const place = fc.record({ row: fc.nat(3), column: fc.nat(2) });
  fc.assert(
    fc.property(place, fc.array(fc.constantFrom('ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'), { maxLength: 8 }), place, (start, keys, any) => {
      const selection = keys.reduce<Selection>((s, key) => moved(s, key, size, true, false) ?? s, { anchor: start, focus: start });
      expect(selection.anchor).toEqual(start);
      expect(within(selection.focus, size)).toEqual(selection.focus);
      const extent = extentOf(selection);
      const between = (a: number, b: number, x: number): boolean => Math.min(a, b) <= x && x <= Math.max(a, b);
      expect(holds(extent, any)).toBe(between(start.row, selection.focus.row, any.row) && between(start.column, selection.focus.column, any.column));
    }),
  );
});
