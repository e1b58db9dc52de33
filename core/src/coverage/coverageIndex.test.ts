import { expect, test, describe } from '@jest/globals';
import fc from 'fast-check';
import { parameterId, rowId, stepId, type RowChoice } from '../cases/index.ts';
import { PLAIN_ITEM, TECHNIQUE_OF_ITEM } from '../conditions/index.ts';
import { CoverageIndex, caseMarks, caseRow, changedRows, coverageRows, markOf, reportOfRows, type CoverageRow, type ReportHeads, countStandings, coverageReport, heldUp, listItems, percentDown, perTechnique, shownBy, shownRatio, unanalysedRows, type Design, type DesignCase } from './index.ts';
import { isCaseId, artefactId } from '../artefacts/index.ts';
import type { QuestionSubject } from '../basis/index.ts';
import { after, calling, change, dataSet, limit, sharedSteps, sharedUse, taking, withData, C, K, R, byReading, condition, designOf, question, ranges, requirement, testCase } from './testDesign/index.ts';

const standings = (design: Design, k = 1) => new CoverageIndex(design).coverageOf(K(k))?.items.map((i) => i.standing);

test('worked example 1: seven rows show nine of ten items; the gap is the fraction', () => {
  const design = designOf({
    requirements: [requirement(1)],
    conditions: [condition(1, [1], { model: ranges })],
    cases: [testCase(34, ['0', '-1', '99999', '100000', '4182', '12a', '""'], [byReading])],
  });
  const items = new CoverageIndex(design).coverageOf(K(1))?.items ?? [];
  expect(items.map((i) => i.item.kind)).toEqual([...Array(3).fill('partition'), ...Array(4).fill('boundary'), ...Array(3).fill('class')]);
  expect(items.filter((i) => i.standing !== 'shown').map((i) => i.item.name)).toEqual(['fraction']);
  const { counts } = coverageReport(new CoverageIndex(design));
  expect(shownRatio(counts)).toEqual({ part: 9, of: 10 });
  expect(percentDown(shownRatio(counts))).toBe(90);
  const coverage = new CoverageIndex(design).coverageOf(K(1));
  const valid = items.findIndex((i) => i.item.name === 'valid');
  expect(coverage && shownBy(coverage, 2)[valid]?.map((r) => r.rowName)).toEqual(['row 0', 'row 2']);
  expect(items[valid]?.instances).toBe(3);
});

describe('standings, the first that holds', () => {
  const base = designOf({ requirements: [requirement(1)], conditions: [condition(1, [1])] });
  const shows = [{ expects: [stepId('s1')] }];

  test('no case: gap', () => expect(standings(base)).toEqual(['gap']));
  test('a case that only claims to cover: linked', () => expect(standings({ ...base, cases: [testCase(1, [], [{}])] })).toEqual(['linked']));
  test('a named expected result: shown', () => expect(standings({ ...base, cases: [testCase(1, [], shows)] })).toEqual(['shown']));
  test('a named step that expects nothing: linked', () => {
    const c = testCase(1, [], shows);
    expect(standings({ ...base, cases: [{ ...c, content: { ...c.content, steps: c.content.steps.map((s) => ({ ...s, expected: ' ' })) } }] })).toEqual(['linked']);
  });
  test('a withdrawn case counts for nothing', () => expect(standings({ ...base, cases: [testCase(1, [], shows, { state: 'withdrawn' })] })).toEqual(['gap']));
  test('a condition changed in meaning since the link: suspect', () => {
    expect(standings({ ...base, conditions: [condition(1, [1], {}, { version: 3, meaningSince: 2 })], cases: [testCase(1, [], shows)] })).toEqual(['suspect']);
  });
  test('a requirement changed in meaning since: suspect', () => {
    expect(standings({ ...base, requirements: [requirement(1, { meaningSince: 2 })], cases: [testCase(1, [], shows)] })).toEqual(['suspect']);
  });
  test('one trusted link is enough', () => {
    const later = testCase(2, [], [{ expects: [stepId('s1')], seenVersion: 2 }]);
    expect(standings({ ...base, conditions: [condition(1, [1], {}, { version: 2, meaningSince: 2 })], cases: [testCase(1, [], shows), later] })).toEqual(['shown']);
  });
  test('left out comes before shown', () => {
    const leftOut = [{ id: PLAIN_ITEM, reason: 'not built', by: 'Rui M.', at: '2026-01-01T00:00:00Z' }];
    const design = { ...base, conditions: [condition(1, [1], { leftOut })], cases: [testCase(1, [], shows)] };
    expect(standings(design)).toEqual(['leftOut']);
    expect(percentDown(shownRatio(coverageReport(new CoverageIndex(design)).counts))).toBeNull();
  });
});

