import { describe, expect, test } from '@jest/globals';
import { isCaseId } from '../artefacts/index.ts';
import { stepId } from '../cases/index.ts';
import { CoverageIndex, changedRows, coverageReport, coverageRows, instancesOf, markOf, reportOfRows, type CaseRow, type CoverageRow, type Design, type ReportHeads } from './index.ts';
import { C, K, R, condition, designOf, requirement, testCase } from './testDesign/index.ts';

const design = designOf({
  requirements: [requirement(1, { module: 'a', risk: 'high' }), requirement(2, { module: 'a' }), requirement(3, { module: 'b' })],
  conditions: [condition(1, [1, 2]), condition(2, [2]), condition(3, [3])],
  cases: [testCase(1, ['1', '2'], [{ id: K(1), expects: [stepId('s1')] }]), testCase(2, [], [{ id: K(2) }]), testCase(3, ['1'])],
});
const heads: ReportHeads = {
  requirements: design.requirements.map((r, position) => ({ ...r, parent: null, position })),
  conditions: design.conditions.map((c) => ({ id: c.id, requirements: c.content.requirements.map((r) => r.id) })),
  cases: design.cases.flatMap(({ id, state, content }) => (isCaseId(id) ? [{ id, state, rows: content.rows.length, estimate: 2, covers: content.covers.map((c) => c.id) }] : [])),
};
const rowsOf = (d: Design, before?: ReadonlyMap<CoverageRow['id'], CoverageRow>) => coverageRows(new CoverageIndex(d), before);

describe('rows', () => {
  test('are of counted conditions, of cases that show something or come to more than their own, and of open questions; nothing else', () => {
    expect([...rowsOf(design).keys()].sort()).toEqual(['C-1', 'K-1', 'K-2', 'K-3']);
    const withdrawn = { ...design, conditions: design.conditions.map((c) => (c.id === K(1) ? { ...c, state: 'withdrawn' as const } : c)) };
    expect([...rowsOf(withdrawn).keys()].sort()).toEqual(['K-2', 'K-3']);
  });

  test('that say the same stay the same, so that only what changed is written', () => {
    const before = rowsOf(design);
    const linkedNow = { ...design, cases: [...design.cases, testCase(4, [], [{ id: K(3) }])] };
    const after = rowsOf(linkedNow, before);
    expect(after.get(K(1))).toBe(before.get(K(1)));
    expect(changedRows(before, after)).toEqual({ changed: [expect.objectContaining({ id: K(3), standings: ['linked'] })], gone: [] });
    expect(changedRows(after, rowsOf({ ...design, conditions: design.conditions.slice(0, 2) }, after))).toEqual({ changed: [], gone: [K(3)] });
    expect(changedRows(before, rowsOf(design))).toEqual({ changed: [], gone: [] });
  });
});

describe('the report of heads and rows', () => {
  test('is that of the index', () => {
    const { minutes, ...report } = reportOfRows(heads, rowsOf(design));
    expect(report).toEqual({ ...coverageReport(new CoverageIndex(design)), minutes: undefined });
    // Two instances of the first, one of each other, two minutes each.
    expect(minutes).toBe(8);
  });

  test('makes anew only the rows in which something changed', () => {
    const before = rowsOf(design);
    const first = reportOfRows(heads, before);
    const after = rowsOf({ ...design, cases: [...design.cases, testCase(4, [], [{ id: K(3) }])] }, before);
    const second = reportOfRows(heads, after);
    expect([first, second].map((r) => r.requirements.map((row) => row.counts.linked))).toEqual([[0, 1, 0], [0, 1, 1]]);
    expect(second.requirements.map((row, i) => row === first.requirements[i])).toEqual([true, true, false]);
    const renamed = { ...heads, requirements: heads.requirements.map((r) => (r.id === R(1) ? { ...r, title: 'Another' } : r)) };
    expect(reportOfRows(renamed, after).requirements.map((row, i) => row === second.requirements[i])).toEqual([false, true, true]);
  });

  test('tells what is known while rows are behind: a condition without a row counts nowhere, and a row without its condition neither', () => {
    const rows = rowsOf(design);
    const fresh = { ...heads, conditions: [...heads.conditions, { id: K(9), requirements: [R(3)] }] };
    expect(reportOfRows(fresh, rows).requirements.at(-1)?.conditions.map((c) => c.id)).toEqual([K(3)]);
    const gone = { ...heads, conditions: heads.conditions.filter((c) => c.id !== K(3)) };
    expect(reportOfRows(gone, rows)).toMatchObject({ unanalysed: [R(3)], counts: { gap: 0, shown: 1, linked: 1 } });
  });

  test('counts a condition of two requirements of one module once in it, and in both rows', () => {
    const report = reportOfRows(heads, rowsOf(design));
    expect(report.byModule).toMatchObject([{ module: 'a', requirements: 2, counts: { shown: 1, linked: 1 } }, { module: 'b', requirements: 1, counts: { gap: 1 } }]);
    expect(report.requirements.map((r) => r.counts.shown)).toEqual([1, 1, 0]);
  });

  test('stands in the order of the outline, without what is withdrawn or a heading', () => {
    const places = { [R(1)]: { parent: R(3), position: 1 }, [R(2)]: { parent: null, position: 9 }, [R(3)]: { parent: null, position: 2 } };
    const moved = { ...heads, requirements: heads.requirements.map((r) => ({ ...r, ...places[r.id] })) };
    expect(reportOfRows(moved, rowsOf(design)).requirements.map((r) => r.id)).toEqual([R(3), R(1), R(2)]);
    const some = { ...moved, requirements: moved.requirements.map((r) => (r.id === R(3) ? { ...r, type: 'heading' as const } : r.id === R(2) ? { ...r, state: 'withdrawn' as const } : r)) };
    expect(reportOfRows(some, rowsOf(design)).requirements.map((r) => r.id)).toEqual([R(1)]);
  });
});

test('a case without a row comes to its own rows and to what it links to', () => {
  const row: CaseRow = { kind: 'case', id: C(1), shows: true, counts: { instances: 0, steps: 9 } };
  expect([instancesOf({ rows: 3 }, undefined), instancesOf({ rows: 0 }, undefined), instancesOf({ rows: 3 }, row), instancesOf({ rows: 3 }, { ...row, counts: null })]).toEqual([3, 1, 0, 3]);
  expect([markOf({ covers: [] }, undefined), markOf({ covers: [K(1)] }, undefined), markOf({ covers: [] }, row), markOf({ covers: [K(1)] }, { ...row, shows: false })]).toEqual(['nothing', 'linked', 'shows', 'linked']);
});
