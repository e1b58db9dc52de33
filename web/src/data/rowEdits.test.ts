import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { newRow, parameterId, rowId } from '@caderno/core/cases';
import { parsePastedGrid } from '@caderno/core/data';
import { cellsWith, copied, duplicated, filled, withBlock, withColumnMoved, withReplaced, withRowsMarked, withRowsMoved, withoutRows } from './rowEdits.ts';
import { cellOf, freshRow, gridColumns, type DataTable } from './table.ts';

const parameters = ['x', 'y'].map((name) => ({ id: parameterId(name), name, type: 'text' as const, default: '', description: '' }));
const grid = (...lines: string[][]): DataTable => ({ parameters, rows: lines.map(([name = '', x = '', y = ''], i) => newRow(rowId(`r${i}`), name, { ...(x === '' ? {} : { x }), ...(y === '' ? {} : { y }) })) });
const columns = gridColumns(parameters, new Set(), false);
const seen = (data: DataTable): string[][] => data.rows.map((row) => columns.map((column) => cellOf(row, column)));
const places = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, i) => from + i);
const range = (top: number, bottom: number, left = 0, right = 2) => ({ rows: places(top, bottom), columns: columns.slice(left, right + 1) });

describe('fill', () => {
  const rows = grid(['row 1', '5', 'a'], ['', '10', 'b'], ['', '', ''], ['', '', '']);
  test('down repeats the first of each column', () => expect(seen(filled(rows, range(0, 3), 'same'))).toEqual([['row 1', '5', 'a'], ['row 1', '5', 'a'], ['row 1', '5', 'a'], ['row 1', '5', 'a']]));
  test('a series goes on from the filled cells at the top', () => expect(seen(filled(rows, range(0, 3), 'series'))).toEqual([['row 1', '5', 'a'], ['row 2', '10', 'b'], ['row 3', '15', 'a'], ['row 4', '20', 'b']]));
  test('and stops where the rows end', () => expect(seen(filled(rows, range(1, 9, 1, 1), 'same')).map((r) => r[1])).toEqual(['5', '10', '10', '10']));
});

test('rows are duplicated under free names, and keep their cells', () => {
  const rows = grid(['low', '1'], ['low 2', '2'], ['', '3']);
  expect(seen(duplicated(rows, places(0, 2), [freshRow(''), freshRow(''), freshRow('')])).map((r) => r.slice(0, 2))).toEqual([['low', '1'], ['low 2', '2'], ['', '3'], ['low 3', '1'], ['low 2 2', '2'], ['', '3']]);
});

test('rows move together, and not beyond the ends', () => {
  const rows = grid(['a'], ['b'], ['c'], ['d']);
  const names = (data: DataTable) => data.rows.map((r) => r.name).join('');
  expect(names(withRowsMoved(rows, places(1, 2), -1))).toBe('bcad');
  expect(names(withRowsMoved(rows, places(1, 2), 1))).toBe('adbc');
  expect(withRowsMoved(rows, places(0, 2), -1)).toBe(rows);
  expect(withRowsMoved(rows, places(2, 4), 1)).toBe(rows);
  fc.assert(fc.property(fc.nat(3), fc.nat(3), fc.constantFrom(-1 as const, 1 as const), (a, b, direction) => expect([...names(withRowsMoved(rows, places(Math.min(a, b), Math.max(a, b)), direction))].sort().join('')).toBe('abcd')));
});

describe('found in cells', () => {
  const rows = grid(['Low', 'low $1', 'x'], ['high', 'LOW', '']);
  test('anywhere or as the whole cell, in any case or the same', () => {
    expect(cellsWith(rows.rows, columns, { words: 'low', wholeCell: false, sameCase: false })).toEqual([{ row: 0, column: 0 }, { row: 0, column: 1 }, { row: 1, column: 1 }]);
    expect(cellsWith(rows.rows, columns, { words: 'low', wholeCell: true, sameCase: true })).toEqual([]);
    expect(cellsWith(rows.rows, columns, { words: '', wholeCell: false, sameCase: false })).toEqual([]);
  });
  test('and replaced, letter for letter', () => {
    expect(seen(withReplaced(rows, columns, { words: '$1', wholeCell: false, sameCase: true }, '$& (.)'))).toEqual([['Low', 'low $& (.)', 'x'], ['high', 'LOW', '']]);
    expect(seen(withReplaced(rows, columns.slice(1), { words: 'low', wholeCell: false, sameCase: false }, ''))).toEqual([['Low', ' $1', 'x'], ['high', '', '']]);
  });
});

test('what is copied and pasted in the same place changes nothing', () => {
  const cell = fc.string({ unit: fc.constantFrom('a', '1', '\t', '\n', '"', ' ', 'é', '<x>') }).filter((t) => t === t.trim() && !t.startsWith('"'));
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 5 }), (lines) => {
      const content = grid(...lines.map((l) => [...l]));
      const pasted = parsePastedGrid(copied(content.rows, range(0, lines.length - 1)));
      expect(seen(withBlock(content, range(0, lines.length - 1), pasted, []))).toEqual(seen(content));
    }),
  );
});

test('rows that are seen apart are written, marked and removed where they stand', () => {
  const rows = grid(['a', '1'], ['b', '2'], ['c', '3']);
  expect(seen(withBlock(rows, { rows: [2, 0, 3], columns: columns.slice(1) }, [['30', 'x'], ['10'], ['40']], [freshRow('row 4')])).map((r) => r.join(' '))).toEqual(['a 10 ', 'b 2 ', 'c 30 x', 'row 4 40 ']);
  expect(withRowsMarked(rows, [0, 2], { mark: 'invalid', aside: true }).rows.map((r) => [r.mark, r.aside])).toEqual([['invalid', true], [null, false], ['invalid', true]]);
  expect(seen(withoutRows(rows, [2, 0])).map((r) => r[0])).toEqual(['b']);
});

test('a column moves with its cells, and not beyond the ends', () => {
  const rows = grid(['a', '1', '2']);
  expect(withColumnMoved(rows, parameterId('x'), 1).parameters.map((p) => p.name)).toEqual(['y', 'x']);
  expect(withColumnMoved(rows, parameterId('x'), -1)).toBe(rows);
});
