import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isCaseId, type CoveringId } from '../artefacts/index.ts';
import { plainStep, stepId } from '../cases/index.ts';
import { CoverageIndex, additions, chosenCoverage, coverageReport, type Choice, type Design, type DesignCase } from './index.ts';
import { after, change, sharedSteps, sharedUse, C, K, R, byReading, condition, designOf, ranges, requirement, testCase } from './testDesign/index.ts';

const NOTHING_ELSE: Choice['instead'] = { cases: [], library: [] };
const choose = (ids: readonly CoveringId[], instead = NOTHING_ELSE): Choice => ({ ids, instead });

/** The slow judge: a project in which only what is chosen is a case; the others are there to be called and nothing else. */
function onlyChosen(design: Design, { ids, instead }: Choice): CoverageIndex {
  const meant = (c: DesignCase): DesignCase => instead.cases.find((other) => other.id === c.id) ?? c;
  const others = design.cases.flatMap((c) => (isCaseId(c.id) ? [{ key: c.id, used: { kind: 'case' as const, id: c.id, version: c.version, withdrawn: c.state === 'withdrawn', content: c.content } }] : []));
  // An earlier version does not stand for what is called: the key of a call of the latest keeps leading to the latest.
  const cases = design.cases.filter((c) => ids.includes(c.id)).map(meant).map((c, i) => ({ ...c, id: C(1000 + i) }));
  return new CoverageIndex({ ...design, cases, library: [...design.library, ...others, ...instead.library] });
}

test('what is chosen shows what a project of nothing else would, whatever the design, at the version that is meant', () => {
  const start = designOf({ requirements: [1, 2, 3].map((n) => requirement(n)), conditions: [condition(1, [1], { model: ranges }), condition(2, [1, 2])], cases: [testCase(1, ['0'], [byReading]), testCase(2, [], [{ id: K(2), expects: [stepId('s1')] }])] });
  let everShown = false;
  let everInstead = false;
  fc.assert(
    fc.property(fc.array(change, { maxLength: 9 }), fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }), fc.boolean(), (changes, taken, earlier) => {
      const design = changes.reduce(after, start);
      const index = new CoverageIndex(design);
      const ids = design.cases.flatMap((c, i) => (taken[i] === true ? [c.id] : []));
      const instead = earlier ? start.cases.filter((c) => ids.includes(c.id)).map((c) => ({ ...c, state: design.cases.find((d) => d.id === c.id)?.state ?? 'draft' })) : [];
      const choice = choose(ids, { cases: instead, library: [] });
      const { counts, weighted, byTechnique } = coverageReport(onlyChosen(design, choice));
      const chosen = chosenCoverage(index, choice);
      expect({ counts: chosen.counts, weighted: chosen.weighted, byTechnique: chosen.byTechnique }).toEqual({ counts, weighted, byTechnique });
      // Said of single ones: what each shows is never more than all show, and what it shows alone goes when it goes.
      for (const one of chosen.cases) {
        const without = chosenCoverage(index, choose(ids.filter((id) => id !== one.id), { ...choice.instead, cases: instead.filter((c) => c.id !== one.id) }));
        expect(one.shows).toBeLessThanOrEqual(chosen.counts.shown);
        // A link that is suspect may leave an item suspect that was shown: it is not counted as shown by somebody else.
        expect(chosen.counts.shown - without.counts.shown).toBeGreaterThanOrEqual(one.alone);
      }
      const sums = Object.values(chosen.byRisk);
      expect(sums.reduce((n, s) => n + s.shown, 0)).toBe(counts.shown);
      expect(sums.reduce((n, s) => n + s.items, 0)).toBe(Object.values(counts).reduce((n, c) => n + c, 0) - counts.leftOut);
      everShown ||= counts.shown > 2;
      everInstead ||= instead.length > 0 && counts.shown > 0;
    }),
    { numRuns: 300 },
  );
  expect([everShown, everInstead]).toEqual([true, true]);
});

test('after each change it says what an index made from scratch says: what was judged before does not linger', () => {
  const start = designOf({ requirements: [1, 2, 3].map((n) => requirement(n)), conditions: [condition(1, [1], { model: ranges }), condition(2, [1, 2])], cases: [testCase(1, ['0'], [byReading])] });
  const everything: readonly CoveringId[] = [C(1), C(2), C(3), 'F-1/1', 'F-1/2'];
  // More suites than are kept, some of them asked for again at once and some much later.
  const choices = Array.from({ length: 9 }, (_, i) => choose(i === 0 ? everything : everything.filter((__, at) => (at * 7 + i) % 9 < 5)));
  let everChanged = false;
  fc.assert(
    fc.property(fc.array(fc.record({ c: change, asked: fc.array(fc.nat(8), { minLength: 1, maxLength: 3 }) }), { minLength: 2, maxLength: 10 }), (changes) => {
      const index = new CoverageIndex(start);
      let design = start;
      let before = chosenCoverage(index, choices[0] as Choice);
      for (const { c, asked } of changes) {
        index.apply(c);
        design = after(design, c);
        const scratch = new CoverageIndex(design);
        for (const at of asked) expect(chosenCoverage(index, choices[at] as Choice)).toEqual(chosenCoverage(scratch, choices[at] as Choice));
        const now = chosenCoverage(index, choices[0] as Choice);
        everChanged ||= now.counts.shown !== before.counts.shown;
        before = now;
      }
      for (const choice of choices) expect(chosenCoverage(index, choice)).toEqual(chosenCoverage(new CoverageIndex(design), choice));
    }),
    { numRuns: 200 },
  );
  expect(everChanged).toBe(true);
});

