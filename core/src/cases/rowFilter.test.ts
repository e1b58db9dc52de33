import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { NAME_COLUMN, compareCells, filteredRows, newRow, parameterId, rowId, rowsChosen, sortedRows, type Parameter, type Row } from './index.ts';

const x: Parameter = { id: parameterId('x'), name: 'x', type: 'text', default: '7', description: '' };
const rows = (...cells: string[]): Row[] => cells.map((cell, i) => newRow(rowId(`r${i}`), `row ${i}`, cell === '' ? {} : { x: cell }));
const texts = (list: readonly Row[]) => list.map((r) => r.cells.x ?? '');

test.each([
  ['words stand anywhere, in any case', 'PPL', ['Apple']],
  ['is, as written', '=10', ['10']],
  ['is, in any case', '=APPLE', ['Apple']],
  ['is not', '!=10', ['9', '', 'Apple', '10.0', '(missing)', '2026-02-28', '""']],
  ['does not hold', '!1', ['9', '', 'Apple', '(missing)', '2026-02-28', '""']],
  ['less, by value and not by letters', '<10', ['9', '']],
  ['dates in their order', '>=2026-02-28', ['Apple', '2026-02-28']],
  ['nothing is given: the empty text', '=', ['""']],
  ['something is given, by the default too', '!=', ['10', '9', '', 'Apple', '10.0', '(missing)', '2026-02-28']],
  ['no filter at all', ' ', ['10', '9', '', 'Apple', '10.0', '(missing)', '2026-02-28', '""']],
])('%s: %s', (_, text, expected) => {
  const all = rows('10', '9', '', 'Apple', '10.0', '(missing)', '2026-02-28', '""');
  expect(texts(filteredRows(all, [x], [{ id: x.id, text }]))).toEqual(expected);
});

test('in a column of numbers what is asked for is a value, in one of texts zeros in front count', () => {
  const all = rows('42', '0042', '42.0');
  expect(texts(filteredRows(all, [{ ...x, type: 'decimal' }], [{ id: x.id, text: '=42' }]))).toEqual(['42', '0042', '42.0']);
  expect(texts(filteredRows(all, [x], [{ id: x.id, text: '=0042' }]))).toEqual(['0042']);
});

test('several filters hold together, and names of rows are a column', () => {
  expect(texts(filteredRows(rows('1', '2', '3'), [x], [{ id: x.id, text: '>1' }, { id: NAME_COLUMN, text: '2' }]))).toEqual(['3']);
});

describe('order', () => {
  const cell = fc.constantFrom('', '10', '9', '-0.5', 'b', 'B', '007', '2026-02-28', '""', '(missing)');
  test('keeps all rows, equal ones as they were, and puts what gives nothing last, up and down', () => {
    fc.assert(
      fc.property(fc.array(cell, { maxLength: 8 }), fc.boolean(), (cells, descending) => {
        const all = rows(...cells);
        const sorted = sortedRows(all, [{ ...x, default: '' }], x.id, descending);
        expect([...sorted].sort((a, b) => a.id.localeCompare(b.id))).toEqual(all);
        const given = texts(sorted).map((c) => (c === '""' ? '' : c));
        const firstEmpty = given.findIndex((c) => c === '');
        if (firstEmpty >= 0) expect(given.slice(firstEmpty).every((c) => c === '')).toBe(true);
        sorted.slice(1).forEach((row, i) => {
          const before = sorted[i];
          if (before === undefined || given[i] === '' || given[i + 1] === '') return;
          const order = compareCells(given[i] ?? '', given[i + 1] ?? '');
          expect(descending ? order >= 0 : order <= 0).toBe(true);
          if (order === 0) expect(all.indexOf(before)).toBeLessThan(all.indexOf(row));
        });
      }),
    );
  });
});

test('rows put aside never run; chosen ones that are gone are passed over', () => {
  const all = rows('1', '2', '3').map((r, i) => ({ ...r, aside: i === 1 }));
  expect(texts(rowsChosen(all, [x], { kind: 'all' }))).toEqual(['1', '3']);
  expect(texts(rowsChosen(all, [x], { kind: 'chosen', rows: [rowId('r1'), rowId('r2'), rowId('gone')] }))).toEqual(['3']);
  expect(texts(rowsChosen(all, [x], { kind: 'filter', filters: [{ id: x.id, text: '>1' }] }))).toEqual(['3']);
});
