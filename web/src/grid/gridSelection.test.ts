import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { extentOf, holds, moved, within, type CellAt, type GridShape, type Selection } from './gridSelection.ts';

const cell = (row: number, column: number): CellAt => ({ row, column });
const size = cell(4, 3);
const at = (row: number, column: number): Selection => ({ anchor: cell(row, column), focus: cell(row, column) });

const shape: GridShape = { size, page: 2, isFilled: () => true };
const plain = { extend: false, control: false };
const control = { extend: false, control: true };

test('keys move as in a spreadsheet and never beyond; other keys mean nothing', () => {
  expect(moved(at(1, 1), 'ArrowDown', plain, shape)).toEqual(at(2, 1));
  expect(moved(at(0, 0), 'ArrowUp', plain, shape)).toEqual(at(0, 0));
  expect(moved(at(1, 1), 'Home', plain, shape)).toEqual(at(1, 0));
  expect(moved(at(1, 1), 'End', plain, shape)).toEqual(at(1, 2));
  expect(moved(at(1, 1), 'Home', control, shape)).toEqual(at(0, 0));
  expect(moved(at(1, 1), 'End', control, shape)).toEqual(at(3, 2));
  expect(moved(at(0, 1), 'PageDown', plain, shape)).toEqual(at(2, 1));
  expect(moved(at(1, 1), 'PageUp', plain, shape)).toEqual(at(0, 1));
  expect(moved(at(1, 1), 'a', plain, shape)).toBeNull();
});

test('control and an arrow lead to the edge of what is filled, over a gap to the next filled cell, else to the edge', () => {
  const column = (filled: string): GridShape => ({ size: cell(filled.length, 1), page: 2, isFilled: ({ row }) => filled[row] === 'x' });
  const down = (filled: string, from: number): number | undefined => moved(at(from, 0), 'ArrowDown', control, column(filled))?.focus.row;
  expect(down('xxx..x..', 0)).toBe(2);
  expect(down('xxx..x..', 2)).toBe(5);
  expect(down('xxx..x..', 3)).toBe(5);
  expect(down('xxx..x..', 5)).toBe(7);
  expect(down('xxxx', 3)).toBe(3);
});

test('with shift the anchor stays, and the extent holds what lies between, both ends included', () => {
  const place = fc.record({ row: fc.nat(3), column: fc.nat(2) });
  fc.assert(
    fc.property(place, fc.array(fc.constantFrom('ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'), { maxLength: 8 }), place, (start, keys, any) => {
      const selection = keys.reduce<Selection>((s, key) => moved(s, key, { extend: true, control: false }, shape) ?? s, { anchor: start, focus: start });
      expect(selection.anchor).toEqual(start);
      expect(within(selection.focus, size)).toEqual(selection.focus);
      const extent = extentOf(selection);
      const between = (a: number, b: number, x: number): boolean => Math.min(a, b) <= x && x <= Math.max(a, b);
      expect(holds(extent, any)).toBe(between(start.row, selection.focus.row, any.row) && between(start.column, selection.focus.column, any.column));
    }),
  );
});