describe('open questions', () => {
  const base = designOf({ requirements: [requirement(1), requirement(2)], conditions: [condition(1, [1], { model: ranges }), condition(2, [2])], cases: [testCase(1, ['0'], [byReading])] });
  const onRequirement = (holds: boolean): QuestionSubject => ({ kind: 'requirement', id: R(2), words: '', holds });
  const onItems = (...items: string[]): QuestionSubject => ({ kind: 'condition', id: K(1), items, holds: true });
  const waiting = (about: readonly QuestionSubject[], status?: 'answered') => coverageReport(new CoverageIndex({ ...base, questions: [question(1, about, status)] })).counts.waiting;

  test('about a requirement: every item of its conditions waits, if it holds them up', () => expect([waiting([onRequirement(true)]), waiting([onRequirement(false)])]).toEqual([1, 0]));
  test('about items: just those; about none in particular: all', () => expect([waiting([onItems('reading:class:empty')]), waiting([onItems()])]).toEqual([1, 10]));
  test('waiting comes before shown, and an answer brings it back', () => {
    expect(standings({ ...base, questions: [question(1, [onItems()])] })).toEqual(Array(10).fill('waiting'));
    expect(waiting([onItems()], 'answered')).toBe(0);
  });
  test('a question says how many items it holds up; one item of two questions waits once and counts for both', () => {
    const index = new CoverageIndex({ ...base, questions: [question(1, [onItems(), onRequirement(true)]), question(2, [onItems('reading:class:empty')]), question(3, [])] });
    expect([...heldUp(index)]).toEqual([[artefactId('question', 1), 11], [artefactId('question', 2), 1]]);
    expect(coverageReport(index).counts.waiting).toBe(11);
  });
});

test('the project says what a risk weighs', () => {
  const design = designOf({ requirements: [requirement(1, { risk: 'high' })], conditions: [condition(1, [1])], riskWeights: { high: 5, medium: 2, low: 1 } });
  expect(coverageReport(new CoverageIndex(design)).weighted.gap).toBe(5);
});

