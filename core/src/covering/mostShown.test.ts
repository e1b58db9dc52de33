import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import loadHighs from 'highs';
import { bestOrder, costOf, highsMostSolver, isMost, mostShown, shownSoFar, withNeeds, type Most, type MostProblem, type MostSolver, type OrderProblem } from './index.ts';

let solver: MostSolver;
beforeAll(async () => {
  solver = highsMostSolver(await loadHighs());
});

const solved = (problem: MostProblem, with_ = solver): { readonly last: Most | null; readonly told: readonly Most[] } => {
  const told: Most[] = [];
  return { last: mostShown(problem, with_, 20, (most) => told.push(most)), told };
};
const weightOf = ({ weights, candidates }: Pick<OrderProblem, 'weights'> & { readonly candidates: readonly { readonly items: readonly number[] }[] }, chosen: readonly number[]): number => [...new Set(chosen.flatMap((place) => candidates[place]?.items ?? []))].reduce((sum, item) => sum + (weights[item] ?? 0), 0);
const isAllowed = (problem: MostProblem, chosen: readonly number[]): boolean => costOf(problem, chosen) <= problem.limit && withNeeds(problem, chosen).size === chosen.length && problem.candidates.every((c, place) => !c.kept || chosen.includes(place));

/** The slow judge: every choice there is; null where none is allowed. */
function mostOfAll(problem: MostProblem): number | null {
  let most: number | null = null;
  for (let bits = 0; bits < 2 ** problem.candidates.length; bits += 1) {
    const chosen = problem.candidates.flatMap((_, place) => ((bits >> place) % 2 === 1 ? [place] : []));
    if (isAllowed(problem, chosen)) most = Math.max(most ?? 0, weightOf(problem, chosen));
  }
  return most;
}

const candidate = fc.record({ cost: fc.integer({ min: 1, max: 6 }), items: fc.uniqueArray(fc.nat(8), { maxLength: 5 }), needs: fc.uniqueArray(fc.nat(7), { maxLength: 2 }), hasNeeds: fc.nat(3), kept: fc.nat(11), setUp: fc.constantFrom(null, 'dry', 'wet') });
const candidates = fc.array(candidate, { minLength: 1, maxLength: 8 }).map((list) => list.map(({ hasNeeds, kept, needs, ...c }, i) => ({ ...c, needs: hasNeeds === 0 ? needs.filter((n) => n < list.length && n !== i) : [], kept: kept === 0 })));
const weights = fc.array(fc.constantFrom(1, 3, 9), { minLength: 9, maxLength: 9 });
const problems: fc.Arbitrary<MostProblem> = fc.record({ items: fc.constant(9), candidates, weights, limit: fc.nat(20) });

describe('the most within a limit', () => {
  test('is shown by what is allowed, and by nothing else more; on the way every choice is allowed and every bound is one', () => {
    const ever = { none: false, needs: false, searched: false };
    fc.assert(
      fc.property(problems, (problem) => {
        const most = mostOfAll(problem);
        const { last, told } = solved(problem);
        ever.none ||= most === null;
        if (last === null || most === null) return void expect([last, most]).toEqual([null, null]);
        for (const one of [...told, last]) {
          expect(isAllowed(problem, one.chosen)).toBe(true);
          expect([one.cost, one.shown]).toEqual([costOf(problem, one.chosen), weightOf(problem, one.chosen)]);
          expect(one.bound).toBeGreaterThanOrEqual(most);
        }
        expect([last.shown, isMost(last)]).toEqual([most, true]);
        ever.needs ||= last.chosen.some((place) => (problem.candidates[place]?.needs.length ?? 0) > 0);
        ever.searched ||= told[0] !== undefined && !isMost(told[0]);
      }),
      { numRuns: 400 },
    );
    expect(ever).toEqual({ none: true, needs: true, searched: true });
  });

  test('a solver is not believed, and one that knows nothing takes nothing away', () => {
    fc.assert(
      fc.property(problems, (problem) => {
        const first = solved(problem, ({ known }) => ({ chosen: known, bound: Number.POSITIVE_INFINITY })).last;
        const lied = solved(problem, ({ costs }) => ({ chosen: costs.map((_, i) => i), bound: Number.POSITIVE_INFINITY })).last;
        for (const one of [first, lied]) if (one !== null) expect(isAllowed(problem, one.chosen)).toBe(true);
        if (first !== null) expect(first.bound).toBeGreaterThanOrEqual(mostOfAll(problem) ?? 0);
        expect(lied === null ? null : lied.shown >= (first?.shown ?? 0)).toBe(first === null ? null : true);
      }),
    );
  });

  test('an hour that is too short shows nothing; one that is long enough shows all, without a search', () => {
    const problem = { items: 2, weights: [9, 1], candidates: [{ cost: 70, items: [0], needs: [], kept: false }, { cost: 80, items: [1], needs: [0], kept: false }] };
    const never: MostSolver = () => { throw new Error('Nothing is left to be searched'); };
    expect(solved({ ...problem, limit: 60 }, never).last).toEqual({ chosen: [], cost: 0, shown: 0, bound: 0 });
    expect(solved({ ...problem, limit: 150 }, never).last).toEqual({ chosen: [0, 1], cost: 150, shown: 10, bound: 10 });
  });
});

