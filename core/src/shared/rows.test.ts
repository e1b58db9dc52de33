import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CASE, cloneCase, mergeCases, newCover, newRow, parameterId, rowId, type CaseContent, type CalledRows, type RowChoice } from '../cases/index.ts';
import { fieldId } from '../conditions/index.ts';
import { countExpanded, type Library, type Used } from './index.ts';
import { C, callOf, line, parameter, parameters, readOut, row, someRows } from './testGraphs.ts';
import { EMPTY_DATA_SET, columnsNotTaken, sharedRows, withDataSet, withRowsOwned, withRowsShared, withRunsSettled, type DataSetContent } from '../dataSets/index.ts';

const setOf = (content: DataSetContent, key = 'D-1'): [string, Used] => [key, { kind: 'dataSet', id: 'D-1', version: 1, withdrawn: false, content }];
const caseOf = (content: CaseContent): [string, Used] => ['C-1', { kind: 'case', id: C(1), version: 1, withdrawn: false, content }];
const steps = [line('s1', 'enter <a> and <b>', 'it says <c>')];

test('sharing rows and owning them again changes no instance', () => {
  let shared = 0;
  fc.assert(
    fc.property(parameters, someRows, (declared, rows) => {
      const content: CaseContent = { ...EMPTY_CASE, steps, parameters: declared, rows };
      const set = sharedRows(content, 'rows');
      const taken = withRowsShared(content, { id: 'D-1', content: set });
      const library: Library = new Map([setOf(set)]);
      const before = readOut(content, new Map());
      expect(readOut(taken, library)).toEqual(before);
      expect(readOut(withRowsOwned(taken, set), new Map())).toEqual(before);
      expect(taken.rows).toEqual([]);
      shared += rows.length;
    }),
  );
  expect(shared).toBeGreaterThan(50);
});

describe('a case that takes rows', () => {
  const set: DataSetContent = {
    ...EMPTY_DATA_SET,
    parameters: [parameter('reading'), parameter('answer', 'accepted')],
    rows: [row('low', { reading: '1' }), row('high', { reading: '9', answer: 'refused' })],
    serves: [{ id: 'K-1', seenVersion: 3, fields: [{ id: fieldId('f'), parameter: parameterId('reading') }], outcome: parameterId('answer') }],
  };
  const empty: CaseContent = { ...EMPTY_CASE, steps: [line('s1', 'enter <Reading>', 'it says <answer>')], parameters: [{ ...parameter('Reading'), id: parameterId('own') }] };
  const ids = () => {
    let n = 0;
    return () => `n${(n += 1)}`;
  };
  const taken = withDataSet(empty, { id: 'D-1', content: set }, ids());
  const library: Library = new Map([setOf(set)]);

  test('takes columns by their names, makes parameters of the rest, and covers what the set serves', () => {
    expect(taken.parameters.map((p) => [p.id, p.name])).toEqual([['own', 'Reading'], ['n1', 'answer']]);
    expect(taken.covers).toEqual([{ ...newCover('K-1', 3), fields: [{ id: 'f', parameter: 'own' }], outcome: 'n1' }]);
    expect(readOut(taken, library)).toEqual([['enter 1 => it says accepted'], ['enter 9 => it says refused']]);
    expect(withDataSet(taken, { id: 'D-1', content: set }, ids()).covers).toHaveLength(1);
  });
  test('stays right when a column is renamed, and tells which one it does not take', () => {
    const renamed: DataSetContent = { ...set, parameters: [{ ...set.parameters[0]!, name: 'value' }, set.parameters[1]!, parameter('new')] };
    expect(readOut(taken, new Map([setOf(renamed)]))).toEqual(readOut(taken, library));
    expect(columnsNotTaken(renamed, taken.data!).map((p) => p.name)).toEqual(['new']);
  });
  test('pinned, it keeps the rows of its version; of a set that is gone it has none', () => {
    const pinned: CaseContent = { ...taken, data: { ...taken.data!, pinned: 1 } };
    const both: Library = new Map([setOf({ ...set, rows: [] }), setOf(set, 'D-1@1')]);
    expect([readOut(pinned, both).length, readOut(taken, both).length, readOut(taken, new Map())]).toEqual([2, 1, [['enter <Reading> => it says accepted']]]);
  });
  test('has rows of its own besides, and one of the same id stands instead', () => {
    const more: CaseContent = { ...taken, rows: [newRow(rowId('extra'), 'extra', { own: '5' }), newRow(rowId('low'), 'low', { own: '2' })] };
    expect(readOut(more, library).map((i) => i[0])).toEqual(['enter 9 => it says refused', 'enter 5 => it says accepted', 'enter 2 => it says accepted']);
  });
});