test('what is proposed shows all that anything in the project shows, and each of it adds something', () => {
  const speaks = { expects: [stepId('s1')] };
  const start = designOf({ requirements: [requirement(1), requirement(2, { risk: 'high' })], conditions: [condition(1, [1], { model: ranges }), condition(2, [2]), condition(4, [2]), condition(5, [1])], cases: [testCase(7, [], [{ id: K(4), ...speaks }, { id: K(2), ...speaks }]), testCase(8, [], [{ id: K(5), ...speaks }, { id: K(2), ...speaks }]), testCase(9, ['0', '12a'], [byReading])] });
  let everMany = false;
  fc.assert(
    fc.property(fc.array(change, { minLength: 6, maxLength: 14 }), (changes) => {
      const design = changes.reduce(after, start);
      const index = new CoverageIndex(design);
      const begun = design.cases.slice(0, 1).map((c) => c.id);
      const { proposed, shownByNothing } = additions(index, choose(begun), {});
      const whole = coverageReport(index).counts;
      let before = chosenCoverage(index, choose(begun)).counts.shown;
      const to = [...begun];
      for (const { id, adds } of proposed) {
        to.push(id);
        const now = chosenCoverage(index, choose(to)).counts.shown;
        expect(now - before).toBe(adds);
        expect(adds).toBeGreaterThan(0);
        before = now;
      }
      expect(before).toBe(whole.shown);
      expect(shownByNothing).toBe(whole.gap + whole.linked + whole.suspect + whole.waiting);
      everMany ||= proposed.length > 2;
    }),
    { numRuns: 300 },
  );
  expect(everMany).toBe(true);
});

const steps = (n: number, k: number) => testCase(n, [], [{ id: K(k), expects: [stepId('s1')] }]);
const three = designOf({ requirements: [requirement(1, { risk: 'high' }), requirement(2, { risk: 'low' }), requirement(3)], conditions: [condition(1, [1]), condition(2, [2]), condition(3, [3])], cases: [steps(1, 1), steps(2, 2), steps(3, 2)] });

test('misses are told by risk: what something else shows, and what nothing does', () => {
  const { byRisk, requirements, cases, counts } = chosenCoverage(new CoverageIndex(three), choose([C(2), C(3), C(99)]));
  expect(byRisk).toEqual({ high: { items: 1, shown: 0, elsewhere: 1 }, medium: { items: 1, shown: 0, elsewhere: 0 }, low: { items: 1, shown: 1, elsewhere: 0 } });
  expect(requirements.map((r) => [r.id, r.counts.shown])).toEqual([[R(2), 1]]);
  expect(cases).toEqual([{ id: C(2), counts: { instances: 1, steps: 1 }, shows: 1, alone: 0 }, { id: C(3), counts: { instances: 1, steps: 1 }, shows: 1, alone: 0 }, { id: C(99), counts: null, shows: 0, alone: 0 }]);
  expect(counts).toMatchObject({ shown: 1, gap: 2 });
});

test('additions can be asked for a risk, a requirement or a condition', () => {
  const index = new CoverageIndex(three);
  const asked = (missed: Parameters<typeof additions>[2]) => additions(index, choose([]), missed);
  expect(asked({ risk: 'high' })).toEqual({ proposed: [{ id: C(1), adds: 1 }], shownByNothing: 0 });
  expect(asked({ requirement: R(3) })).toEqual({ proposed: [], shownByNothing: 1 });
  expect(asked({ condition: K(2) })).toEqual({ proposed: [{ id: C(2), adds: 1 }], shownByNothing: 0 });
  // The weightiest first, then by number.
  expect(asked({}).proposed.map((p) => p.id)).toEqual([C(1), C(2)]);
});

test('an earlier version may use what nothing else uses any more', () => {
  const index = new CoverageIndex(three);
  const earlier: DesignCase = { ...steps(1, 1), version: 1, content: { ...steps(1, 1).content, steps: [sharedUse(1, 7)] } };
  const library = [{ key: 'S-1@7', used: sharedSteps([plainStep(stepId('s1'), 'go', 'it speaks')]) }];
  const shown = (instead: Choice['instead']) => chosenCoverage(index, choose([C(1)], instead)).counts.shown;
  expect([shown({ cases: [earlier], library }), shown({ cases: [earlier], library: [] })]).toEqual([1, 0]);
});
