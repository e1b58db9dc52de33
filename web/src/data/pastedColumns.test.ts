import { expect, test } from '@jest/globals';
import { cellOf, gridColumns } from './table.ts';
import { tableOfPaste } from './pastedColumns.ts';

const read = (block: readonly (readonly string[])[]): { names: string[]; rows: string[] } => {
  const table = tableOfPaste(block);
  const columns = gridColumns(table.parameters, new Set(), false);
  return { names: table.parameters.map((p) => p.name), rows: table.rows.map((row) => columns.map((c) => cellOf(row, c)).join('|')) };
};

test('the first row names the columns where it holds names, and one called name gives the names of the rows', () => {
  expect(read([['name', 'reading', 'answer'], ['usual', '4182', 'taken'], ['too low', '-1', '']])).toEqual({ names: ['reading', 'answer'], rows: ['usual|4182|taken', 'too low|-1|'] });
  expect(read([['reading', 'answer'], ['4182', 'taken']])).toEqual({ names: ['reading', 'answer'], rows: ['row 1|4182|taken'] });
});

test('values are no names: columns are counted, rows too, and nothing is lost from ragged rows', () => {
  expect(read([['4182', 'taken'], ['-1']])).toEqual({ names: ['column 1', 'column 2'], rows: ['row 1|4182|taken', 'row 2|-1|'] });
  expect(read([['a', 'a'], ['b', 'c']])).toEqual({ names: ['column 1', 'column 2'], rows: ['row 1|a|a', 'row 2|b|c'] });
  expect(read([['only', 'a head']])).toEqual({ names: ['column 1', 'column 2'], rows: ['row 1|only|a head'] });
});
