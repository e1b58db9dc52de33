import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import loadHighs from 'highs';
import { costOf, highsSolver, isProved, reduce, smallestCover, withNeeds, type Cover, type CoverProblem, type CoverSolver } from './index.ts';

let solver: CoverSolver;
beforeAll(async () => {
  solver = highsSolver(await loadHighs());
});

const now = (): number => performance.now();
const solved = (problem: CoverProblem, seconds = 20, with_ = solver): { readonly last: Cover; readonly told: readonly Cover[] } => {
  const told: Cover[] = [];
  return { last: smallestCover(problem, with_, seconds, (cover) => told.push(cover), now), told };
};
/** Finds nothing and knows nothing: what is then told was found without it. */
const idle: CoverSolver = ({ known }) => ({ chosen: known, bound: 0 });

const shows = (problem: CoverProblem, chosen: readonly number[]): boolean => {
  const shown = new Set(chosen.flatMap((place) => problem.candidates[place]?.items ?? []));
  const there = new Set(chosen);
  const needs = chosen.every((place) => (problem.candidates[place]?.needs ?? []).every((needed) => there.has(needed)));
  return shown.size === problem.items && needs && problem.candidates.every((c, place) => !c.kept || there.has(place));
};

/** The slow judge: every choice there is. */
function leastCost(problem: CoverProblem): number {
  let least = Number.POSITIVE_INFINITY;
  for (let bits = 0; bits < 2 ** problem.candidates.length; bits += 1) {
    const chosen = problem.candidates.flatMap((_, place) => ((bits >> place) % 2 === 1 ? [place] : []));
    if (shows(problem, chosen)) least = Math.min(least, costOf(problem, chosen));
  }
  return least;
}

/** Small problems in which each item is shown by something, with costs, needs (also in circles) and candidates that are kept. */
const problems: fc.Arbitrary<CoverProblem> = fc
  .record({
    items: fc.integer({ min: 1, max: 9 }),
    candidates: fc.array(fc.record({ cost: fc.integer({ min: 1, max: 6 }), items: fc.uniqueArray(fc.nat(8), { maxLength: 5 }), needs: fc.uniqueArray(fc.nat(8), { maxLength: 2 }), hasNeeds: fc.integer({ min: 0, max: 3 }), kept: fc.integer({ min: 0, max: 9 }) }), { minLength: 1, maxLength: 9 }),
  })
  .map(({ items, candidates }) => {
    const made = candidates.map((c, i) => ({ cost: c.cost, items: c.items.filter((item) => item < items), needs: c.hasNeeds === 0 ? c.needs.filter((n) => n < candidates.length && n !== i) : [], kept: c.kept === 0 }));
    const shown = [...new Set(made.flatMap((c) => c.items))];
    const place = new Map(shown.map((item, i) => [item, i]));
    return { items: shown.length, candidates: made.map((c) => ({ ...c, items: c.items.map((item) => place.get(item) ?? 0) })) };
  });

