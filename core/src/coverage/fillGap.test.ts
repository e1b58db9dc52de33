import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CASE } from '../cases/index.ts';
import { coverageItems, fieldId, type ConditionContent } from '../conditions/index.ts';
import { CoverageIndex, addProposedRows, fillGap, itemsToMake } from './index.ts';
import { C, K, byReading, condition, designOf, ranges, reading, requirement, testCase } from './testDesign/index.ts';

const content = condition(1, [1], { model: ranges }).content;
const all = (c: ConditionContent) => coverageItems(c).map((i) => i.key);

test('boundary values show their partitions too: seven rows for ten items', () => {
  const { rows, unreachable } = fillGap(content, all(content));
  expect(rows.map((r) => r.values[0]?.cell)).toEqual(['-1', '0', '100000', '99999', '12a', '""', '12.5']);
  expect(rows[1]).toMatchObject({ name: 'first of valid', outcome: 'stored' });
  expect(unreachable).toEqual([]);
});

test('only what is missing is made', () => {
  const design = designOf({ requirements: [requirement(1)], conditions: [condition(1, [1], { model: ranges })], cases: [testCase(1, ['0', '-1', '99999', '100000', '12a', '""'], [byReading])] });
  const coverage = new CoverageIndex(design).coverageOf(K(1));
  expect(coverage && fillGap(content, itemsToMake(coverage)).rows).toEqual([{ name: 'fraction', values: [{ field: reading.id, cell: '12.5' }], outcome: 'refused', shows: ['reading:class:fraction'] }]);
});

test('valid values of several fields share a row, invalid ones stand alone', () => {
  const other = { ...reading, id: fieldId('other'), name: 'other', classes: [] };
  const two = { ...content, model: { ...ranges, fields: [{ ...reading, classes: [] }, other] } };
  const { rows, unreachable } = fillGap(two, all(two));
  expect(unreachable).toEqual([]);
  const cells = rows.map((r) => r.values.map((v) => v.cell));
  expect(cells).toContainEqual(['0', '0']);
  expect(cells.filter(([a, b]) => ['-1', '100000'].includes(a ?? '') && ['-1', '100000'].includes(b ?? ''))).toEqual([]);
  expect(rows).toHaveLength(6);
});

test('rows added to a case show all that was proposed, whatever was missing', () => {
  fc.assert(
    fc.property(fc.subarray(all(content)), (missing) => {
      const filling = fillGap(content, missing);
      let n = 0;
      const made = addProposedRows({ ...EMPTY_CASE, steps: testCase(1, []).content.steps }, { id: K(1), version: 1, content }, filling.rows, () => `n${(n += 1)}`);
      const index = new CoverageIndex(designOf({ requirements: [requirement(1)], conditions: [condition(1, [1], { model: ranges })], cases: [{ id: C(1), state: 'draft', version: 1, content: made }] }));
      const shown = index.coverageOf(K(1))?.items.filter((i) => i.standing === 'shown').map((i) => i.item.key) ?? [];
      expect(missing.filter((k) => !shown.includes(k))).toEqual([]);
    }),
  );
});

test('a field is carried by the parameter of its name, and outcomes go where the cover says', () => {
  const before = testCase(1, [], [{ id: K(1), outcome: testCase(1, []).content.parameters[0]!.id }]).content;
  const made = addProposedRows(before, { id: K(1), version: 4, content }, fillGap(content, all(content)).rows.slice(0, 1), () => 'new');
  expect(made.parameters).toHaveLength(1);
  expect(made.covers[0]).toMatchObject({ id: K(1), seenVersion: 1, fields: [{ id: 'reading', parameter: 'p' }] });
});
