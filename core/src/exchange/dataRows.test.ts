import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { newRow, parameterId, rowId, type Parameter, type Row } from '../cases/index.ts';
import { GUESS_ALL, guessRowColumns, planRows, readTable, rowsTable, writeCsv, writeXlsx, type RowImport } from './index.ts';

const parameter = (name: string, type: Parameter['type'] = 'text'): Parameter => ({ id: parameterId(`p-${name}`), name, type, default: '', description: '' });
const row = (name: string, cells: Record<string, string>): Row => newRow(rowId(`r-${name}`), name, cells);
const ids = () => {
  let n = 0;
  return () => `n${(n += 1)}`;
};
const csv = (text: string) => readTable(new TextEncoder().encode(text), GUESS_ALL);

describe('rows of a file', () => {
  const content = { parameters: [parameter('reading', 'whole'), parameter('answer')], rows: [row('low', { 'p-reading': '0', 'p-answer': 'taken' }), row('high', { 'p-reading': '9' })] };
  const plan = async (how: RowImport) => {
    const document = await csv('Name;<Reading>;month;??\nlow;1;May;x\nnew;007;;y\nlow;1e5;June;z\n');
    const columns = guessRowColumns(document.columns, content.parameters);
    expect(columns).toEqual([{ kind: 'name' }, { kind: 'parameter', id: 'p-reading' }, { kind: 'new' }, { kind: 'leave' }]);
    return planRows(document, columns, content, how, ids());
  };
  test('replace those that are there; of one name the row stays the same row', async () => {
    const { rows, parameters, added, changed, removed, problems } = await plan('replace');
    expect(parameters.map((p) => [p.id, p.name])).toEqual([['p-reading', 'reading'], ['p-answer', 'answer'], ['n1', 'month']]);
    expect(rows).toEqual([{ ...row('low', { 'p-reading': '1', n1: 'May' }), id: 'r-low' }, { ...row('new', { 'p-reading': '007' }), id: 'n2' }, { ...row('low', { 'p-reading': '1e5', n1: 'June' }), id: 'n3' }]);
    expect([added, changed, removed]).toEqual([2, 1, 1]);
    // Kept as written, and told.
    expect(problems).toEqual([{ line: 4, column: '<Reading>', type: 'whole', value: '1e5' }]);
  });
  test('are added, or change those of the same name and leave what the file says nothing of', async () => {
    expect((await plan('add')).rows.map((r) => [r.id, r.name])).toEqual([['r-low', 'low'], ['r-high', 'high'], ['n2', 'low'], ['n3', 'new'], ['n4', 'low']]);
    const update = await plan('update');
    expect(update.rows.map((r) => [r.id, r.cells])).toEqual([
      ['r-low', { 'p-reading': '1', 'p-answer': 'taken', n1: 'May' }],
      ['r-high', { 'p-reading': '9' }],
      ['n2', { 'p-reading': '007' }],
      ['n3', { 'p-reading': '1e5', n1: 'June' }],
    ]);
    expect([update.added, update.changed, update.removed]).toEqual([2, 1, 0]);
  });
  test('without names are numbered', async () => {
    const document = await csv('reading\n1\n2\n');
    expect(planRows(document, guessRowColumns(document.columns, content.parameters), content, 'add', ids()).rows.map((r) => r.name)).toEqual(['low', 'high', 'row 3', 'row 4']);
  });
});

test('out and in again changes nothing, as CSV and as a workbook, whatever spreadsheets make of such cells', async () => {
  const spreadsheets = fc.constantFrom('007', '1e5', '2026-02-30', '03/04/2026', '12345678901234567', '""', '(missing)', '<x>', '=1+1', "'quoted", '-5', ' spaced ', 'a;b,c|d', 'two\nlines', '"said"', '0.10', 'TRUE', 'nul l', '_x0041_', '_x0041_x005F_', 'constructor', "'constructor", '__proto__', '\uFFFD', 'a\u0085\uFFFDb\u{1FFFE}\0', '\r');
  // A text file is one: of what is no character at all it promises nothing.
  const inText = fc.oneof(spreadsheets, fc.string({ unit: 'grapheme', maxLength: 6 })).filter((t) => !/[\0\r]/.test(t));
  const inWorkbook = fc.oneof(spreadsheets, fc.string({ unit: 'binary', maxLength: 6 }), fc.string({ unit: fc.nat(0xffff).map((unit) => String.fromCharCode(unit)), maxLength: 3 }));
  const lines = (cell: fc.Arbitrary<string>) => fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 5 });
  await fc.assert(
    fc.asyncProperty(fc.oneof(fc.tuple(lines(inText), fc.constant(true)), fc.tuple(lines(inWorkbook), fc.constant(false))), async ([lines, asCsv]) => {
      const content = { parameters: [parameter('a'), parameter('b')], rows: lines.map(([a, b], i) => row(`row ${i}`, { ...(a === '' ? {} : { 'p-a': a }), ...(b === '' ? {} : { 'p-b': b }) })) };
      const table = rowsTable(content);
      const document = asCsv ? await csv(writeCsv(table)) : await readTable(await writeXlsx('data', table), GUESS_ALL);
      const back = planRows(document, guessRowColumns(document.columns, content.parameters), content, 'replace', ids());
      expect([back.rows, back.parameters, back.added, back.changed, back.removed]).toEqual([content.rows, content.parameters, 0, 0, 0]);
    }),
    { numRuns: 200 },
  );
});