describe('the smallest choice', () => {
  test('shows all, and no other that does costs less; on the way every choice shows all, and every bound is one', () => {
    let [everNeeds, everSearched] = [false, false];
    fc.assert(
      fc.property(problems, (problem) => {
        const least = leastCost(problem);
        const { last, told } = solved(problem);
        for (const cover of [...told, last]) {
          expect(shows(problem, cover.chosen)).toBe(true);
          expect(cover.cost).toBe(costOf(problem, cover.chosen));
          expect(cover.bound).toBeLessThanOrEqual(least);
        }
        expect([last.cost, isProved(last)]).toEqual([least, true]);
        everNeeds ||= problem.candidates.some((c) => c.needs.length > 0) && last.chosen.length > 1;
        everSearched ||= reduce(problem).parts.length > 0;
      }),
      { numRuns: 400 },
    );
    expect([everNeeds, everSearched]).toEqual([true, true]);
  });

  test('what is taken out without a search never makes the best choice worse', () => {
    fc.assert(
      fc.property(problems, (problem) => {
        const { forced, parts } = reduce(problem);
        const left = new Set(parts.flatMap((part) => part.candidates));
        const rest: CoverProblem = { ...problem, candidates: problem.candidates.map((c, place) => ({ ...c, kept: c.kept || forced.has(place), items: forced.has(place) || left.has(place) ? c.items : [] })) };
        expect(leastCost(rest)).toBe(leastCost(problem));
        expect(withNeeds(problem, forced)).toEqual(new Set(forced));
      }),
      { numRuns: 400 },
    );
  });

  test('without a solver something good is there, with a bound that is one', () => {
    fc.assert(
      fc.property(problems, (problem) => {
        const { last } = solved(problem, 1, idle);
        const least = leastCost(problem);
        expect(shows(problem, last.chosen)).toBe(true);
        expect([last.bound <= least, least <= last.cost]).toEqual([true, true]);
      }),
    );
  });

  test('a solver is not believed: a choice that does not show all is not taken', () => {
    const triangle: CoverProblem = { items: 3, candidates: [[0, 1], [1, 2], [0, 2]].map((items) => ({ cost: 1, items, needs: [], kept: false })) };
    const liar: CoverSolver = () => ({ chosen: [0], bound: 1.5000001 });
    expect(solved(triangle, 1, liar).last).toMatchObject({ cost: 2, bound: 2 });
    const silent: CoverSolver = () => ({ chosen: [], bound: 0 });
    expect(solved(triangle, 1, silent).last.cost).toBe(2);
  });

  test('nothing to show costs nothing; what is kept is in it all the same, with what it needs', () => {
    expect(solved({ items: 0, candidates: [] }).last).toEqual({ chosen: [], cost: 0, bound: 0 });
    const kept = { cost: 3, items: [], needs: [1], kept: true };
    expect(solved({ items: 0, candidates: [kept, { cost: 2, items: [], needs: [], kept: false }] }).last).toEqual({ chosen: [0, 1], cost: 5, bound: 5 });
  });

  test('parts that have nothing to do with each other are decided one by one', () => {
    const triangles = Array.from({ length: 40 }, (_, t) => [[0, 1], [1, 2], [0, 2]].map((items) => ({ cost: 1, items: items.map((i) => i + 3 * t), needs: [], kept: false }))).flat();
    const { last, told } = solved({ items: 120, candidates: triangles });
    expect(last).toMatchObject({ cost: 80, bound: 80 });
    expect(told.length).toBeGreaterThan(20);
    expect(reduce({ items: 120, candidates: triangles }).parts).toHaveLength(40);
  });
});

/** The same everywhere: a number below `n` each time. */
function numbers(seed: number): (n: number) => number {
  let last = seed;
  return (n) => (last = (last * 48_271) % 2_147_483_647) % n;
}

/** Cases as a design has them: each covers one or two of `conditions`, of 20 items each. */
function designLike(conditions: number, cases: number, costs: number): CoverProblem {
  const next = numbers(11);
  const candidates = Array.from({ length: cases }, () => {
    const home = next(conditions);
    const items = new Set<number>();
    for (let k = 0; k <= next(2); k += 1) {
      const at = (home + next(6)) % conditions;
      for (let i = 0; i < 1 + next(12); i += 1) items.add(at * 20 + next(20));
    }
    return { cost: 1 + next(costs), items: [...items], needs: [], kept: false };
  });
  const place = new Map([...new Set(candidates.flatMap((c) => c.items))].map((item, i) => [item, i]));
  return { items: place.size, candidates: candidates.map((c) => ({ ...c, items: c.items.map((item) => place.get(item) ?? 0) })) };
}

test('4 000 cases of a design are proved; the first answer is within 2 % of the last bound', () => {
  const { last, told } = solved(designLike(500, 4_000, 30), 60);
  expect(isProved(last)).toBe(true);
  expect((told[0]?.cost ?? 0) / last.bound).toBeLessThan(1.02);
});

test('where time is too short for a proof, what was found shows all, and the bound says so', () => {
  const next = numbers(7);
  const items = 200;
  const dense: CoverProblem = { items, candidates: Array.from({ length: 800 }, (_, i) => ({ cost: 1, items: [...new Set([i % items, ...Array.from({ length: next(8) }, () => next(items))])], needs: [], kept: false })) };
  const { last } = solved(dense, 1);
  expect(shows(dense, last.chosen)).toBe(true);
  expect([last.bound > 0, last.bound <= last.cost]).toEqual([true, true]);
});