describe('numbers', () => {
  test('percent is rounded down, so that 100 is never claimed with a gap', () => {
    expect(percentDown({ part: 999, of: 1000 })).toBe(99);
    expect(percentDown({ part: 1000, of: 1000 })).toBe(100);
    expect(percentDown({ part: 0, of: 0 })).toBeNull();
  });

  const design = designOf({
    requirements: [requirement(1, { risk: 'high', module: 'a' }), requirement(2, { risk: 'low', module: 'b' }), requirement(3), requirement(4, { state: 'withdrawn' })],
    conditions: [condition(1, [1, 2]), condition(2, [2]), condition(3, [2], { risk: 'high' }), condition(4, [4])],
    cases: [testCase(1, ['1', '2'], [{ id: K(2), expects: [stepId('s1')] }])],
  });
  const report = coverageReport(new CoverageIndex(design));

  test('an item of two requirements counts in both rows and once in all', () => {
    expect(report.requirements.map((r) => [r.id, r.counts.gap, r.counts.shown])).toEqual([[R(1), 1, 0], [R(2), 2, 1], [R(3), 0, 0]]);
    expect(report.counts).toEqual({ gap: 2, shown: 1, linked: 0, waiting: 0, suspect: 0, leftOut: 0 });
  });
  test('items weigh by the highest risk of their requirements, or by their own', () => expect(report.weighted).toMatchObject({ gap: 9 + 9, shown: 1 }));
  test('a requirement without conditions is unanalysed; withdrawn ones are counted nowhere', () => expect(report.unanalysed).toEqual([R(3)]));
  test('instances are rows', () => expect([report.cases, report.instances]).toEqual([1, 2]));
  test('worst first, within the filter', () => {
    const list = (filter: Parameters<typeof listItems>[1]) => listItems(new CoverageIndex(design), filter, 10).items.map((i) => i.condition);
    expect(list({})).toEqual([K(1), K(3), K(2)]);
    expect(list({ standings: ['gap'], module: 'b' })).toEqual([K(1), K(3)]);
    expect(listItems(new CoverageIndex(design), {}, 1)).toMatchObject({ total: 3, items: [{ condition: K(1) }] });
  });
  test('marks of cases', () => {
    const cases = [testCase(1, [], [{ expects: [stepId('s1')] }]), testCase(2, [], [{}]), testCase(3, [])];
    expect([...caseMarks(new CoverageIndex({ ...design, cases }))]).toEqual([[C(1), 'shows'], [C(2), 'linked'], [C(3), 'nothing']]);
  });
});


describe('through what a case uses', () => {
  const standings = (cases: readonly DesignCase[], library: Design['library'] = []) => {
    const index = new CoverageIndex(designOf({ requirements: [requirement(1)], conditions: [condition(1, [1], { model: ranges }), condition(2, [1])], cases, library }));
    const shown = (k: number) => index.coverageOf(K(k))?.items.filter((i) => i.standing === 'shown').map((i) => i.item.name);
    return { index, ranges: shown(1), plain: shown(2) };
  };
  const called = testCase(2, ['0'], [byReading, { id: K(2), expects: [stepId('s1')] }]);
  test('the values that reach a called case count as the caller’s, and its expectations too', () => {
    const alone = standings([called]);
    const caller = testCase(1, ['-1', '5'], [], {}, [calling(0, 2, 'mine', { reading: '<reading>' })]);
    const both = standings([called, caller]);
    expect(new Set(both.ranges)).toEqual(new Set([...(alone.ranges ?? []), 'below', 'last of below']));
    const through = both.index.coverageOf(K(1))?.evidence.find((e) => e.case === C(1));
    expect([through?.through, through?.rows.map((r) => r?.name)]).toEqual([[C(2)], ['row 0', 'row 1']]);
    expect(both.index.coverageOf(K(2))?.items[0]?.instances).toBe(3);
    // Its own row, whatever the caller has.
    const own = standings([called, testCase(1, ['-1'], [], {}, [calling(0, 2, 'own')])]);
    expect(own.ranges).toEqual(alone.ranges);
    // Every row: the caller’s row shows what any of them shows.
    const every = standings([testCase(2, ['-1', '5'], [byReading]), testCase(1, ['7'], [], {}, [calling(0, 2, 'every')])]);
    expect(every.index.coverageOf(K(1))?.items.find((i) => i.item.name === 'below')?.instances).toBe(2);
    expect(every.index.openedCounts().get(C(1))).toEqual({ instances: 2, steps: 2 });
  });
  test('more instances than a number can say do not break the figures of the project', () => {
    const many = Array.from({ length: 200 }, () => '5');
    const chain = Array.from({ length: 12 }, (_, i) => testCase(i + 1, many, [], {}, i === 11 ? [] : [calling(0, i + 2, 'every')]));
    expect(coverageReport(new CoverageIndex(designOf({ cases: chain }))).instances).toBe(Number.MAX_SAFE_INTEGER);
  });
  test('a constant in a cell stands for its value', () => {
    const design = designOf({ requirements: [requirement(1)], conditions: [condition(1, [1], { model: ranges })], cases: [testCase(1, ['<limit>'], [byReading])] });
    const shown = (d: Design) => new CoverageIndex(d).coverageOf(K(1))?.items.filter((i) => i.standing === 'shown').map((i) => i.item.name);
    expect([shown(design), shown({ ...design, constants: [limit] })]).toEqual([['letters'], ['valid', 'last of valid']]);
  });
  test('steps taken out still speak for what they spoke for', () => {
    const before = testCase(1, [], [{ id: K(2), expects: [stepId('s1')] }]);
    const after = { ...before, content: { ...before.content, steps: [sharedUse(0, null)] } };
    expect(standings([before]).plain).toEqual(standings([after], [{ key: 'S-1', used: sharedSteps(before.content.steps) }]).plain);
    expect(standings([after], []).plain).toEqual([]);
  });
});

