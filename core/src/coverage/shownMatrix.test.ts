import { beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import loadHighs from 'highs';
import type { CoveringId } from '../artefacts/index.ts';
import { stepId } from '../cases/index.ts';
import { highsSolver, isProved, smallestCover, type CoverSolver } from '../covering/index.ts';
import { smallerProblem, type ShowingMember } from '../suites/index.ts';
import { CoverageIndex, askedMatrix, chosenCoverage, listItems, shownMatrix, type AskedItems, type Choice } from './index.ts';
import { riskOf } from './judged.ts';
import { after, change, K, byReading, condition, designOf, ranges, requirement, testCase } from './testDesign/index.ts';

let solver: CoverSolver;
beforeAll(async () => {
  solver = highsSolver(await loadHighs());
});
const choose = (ids: readonly CoveringId[]): Choice => ({ ids, instead: { cases: [], library: [] } });

test('the smallest suite shows what the whole shows, and no smaller one does, whatever the design', () => {
  const speaks = { expects: [stepId('s1')] };
  const start = designOf({ requirements: [requirement(1), requirement(2)], conditions: [condition(1, [1], { model: ranges }), condition(2, [2]), condition(4, [2])], cases: [testCase(7, ['0', '-1'], [{ ...byReading }, { id: K(2), ...speaks }]), testCase(8, ['12a'], [byReading, { id: K(4), ...speaks }]), testCase(9, ['0', '12a'], [byReading])] });
  let everSmaller = false;
  fc.assert(
    fc.property(fc.array(change, { maxLength: 8 }), (changes) => {
      const design = changes.reduce(after, start);
      const index = new CoverageIndex(design);
      const ids = design.cases.filter((c) => c.state !== 'withdrawn').map((c) => c.id).slice(0, 8);
      const { weights, shown } = shownMatrix(index, choose(ids));
      const members = shown.map(({ id, counts, items: own }): ShowingMember => ({ of: id, instances: counts?.instances ?? 1, minutes: null, times: 1, kept: false, part: null, setUp: null, items: own }));
      const whole = chosenCoverage(index, choose(ids)).counts.shown;
      expect(weights).toHaveLength(whole);
      expect(weights.reduce((sum, weight) => sum + weight, 0)).toBe(chosenCoverage(index, choose(ids)).weighted.shown);
      const best = smallestCover(smallerProblem({ weights, members, needs: [] }, 'cases'), solver, 20, () => undefined, () => performance.now());
      const of = best.chosen.flatMap((place) => ids[place] ?? []);
      expect([isProved(best), chosenCoverage(index, choose(of)).counts.shown]).toEqual([true, whole]);
      for (let bits = 0; bits < 2 ** ids.length; bits += 1) {
        const some = ids.filter((_, i) => (bits >> i) % 2 === 1);
        if (some.length < best.chosen.length) expect(chosenCoverage(index, choose(some)).counts.shown).toBeLessThan(whole);
      }
      everSmaller ||= best.chosen.length > 1 && best.chosen.length < ids.length;
    }),
    { numRuns: 60 },
  );
  expect(everSmaller).toBe(true);
});

test('of what is asked for every shown item is in it once, with exactly those who show it, and what nothing shows is counted', () => {
  const speaks = { expects: [stepId('s1')] };
  const depths = { depths: ['core'] };
  const start = designOf({ requirements: [requirement(1, { risk: 'high' }), requirement(2)], conditions: [condition(1, [1], { model: ranges, ...depths }), condition(2, [2]), condition(4, [1, 2], depths)], cases: [testCase(7, ['0', '-1'], [{ ...byReading }, { id: K(2), ...speaks }]), testCase(8, ['12a'], [byReading, { id: K(4), ...speaks }]), testCase(9, [], [])] });
  const parts = { risk: fc.constantFrom('high', 'medium', 'low'), depth: fc.constantFrom('core', 'none'), requirements: fc.subarray(['R-1', 'R-2'] as const), condition: fc.constantFrom(K(1), K(2), K(4)) };
  const asked: fc.Arbitrary<AskedItems> = fc.oneof(fc.constant({}), ...Object.entries(parts).map(([name, part]) => fc.record({ [name]: part as fc.Arbitrary<unknown> })), fc.record({ depth: parts.depth, requirements: parts.requirements }));
  let everShown = 0;
  fc.assert(
    fc.property(fc.array(change, { maxLength: 8 }), asked, (changes, which) => {
      const index = new CoverageIndex(changes.reduce(after, start));
      const { weights, shown, shownByNothing } = askedMatrix(index, which);
      // The plain question, asked of each item.
      const all = listItems(index, {}, 10_000).items.filter(({ condition: id, requirements, standing }) => {
        const entry = index.entries.get(id)!;
        return standing !== 'leftOut' && (which.risk === undefined || riskOf(index, entry) === which.risk) && (which.depth === undefined || entry.condition.content.depths.includes(which.depth)) && (which.requirements === undefined || requirements.some((r) => which.requirements?.includes(r))) && (which.condition === undefined || id === which.condition);
      });
      // An item of several requirements is listed at the first of them alone.
      const items = [...new Map(all.map((i) => [`${i.condition} ${i.item.key}`, i])).values()];
      const told = items.filter((i) => i.standing === 'shown');
      expect([weights.length, shownByNothing]).toEqual([told.length, items.length - told.length]);
      const pairs = new Set(told.flatMap((i, n) => [...new Set(i.shownBy.map((s) => s.case))].map((of) => `${of} ${n}`)));
      expect(shown.reduce((sum, s) => sum + s.items.length, 0)).toBe(pairs.size);
      expect(shown.map((s) => s.id).toSorted()).toEqual([...new Set(told.flatMap((i) => i.shownBy.map((s) => s.case)))].toSorted());
      expect(shown.every((s) => s.items.length > 0)).toBe(true);
      everShown += told.length;
    }),
    { numRuns: 200 },
  );
  expect(everShown).toBeGreaterThan(100);
});