test('a case that takes rows is merged with all that ran, and what did not run stays put aside; a clone without rows takes none', () => {
  const set: DataSetContent = { ...EMPTY_DATA_SET, parameters: [parameter('a')], rows: ['1', '2', '3'].map((a) => row(a, { a })) };
  const library: Library = new Map([setOf(set)]);
  const takes = { ...withDataSet({ ...EMPTY_CASE, title: 'Takes', steps: [line('s1', 'enter <a>')] }, { id: 'D-1', content: set }, () => 'p'), runs: { kind: 'chosen', rows: [rowId('2')] } } as const;
  const own: CaseContent = { ...EMPTY_CASE, title: 'Own', steps: [line('s1', 'enter <a>')], parameters: [parameter('a')], rows: [row('9', { a: '9' })] };
  let n = 0;
  const ids = (): string => `n${(n += 1)}`;
  const intoOwn = mergeCases({ id: C(1), content: own }, { id: C(2), content: withRunsSettled(takes, set) }, 'kept', ids).content;
  expect(readOut(intoOwn, new Map())).toEqual([...readOut(own, new Map()), ...readOut(takes, library)]);
  expect(intoOwn.rows.map((r) => [r.name, r.aside])).toEqual([['9', false], ['1', true], ['2', false], ['3', true]]);
  const intoTakes = mergeCases({ id: C(2), content: takes }, { id: C(1), content: withRunsSettled(own, null) }, 'kept', ids).content;
  expect(readOut(intoTakes, library)).toEqual([...readOut(takes, library), ...readOut(own, new Map())]);
  expect(cloneCase({ id: C(2), version: 1 }, takes, ['covers'], [])).toMatchObject({ rows: [], data: null, runs: { kind: 'all' } });
});

describe('which rows run', () => {
  const called: CaseContent = { ...EMPTY_CASE, steps: [line('s1', 'enter <a>')], parameters: [parameter('a')], rows: ['1', '2', '3', '4'].map((a, i) => ({ ...row(a, { a }), aside: i === 3 })) };
  const runs = (choice: RowChoice): string[] => readOut({ ...called, runs: choice }, new Map()).flat();
  test('of a case: all but those put aside, chosen ones, or those that pass a filter; the count follows', () => {
    expect(runs({ kind: 'all' })).toEqual(['enter 1 => ', 'enter 2 => ', 'enter 3 => ']);
    expect(runs({ kind: 'chosen', rows: [rowId('3'), rowId('1')] })).toEqual(['enter 1 => ', 'enter 3 => ']);
    expect(runs({ kind: 'filter', filters: [{ id: parameterId('a'), text: '>=2' }] })).toEqual(['enter 2 => ', 'enter 3 => ']);
    expect(countExpanded({ ...called, runs: { kind: 'chosen', rows: [rowId('2')] } }, new Map()).instances).toBe(1n);
  });
  test('none: the case does not run', () => expect([runs({ kind: 'chosen', rows: [] }), countExpanded({ ...called, runs: { kind: 'chosen', rows: [] } }, new Map()).instances]).toEqual([[], 0n]));

  const calling = (rows: CalledRows, choice: RowChoice = { kind: 'all' }): string[][] => readOut({ steps: [callOf('c', 1, rows)] }, new Map([caseOf({ ...called, runs: choice })]));
  test.each<[string, CalledRows, string[]]>([
    ['one, put aside or not', { kind: 'own', row: rowId('4') }, ['4']],
    ['chosen ones', { kind: 'chosen', rows: [rowId('4'), rowId('2'), rowId('gone')] }, ['2', '4']],
    ['every row that runs there', { kind: 'every' }, ['1', '2']],
    ['none that is there: once, without a value', { kind: 'chosen', rows: [rowId('gone')] }, ['<a>']],
  ])('of a call: %s', (_, rows, expected) => {
    expect(calling(rows, { kind: 'filter', filters: [{ id: parameterId('a'), text: '<3' }] })).toEqual(expected.map((a) => [`enter ${a} => `]));
    expect(countExpanded({ ...EMPTY_CASE, steps: [callOf('c', 1, rows)] }, new Map([caseOf({ ...called, runs: { kind: 'filter', filters: [{ id: parameterId('a'), text: '<3' }] } })])).instances).toBe(BigInt(expected.length));
  });
});