test('rows of a data set show what own rows of the same values would, and follow it or stay with a version', () => {
  const base = designOf({ requirements: [requirement(1)], conditions: [condition(1, [1], { model: ranges })] });
  const shown = (design: Design) => new CoverageIndex(design).coverageOf(K(1))?.items.map((i) => [i.standing, i.instances]);
  const taken = (pinned: number | null, runs: RowChoice = { kind: 'all' }): Design => ({ ...base, cases: [withData(taking(pinned), runs)(testCase(1, [], [byReading]))], library: [{ key: 'D-1', used: dataSet(['0', '99999', '12a'], false) }, { key: 'D-1@1', used: dataSet(['-1'], false) }] });
  const own = (...values: string[]): Design => ({ ...base, cases: [testCase(1, values, [byReading])] });
  expect(shown(taken(null))).toEqual(shown(own('0', '99999', '12a')));
  expect(shown(taken(1))).toEqual(shown(own('-1')));
  expect(shown(taken(null, { kind: 'chosen', rows: [rowId('d2')] }))).toEqual(shown(own('12a')));
  expect(shown(taken(null, { kind: 'filter', filters: [{ id: parameterId('p'), text: '>5' }] }))).toEqual(shown(own('99999')));
});

/** The plain, slow sums: every item looked at for every number. */
function bruteForce(design: Design): Pick<ReturnType<typeof coverageReport>, 'counts' | 'byModule' | 'byTechnique'> {
  const requirements = design.requirements.filter((r) => r.state !== 'withdrawn');
  const items = new CoverageIndex(design).coverages().flatMap((c) => c.items.map((i) => ({ ...i, refused: i.item.extent.includes('limit'), of: design.conditions.find((k) => k.id === c.id)?.content.requirements.map((r) => r.id) ?? [] })));
  const count = (some: typeof items) => countStandings(some.map((i) => i.standing));
  const modules = [...new Set(requirements.map((r) => r.module))];
  const inModule = (module: string) => requirements.filter((r) => r.module === module);
  return {
    counts: count(items),
    byTechnique: perTechnique((t) => count(items.filter((i) => (i.refused ? 'partitions' : TECHNIQUE_OF_ITEM[i.item.kind]) === t))),
    byModule: modules.map((module) => ({ module, requirements: inModule(module).length, counts: count(items.filter((i) => inModule(module).some((r) => i.of.includes(r.id)))) })),
  };
}

/** What lists show of a design, as the database keeps it beside the contents. */
function headsOf(design: Design): ReportHeads {
  return {
    requirements: design.requirements.map((r, position) => ({ ...r, parent: null, position })),
    conditions: design.conditions.map((c) => ({ id: c.id, requirements: c.content.requirements.map((r) => r.id) })),
    cases: design.cases.flatMap(({ id, state, content }) => (!isCaseId(id) ? [] : [{ id, state, rows: content.rows.length, estimate: content.estimate, covers: content.covers.map((c) => c.id) }])),
  };
}

