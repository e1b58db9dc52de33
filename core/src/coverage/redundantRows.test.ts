import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rowId } from '../cases/index.ts';
import { fieldId, fieldValues } from '../conditions/index.ts';
import { CoverageIndex, gainedItems, redundantRows, type DesignCase } from './index.ts';
import { C, K, byReading, condition, designOf, ranges, reading, requirement, testCase } from './testDesign/index.ts';

const conditionOf = condition(1, [1], { model: ranges });
const coverageOf = (testCases: readonly DesignCase[]) => {
  const coverage = new CoverageIndex(designOf({ requirements: [requirement(1)], conditions: [conditionOf], cases: testCases })).coverageOf(K(1));
  if (coverage === undefined) throw new Error('The condition counts');
  return coverage;
};

describe('rows that show nothing others do not', () => {
  test('are the later of two alike; the reason names a row that shows all of it', () => {
    expect(redundantRows(C(1), [coverageOf([testCase(1, ['4182', '0', '5', '12a', '12b'], [byReading])])])).toEqual([
      { row: 'r0', like: 'r1' },
      { row: 'r2', like: 'r1' },
      { row: 'r4', like: 'r3' },
    ]);
  });
  test('can all be put aside together and no item loses its standing; a row less would lose one', () => {
    let found = 0;
    fc.assert(
      fc.property(fc.array(fc.constantFrom('0', '-1', '5', '99999', '100000', '12a', '12b', '""', '', '7'), { maxLength: 8 }), (values) => {
        const all = testCase(1, values, [byReading]);
        const redundant = new Set<string>(redundantRows(C(1), [coverageOf([all])]).map((r) => r.row));
        const without = (gone: ReadonlySet<string>) => coverageOf([{ ...all, content: { ...all.content, rows: all.content.rows.map((r) => ({ ...r, aside: gone.has(r.id) })) } }]).items.map((i) => i.standing);
        const standings = coverageOf([all]).items.map((i) => i.standing);
        if (redundant.size < values.length) expect(without(redundant)).toEqual(standings);
        for (const row of all.content.rows.filter((r) => !redundant.has(r.id) && r.cells.p !== '')) expect(without(new Set([...redundant, row.id]))).not.toEqual(standings);
        found += redundant.size;
      }),
    );
    expect(found).toBeGreaterThan(50);
  });
});

test('what rows would add is what no row shows yet, each item once', () => {
  const now = testCase(1, ['0'], [byReading]);
  const made = testCase(1, ['5', '99999', '12a'], [byReading]).content.rows.map((r, i) => ({ ...r, id: rowId(`m${i}`) }));
  const gained = gainedItems(C(1), now.content, made, [{ condition: conditionOf, coverage: coverageOf([now]) }], 100);
  expect([...gained].map(([id, items]) => [id, items.map((i) => i.name)])).toEqual([['m0', []], ['m1', ['last of valid']], ['m2', ['letters']]]);
});

test('a condition offers a value of each of its parts and knows which ones lie in any', () => {
  const known = fieldValues(conditionOf.content, reading.id);
  expect(known?.offered).toEqual(expect.arrayContaining(['-1', '0', '99999', '100000', '12a', '""', '12.5']));
  expect(['0', '100001', '12a', '5 m', ''].map((text) => known?.knows(text))).toEqual([true, true, true, true, true]);
  expect(fieldValues(conditionOf.content, fieldId('no such'))).toBeNull();
  const table = { kind: 'decisionTable' as const, conditions: [{ id: fieldId('h'), name: 'household', values: [{ id: 'v', value: '1', aliases: ['one'] }] }], actions: [], rules: [] };
  const household = fieldValues({ ...conditionOf.content, model: table }, fieldId('h'));
  expect([household?.offered, ['1', 'one', 'two'].map((t) => household?.knows(t))]).toEqual([['1'], [true, true, false]]);
});
