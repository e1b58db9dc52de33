import { expect, test } from '@jest/globals';
import { strFromU8, unzipSync } from 'fflate';
import { GUESS_ALL, readFile, writeXlsx } from './index.ts';

const LONG = 'x'.repeat(100);
const ROWS = [['Id', 'What is done', 'Empty'], ['1', 'open', ''], ['2', LONG, ''], ['3', 'two\nlines', '']];

test('only rows that need more than one line have a look, what is empty is not written, and all of it reads back', async () => {
  const bytes = await writeXlsx('Steps', ROWS);
  const files = unzipSync(bytes);
  const sheet = strFromU8(files[Object.keys(files).find((name) => name.includes('worksheets/sheet'))!]!);
  const lookOf = (cell: string): string | undefined => new RegExp(`<c r="${cell}"[^>]*?(?: s="(\\d+)")?[ >/]`).exec(sheet)?.[1];
  expect(sheet).not.toMatch(/<c r="C[234]"/);
  expect([lookOf('A2'), lookOf('B2')]).toEqual([undefined, undefined]);
  const wrapped = /<c r="B3"[^>]*s="(\d+)"/.exec(sheet)?.[1];
  expect(wrapped).toBeDefined();
  for (const cell of ['A3', 'B4']) expect(new RegExp(`<c r="${cell}"[^>]*s="${wrapped}"`).test(sheet)).toBe(true);
  const styles = strFromU8(files['xl/styles.xml']!);
  expect([styles.includes('wrapText="1"'), styles.includes('vertical="top"'), /<c r="A1"[^>]*s="\d+"/.test(sheet)]).toEqual([true, true, true]);
  const { records } = await readFile('steps.xlsx', bytes, GUESS_ALL);
  expect(records.map((record) => record.cells.slice(0, 2))).toEqual(ROWS.slice(1).map((row) => row.slice(0, 2)));
});