/** Rows brought up to date as a consumer of the log does: by what has changed alone. */
function takeIn(rows: ReadonlyMap<string, CoverageRow>, { changed, gone }: ReturnType<typeof changedRows>): Map<string, CoverageRow> {
  const next = new Map(rows);
  for (const row of changed) next.set(row.id, row);
  for (const id of gone) next.delete(id);
  return next;
}

test('after any changes the index equals one made from scratch', () => {
  const start = designOf({ requirements: [1, 2, 3].map((n) => requirement(n)), conditions: [condition(1, [1], { model: ranges }), condition(2, [1, 2])], cases: [testCase(1, ['0'], [byReading])] });
  let everShown = false;
  let everWaiting = false;
  fc.assert(
    fc.property(fc.array(change, { minLength: 1, maxLength: 12 }), (changes) => {
      const index = new CoverageIndex(start);
      let design = start;
      let rows = coverageRows(index);
      let kept: ReadonlyMap<string, CoverageRow> = rows;
      for (const c of changes) {
        // A report between changes keeps rows that a wrong index would show stale.
        coverageReport(index);
        index.apply(c);
        design = after(design, c);
        const now = coverageRows(index, rows);
        kept = takeIn(kept, changedRows(rows, now));
        rows = now;
      }
      const scratch = new CoverageIndex(design);
      expect(new Map([...kept].sort())).toEqual(new Map([...coverageRows(scratch)].sort()));
      expect(reportOfRows(headsOf(design), kept)).toEqual(coverageReport(scratch));
      expect(new Map(headsOf(design).cases.flatMap((c) => (c.state === 'withdrawn' ? [] : [[c.id, markOf(c, caseRow(kept, c.id))] as const])))).toEqual(new Map([...caseMarks(scratch)].filter(([id]) => isCaseId(id))));
      const sorted = (i: CoverageIndex) => i.coverages().sort((a, b) => a.id.localeCompare(b.id));
      expect(sorted(index)).toEqual(sorted(scratch));
      expect(coverageReport(index)).toEqual(coverageReport(scratch));
      expect(coverageReport(index)).toMatchObject(bruteForce(design));
      expect(listItems(index, {}, 99)).toEqual(listItems(scratch, {}, 99));
      expect(heldUp(index)).toEqual(heldUp(scratch));
      everWaiting ||= coverageReport(scratch).counts.waiting > 0;
      everShown ||= coverageReport(scratch).counts.shown > 0 && changes.length > 3;
    }),
    { numRuns: 300 },
  );
  expect([everShown, everWaiting]).toEqual([true, true]);
});

test('a heading is counted nowhere, nor what hangs on it alone; as a rule it is not analysed until it has a condition', () => {
  const heading = { ...requirement(2), type: 'heading' as const };
  const base = designOf({ requirements: [requirement(1), heading], conditions: [condition(1, [1])] });
  const index = new CoverageIndex({ ...base, conditions: [...base.conditions, condition(2, [2])] });
  expect(coverageReport(index)).toMatchObject({ unanalysed: [], requirements: [{ id: 'R-1' }], counts: { gap: 1 } });
  index.apply({ kind: 'requirements', inOutlineOrder: [requirement(1), requirement(2)] });
  expect(coverageReport(index)).toMatchObject({ unanalysed: [], counts: { gap: 2 } });
  expect(coverageReport(new CoverageIndex({ ...base, requirements: [requirement(1), requirement(2)] })).unanalysed).toEqual(['R-2']);
  const risky = coverageReport(new CoverageIndex({ ...base, requirements: [requirement(1), { ...requirement(2), risk: 'low' }, { ...requirement(3), risk: 'high' }] }));
  expect([risky.unanalysed, unanalysedRows(risky).map((r) => r.risk)]).toEqual([['R-3', 'R-2'], ['high', 'low']]);
});
