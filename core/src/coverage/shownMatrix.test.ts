import { beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import loadHighs from 'highs';
import type { CoveringId } from '../artefacts/index.ts';
import { stepId } from '../cases/index.ts';
import { highsSolver, isProved, smallestCover, type CoverSolver } from '../covering/index.ts';
import { smallerProblem, type ShowingMember } from '../suites/index.ts';
import { CoverageIndex, chosenCoverage, shownMatrix, type Choice } from './index.ts';
import { after, change } from './testChanges.ts';
import { K, byReading, condition, designOf, ranges, requirement, testCase } from './testDesign.ts';

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
      const members = shown.map(({ id, counts, items: own }): ShowingMember => ({ of: id, instances: counts?.instances ?? 1, minutes: null, kept: false, part: null, setUp: null, items: own }));
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
