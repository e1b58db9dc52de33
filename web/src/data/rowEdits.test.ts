import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CASE, parameterId, rowId, type CaseContent } from '@caderno/core/cases';
import { parsePastedGrid } from '@caderno/core/data';
import { cellOf, cellsWith, copied, duplicated, filled, newRow, withBlock, withReplaced, withRowsMoved } from './rowEdits.ts';

const parameters = ['x', 'y'].map((name) => ({ id: parameterId(name), name, type: 'text' as const, default: '', description: '' }));
const grid = (...lines: string[][]): CaseContent => ({ ...EMPTY_CASE, parameters, rows: lines.map(([name = '', x = '', y = ''], i) => ({ id: rowId(`r${i}`), name, cells: { ...(x === '' ? {} : { x }), ...(y === '' ? {} : { y }) } })) });
const seen = (content: CaseContent): string[][] => content.rows.map((row) => [0, 1, 2].map((column) => cellOf(row, content.parameters, column)));
const extent = (top: number, bottom: number, left = 0, right = 2) => ({ top, bottom, left, right });

describe('fill', () => {
  const rows = grid(['row 1', '5', 'a'], ['', '10', 'b'], ['', '', ''], ['', '', '']);
  test('down repeats the first of each column', () => expect(seen(filled(rows, extent(0, 3), 'same'))).toEqual([['row 1', '5', 'a'], ['row 1', '5', 'a'], ['row 1', '5', 'a'], ['row 1', '5', 'a']]));
  test('a series goes on from the filled cells at the top', () => expect(seen(filled(rows, extent(0, 3), 'series'))).toEqual([['row 1', '5', 'a'], ['row 2', '10', 'b'], ['row 3', '15', 'a'], ['row 4', '20', 'b']]));
  test('and stops where the rows end', () => expect(seen(filled(rows, extent(1, 9, 1, 1), 'same')).map((r) => r[1])).toEqual(['5', '10', '10', '10']));
});

test('rows are duplicated under free names, and keep their cells', () => {
  const rows = grid(['low', '1'], ['low 2', '2'], ['', '3']);
  expect(seen(duplicated(rows, extent(0, 2), [newRow(''), newRow(''), newRow('')])).map((r) => r.slice(0, 2))).toEqual([['low', '1'], ['low 2', '2'], ['', '3'], ['low 3', '1'], ['low 2 2', '2'], ['', '3']]);
});

test('rows move together, and not beyond the ends', () => {
  const rows = grid(['a'], ['b'], ['c'], ['d']);
  const names = (content: CaseContent) => content.rows.map((r) => r.name).join('');
  expect(names(withRowsMoved(rows, extent(1, 2), -1))).toBe('bcad');
  expect(names(withRowsMoved(rows, extent(1, 2), 1))).toBe('adbc');
  expect(withRowsMoved(rows, extent(0, 2), -1)).toBe(rows);
  expect(withRowsMoved(rows, extent(2, 4), 1)).toBe(rows);
  fc.assert(fc.property(fc.nat(3), fc.nat(3), fc.constantFrom(-1 as const, 1 as const), (a, b, direction) => expect([...names(withRowsMoved(rows, extent(Math.min(a, b), Math.max(a, b)), direction))].sort().join('')).toBe('abcd')));
});

describe('found in cells', () => {
  const rows = grid(['Low', 'low $1', 'x'], ['high', 'LOW', '']);
  test('anywhere or as the whole cell, in any case or the same', () => {
    expect(cellsWith(rows, { words: 'low', wholeCell: false, sameCase: false })).toEqual([{ row: 0, column: 0 }, { row: 0, column: 1 }, { row: 1, column: 1 }]);
    expect(cellsWith(rows, { words: 'low', wholeCell: true, sameCase: true })).toEqual([]);
    expect(cellsWith(rows, { words: '', wholeCell: false, sameCase: false })).toEqual([]);
  });
  test('and replaced, letter for letter', () => {
    expect(seen(withReplaced(rows, { words: '$1', wholeCell: false, sameCase: true }, '$& (.)', null))).toEqual([['Low', 'low $& (.)', 'x'], ['high', 'LOW', '']]);
    expect(seen(withReplaced(rows, { words: 'low', wholeCell: false, sameCase: false }, '', { row: 1, column: 1 }))).toEqual([['Low', 'low $1', 'x'], ['high', '', '']]);
  });
});

test('what is copied and pasted in the same place changes nothing', () => {
  const cell = fc.string({ unit: fc.constantFrom('a', '1', '\t', '\n', '"', ' ', 'é', '<x>') }).filter((t) => t === t.trim() && !t.startsWith('"'));
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 5 }), (lines) => {
      const content = grid(...lines.map((l) => [...l]));
      const pasted = parsePastedGrid(copied(content.rows, content.parameters, extent(0, lines.length - 1)));
      expect(seen(withBlock(content, { row: 0, column: 0 }, pasted, []))).toEqual(seen(content));
    }),
  );
});
