import { expect, test } from '@jest/globals';
import { GUESS_ALL, readFile } from '@caderno/core/exchange';
import { writeWorkbook } from './writeWorkbook.ts';

test('a workbook reads back as the rows it was written of, sheet by sheet', async () => {
  const rows = [['id', 'title', 'text'], ['1', 'constructor', 'two\nlines'], ['2', '_x0041_ & <b>', '=1+1'], ['3', 'ação 😀', 'bell \u0007 inside']];
  const bytes = await writeWorkbook([{ name: 'First/one', rows }, { name: 'First/one', rows: [['id', 'title'], ['9', 'plain words']] }]);
  const first = await readFile('book.xlsx', bytes, GUESS_ALL);
  expect([first.sheets, first.columns, first.problems]).toEqual([['First one', 'First one (2)'], rows[0], []]);
  expect(first.records.map((record) => record.cells)).toEqual(rows.slice(1));
  const second = await readFile('book.xlsx', bytes, { ...GUESS_ALL, sheet: 'First one (2)' });
  expect(second.records.map((record) => record.cells)).toEqual([['9', 'plain words']]);
});
