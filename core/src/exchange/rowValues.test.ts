import { describe, expect, test } from '@jest/globals';
import { parameterId, type Parameter, type ParameterType } from '../cases/index.ts';
import { GUESS_ALL, guessParameterType, guessRowColumns, guessValueReading, planRows, readTable, understoodCell, type ValueReading } from './index.ts';

const csv = (text: string, header: number | null = null) => readTable(new TextEncoder().encode(text), GUESS_ALL, header);

describe('a cell that spreadsheets write in their own way', () => {
  const comma: ValueReading = { numbers: 'comma', dates: 'asWritten' };
  const dayFirst: ValueReading = { numbers: 'asWritten', dates: 'dayFirst' };
  const monthFirst: ValueReading = { numbers: 'asWritten', dates: 'monthFirst' };
  test.each<[ParameterType, string, ValueReading, string]>([
    ['decimal', '12,50', comma, '12.50'],
    ['decimal', '-1.234.567,5', comma, '-1234567.5'],
    ['decimal', '1 234,5', comma, '1234.5'],
    ['whole', '1.234', comma, '1234'],
    ['whole', '007', comma, '007'],
    ['decimal', '1,2,3', comma, '1,2,3'],
    ['decimal', '1e5', comma, '1e5'],
    ['decimal', '12.5', comma, '12.5'],
    ['text', '12,50', comma, '12,50'],
    ['date', '28.02.2026', dayFirst, '2026-02-28'],
    ['date', '3/4/2026', dayFirst, '2026-04-03'],
    ['date', '3/4/2026', monthFirst, '2026-03-04'],
    ['date', '30.02.2026', dayFirst, '30.02.2026'],
    ['date', '2026-02-30', dayFirst, '2026-02-30'],
    ['dateTime', '28/02/2026 7:05', dayFirst, '2026-02-28 07:05'],
    ['date', '28/02/2026 7:05', dayFirst, '28/02/2026 7:05'],
    ['text', '28.02.2026', dayFirst, '28.02.2026'],
  ])('%s %s', (type, cell, reading, expected) => expect(understoodCell(type, cell, reading)).toBe(expected));
});

test.each<[string, ParameterType, string[], ValueReading]>([
  ['a comma before decimals', 'decimal', ['1', '2,5'], { numbers: 'comma', dates: 'asWritten' }],
  ['a point beside it: nothing is sure', 'decimal', ['2,5', '2.5'], { numbers: 'asWritten', dates: 'asWritten' }],
  ['points between thousands alone: nothing is sure', 'whole', ['1.234'], { numbers: 'asWritten', dates: 'asWritten' }],
  ['in a text column: nothing', 'text', ['2,5'], { numbers: 'asWritten', dates: 'asWritten' }],
  ['a day above 12 first', 'date', ['03.04.2026', '28.02.2026'], { numbers: 'asWritten', dates: 'dayFirst' }],
  ['a day above 12 second', 'date', ['3/28/2026'], { numbers: 'asWritten', dates: 'monthFirst' }],
  ['both orders: nothing is sure', 'date', ['3/28/2026', '28/3/2026'], { numbers: 'asWritten', dates: 'asWritten' }],
  ['neither above 12: nothing is sure', 'date', ['03.04.2026'], { numbers: 'asWritten', dates: 'asWritten' }],
])('guessed of %s', (_, type, cells, expected) => expect(guessValueReading([{ type, cells }])).toEqual(expected));

test.each<[ParameterType, string[]]>([
  ['whole', ['0', '-5', '', '12345678901234567']],
  ['decimal', ['1', '2,5', '1.234,50']],
  ['text', ['007', '5']],
  ['text', ['1e5']],
  ['date', ['2026-02-28', '28.02.2026']],
  ['text', ['2026-02-30']],
  ['yesNo', ['yes', 'No']],
  ['text', ['']],
  ['text', ['accepted', '5']],
])('a new column is %s: %j', (type, cells) => expect(guessParameterType(cells)).toBe(type));

test('what was understood is counted and shown, and what is still no value of its type is told as it stands', async () => {
  const parameters = [['sum', 'decimal'], ['day', 'date']].map(([name = '', type]): Parameter => ({ id: parameterId(name), name, type: type as ParameterType, default: '', description: '' }));
  const document = await csv('row;sum;day\none;1,5;28.02.2026\ntwo;1,2,3;30.02.2026\n');
  const plan = planRows(document, guessRowColumns(document.columns, parameters), { rows: [], parameters }, 'replace', () => 'n', { numbers: 'comma', dates: 'dayFirst' });
  expect(plan.rows.map((r) => r.cells)).toEqual([{ sum: '1.5', day: '2026-02-28' }, { sum: '1,2,3', day: '30.02.2026' }]);
  expect(plan.understood).toEqual({ count: 2, examples: [{ from: '1,5', to: '1.5' }, { from: '28.02.2026', to: '2026-02-28' }] });
  expect(plan.problems.map((p) => [p.line, p.value])).toEqual([[3, '1,2,3'], [3, '30.02.2026']]);
});

describe('the row that names the columns', () => {
  const read = async (text: string, header: number | null) => {
    const { columns, records } = await csv(text, header);
    return [columns, records.map((r) => r.cells.join(' '))];
  };
  test('is the first, below lines of a title', async () => {
    expect(await read('Readings of March;;\n;;\nrow;reading;answer\nlow;0;ok\n', null)).toEqual([['row', 'reading', 'answer'], ['low 0 ok']]);
  });
  test('is none where the first holds values only', async () => expect(await read('0;2026-02-28\n5;2026-03-01\n', null)).toEqual([['column 1', 'column 2'], ['0 2026-02-28', '5 2026-03-01']]));
  test('is whichever one says', async () => {
    expect(await read('a;b\nc;d\ne;f\n', 2)).toEqual([['c', 'd'], ['e f']]);
    expect(await read('a;b\nc;d\n', 0)).toEqual([['column 1', 'column 2'], ['a b', 'c d']]);
  });
});
