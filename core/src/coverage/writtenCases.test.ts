import { describe, expect, test } from '@jest/globals';
import { expects, type CaseContent } from '../cases/index.ts';
import { coverageItems, type ConditionContent } from '../conditions/index.ts';
import { CoverageIndex, FILLINGS, derivationOf, fillGap, mergedConditions, mergedCovers, rowRefusal, writtenCases, type DesignCase } from './index.ts';
import { C, K, byReading, condition, designOf, ranges, requirement, testCase, MODELS } from './testDesign/index.ts';

/** Items whose outcome the model does not say: of a plain condition, a rule without actions, all combinations but those with an invalid value. */
const STILL_MISSING: Record<string, number> = { plain: 1, ranges: 0, table: 1, states: 0, combination: 11 };

/** The case with what its author still has to say. */
const finished = (content: CaseContent): CaseContent => ({
  ...content,
  steps: content.steps.map((s) => (s.kind === 'step' ? { ...s, action: s.action || 'Look at it', expected: s.expected === '' || s.expected === 'condition 1' ? 'It is as it should be' : s.expected } : s)),
  rows: content.rows.map((row) => ({ ...row, cells: Object.fromEntries(content.parameters.map((p) => [p.id, row.cells[p.id] ?? (p.name === 'outcome' ? 'taken' : '')])) })),
});

const coverageWith = (content: Partial<ConditionContent>, cases: readonly CaseContent[]) =>
  new CoverageIndex(designOf({ requirements: [requirement(1)], conditions: [condition(1, [1], content)], cases: cases.map((c, i): DesignCase => ({ id: C(i + 1), state: 'draft', version: 1, content: c })) })).coverageOf(K(1));

describe.each(Object.entries(MODELS))('cases written for every gap of a %s model', (name, model) => {
  const content = condition(1, [1], { model }).content;
  const keys = coverageItems(content).map((i) => i.key);
  test.each(FILLINGS)('%s: show every item once what is missing is written, and none that nobody could tell before', (how) => {
    let n = 0;
    const filling = fillGap(content, keys, how);
    const cases = writtenCases({ id: K(1), version: 1, content }, filling, how, 'm', () => `n${(n += 1)}`);
    expect(filling.unreachable).toEqual([]);
    const items = coverageWith({ model }, cases.map(finished))?.items ?? [];
    expect(items.length).toBe(keys.length);
    expect(items.filter((i) => i.standing !== 'shown').map((i) => i.item.name)).toEqual([]);
    const asWritten = coverageWith({ model }, cases)?.items ?? [];
    expect(asWritten.filter((i) => i.standing !== 'shown').map((i) => i.standing)).toEqual(Array(STILL_MISSING[name]).fill('linked'));
    if (name === 'states') expect(cases.flatMap((c) => c.steps).filter((s) => !expects(s))).toEqual([]);
    if (how === 'onePerItem') expect(cases.length).toBe(keys.length);
    else expect(cases.length + cases.reduce((rows, c) => rows + c.rows.length, 0)).toBeLessThanOrEqual(keys.length + 1);
  });
});

test('a row that gives an alias counts, one that gives a stranger is named with the reason', () => {
  const model = MODELS.table!;
  const content = condition(1, [1], { model }).content;
  const [written] = writtenCases({ id: K(1), version: 1, content }, fillGap(content, coverageItems(content).slice(0, 1).map((i) => i.key)), 'fewest', '', () => Math.random().toString(36).slice(2));
  const carrier = written!.covers[0]!.fields[0]!.parameter;
  const withValue = (value: string): CaseContent => ({ ...written!, rows: written!.rows.map((r) => ({ ...r, cells: { ...r.cells, [carrier]: value } })) });
  const shown = (c: CaseContent) => coverageWith({ model }, [c])?.items.filter((i) => i.standing === 'shown').map((i) => i.item.name);
  expect([shown(withValue('no')), shown(withValue('Sí'))]).toEqual([['rule 1'], []]);
  const stranger = withValue('Sí');
  expect(rowRefusal(stranger, stranger.covers[0]!, content, stranger.rows[0]!)).toEqual({ code: 'value_unknown', field: 'arrears', text: 'Sí' });
  expect(derivationOf(stranger, stranger.covers[0]!, content, stranger.rows[0]!)).toMatchObject({ kind: 'values', values: [{ field: 'arrears', parameter: 'arrears', text: 'Sí', from: 'row' }, { field: '<plan>', parameter: 'plan' }] });
});

test('merged conditions keep one model, all requirements, and the cases of all; what the one that stays carried stays', () => {
  const kept = condition(1, [1], { depths: ['smoke'] });
  const gone = condition(2, [1, 2], { depths: ['core', 'smoke'], model: ranges });
  const both = testCase(1, ['0'], [{ id: K(2), ...byReading }, { id: K(1), expects: ['s1' as never] }]);
  const only = testCase(2, ['0'], [{ id: K(3) }, { id: K(2), ...byReading, expects: ['s1' as never] }]);
  const merge = mergedConditions(kept, [gone], [both, only, testCase(3, ['0'], [{ id: K(1) }])]);
  expect(merge.condition).toMatchObject({ title: 'condition 1', model: { kind: 'plain' }, depths: ['smoke', 'core'], requirements: [{ id: 'R-1' }, { id: 'R-2' }] });
  expect(merge.cases.map((c) => [c.id, c.content.covers.map((x) => [x.id, x.fields.length, x.expects])])).toEqual([
    ['C-1', [['K-1', 0, ['s1']]]],
    ['C-2', [['K-3', 0, []], ['K-1', 0, ['s1']]]],
  ]);
  const untouched = [...testCase(4, ['0'], [{ id: K(1) }, { id: K(3) }]).content.covers];
  expect(mergedCovers(untouched, kept, new Set([K(2)]))).toBe(untouched);
});