describe('the best order', () => {
  const orders: fc.Arbitrary<OrderProblem> = fc.record({ candidates, weights, together: fc.boolean(), cut: fc.nat(8), fixed: fc.boolean() }).map(({ candidates: list, cut, fixed, ...rest }) => {
    const places = list.map((_, i) => i);
    return { ...rest, candidates: list, stages: [{ places: places.slice(0, cut), fixed }, { places: places.slice(cut), fixed: false }] };
  });
  const hasCircle = ({ candidates: list }: OrderProblem): boolean => list.some((c, place) => withNeeds({ candidates: list }, c.needs).has(place));

  test('has everybody once, in their stage, behind what they need in it; the curve ends with all that is shown', () => {
    let everNeeded = false;
    fc.assert(
      fc.property(orders, (problem) => {
        const order = bestOrder(problem);
        const [first, second] = problem.stages.map((s) => s.places);
        expect(order.slice(0, first?.length).toSorted((a, b) => a - b)).toEqual(first);
        expect(order.slice(first?.length).toSorted((a, b) => a - b)).toEqual(second);
        if (problem.stages[0]?.fixed === true) expect(order.slice(0, first?.length)).toEqual(first);
        else if (!hasCircle(problem)) {
          for (const stage of problem.stages) for (const place of stage.places) for (const needed of problem.candidates[place]?.needs ?? []) {
            if (!stage.places.includes(needed)) continue;
            expect(order.indexOf(needed)).toBeLessThan(order.indexOf(place));
            everNeeded = true;
          }
        }
        expect(shownSoFar(problem, order).at(-1)).toEqual({ cost: problem.candidates.reduce((sum, c) => sum + c.cost, 0), shown: weightOf(problem, order) });
      }),
      { numRuns: 500 },
    );
    expect(everNeeded).toBe(true);
  });

  test('next is always what adds most for its cost, judged anew from the beginning', () => {
    fc.assert(
      fc.property(candidates, weights, (list, w) => {
        const free = list.map((c) => ({ ...c, needs: [] }));
        const problem = { weights: w, candidates: free, stages: [{ places: free.map((_, i) => i), fixed: false }], together: false };
        const order = bestOrder(problem);
        const worth = (before: readonly number[], place: number): number => (weightOf(problem, [...before, place]) - weightOf(problem, before)) / (free[place]?.cost ?? 1);
        order.forEach((place, at) => {
          const before = order.slice(0, at);
          for (const later of order.slice(at + 1)) expect(worth(before, place)).toBeGreaterThanOrEqual(worth(before, later));
        });
      }),
      { numRuns: 300 },
    );
  });

  test('those of one set-up stay together, unless what they need stands elsewhere', () => {
    const one = (cost: number, items: number[], setUp: string | null, needs: number[] = []) => ({ cost, items, setUp, needs });
    const list = [one(1, [0], 'dry'), one(1, [1], 'wet'), one(9, [2], 'dry'), one(2, [3], null)];
    const ordered = (together: boolean, from = list) => bestOrder({ weights: [9, 9, 1, 9], candidates: from, stages: [{ places: [0, 1, 2, 3], fixed: false }], together });
    expect(ordered(false)).toEqual([0, 1, 3, 2]);
    expect(ordered(true)).toEqual([1, 3, 0, 2]);
    expect(ordered(true, [one(1, [0], 'dry', [3]), ...list.slice(1)])).toEqual([1, 3, 0, 2]);
  });

  test('a long chain is no deeper than one of two', () => {
    const chain = Array.from({ length: 2_000 }, (_, i) => ({ cost: 1, items: [i], setUp: null, needs: i === 1_999 ? [] : [i + 1] }));
    const order = bestOrder({ weights: chain.map((_, i) => (i === 0 ? 1_000_000 : 1)), candidates: chain, stages: [{ places: [0, 1_999, ...Array.from({ length: 1_998 }, (_, i) => i + 1)], fixed: false }], together: false });
    expect([order[0], order.at(-1), order.length]).toEqual([1_999, 0, 2_000]);
  });
});
