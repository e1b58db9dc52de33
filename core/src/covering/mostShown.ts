import { costOf, withNeeds, type CoverProblem } from './cover.ts';
import { bestOrder } from './order.ts';
import type { SolverAnswer } from './smallestCover.ts';

/** Items of which as much as possible is to be shown by what costs no more than a limit. */
export interface MostProblem extends CoverProblem {
  /** What each item counts: whole numbers. */
  readonly weights: readonly number[];
  /** A whole number. */
  readonly limit: number;
}

/** A choice within the limit, and how good it is known to be. */
export interface Most {
  /** Candidates by their places, in order. */
  readonly chosen: readonly number[];
  readonly cost: number;
  /** What the items weigh that it shows. */
  readonly shown: number;
  /** Nothing within the limit shows more than that. */
  readonly bound: number;
}

/** What is left for a solver: yes or no for each candidate, by places of their own. */
export interface MostQuestion {
  readonly costs: readonly number[];
  readonly limit: number;
  /** Of each group of items: those that show it, and what it weighs. */
  readonly shownBy: readonly (readonly number[])[];
  readonly weights: readonly number[];
  /** The first is chosen only with the second. */
  readonly needs: readonly (readonly [number, number])[];
  /** Chosen by the best that is known. */
  readonly known: readonly number[];
  readonly seconds: number;
}

/** Solves such questions; its bound is one from above. */
export type MostSolver = (question: MostQuestion, better: (answer: SolverAnswer) => void) => SolverAnswer;

/** Whether nothing within the limit shows more: proved, not searched. */
export function isMost({ shown, bound }: Pick<Most, 'shown' | 'bound'>): boolean {
  return shown >= bound;
}

/**
 * What shows most within the limit (budgeted maximum coverage): something good at once by what each shows for its cost, with a bound, and
 * then what a solver finds. What is known so far is told again and again. What is kept is in it with what it needs; null: that alone costs more.
 */
export function mostShown(problem: MostProblem, solver: MostSolver, seconds: number, tell: (most: Most) => void): Most | null {
  const kept = withNeeds(problem, problem.candidates.flatMap((c, place) => (c.kept ? [place] : [])));
  if (costOf(problem, kept) > problem.limit) return null;
  const open = openCandidates(problem, kept);
  let best = mostOf(problem, quickMost(problem, kept, open), quickMostBound(problem, kept, open));
  const take = ({ chosen, bound }: SolverAnswer): void => {
    const all = new Set([...kept, ...chosen.flatMap((place) => open[place] ?? [])]);
    // The solver counts in fractions: a hair below a whole number is that number. And it is not believed.
    const least = Math.min(best.bound, Math.floor(bound + 1e-6));
    const found = mostOf(problem, all, least);
    const isBetter = isChoice(problem, all) && found.shown > best.shown;
    best = isBetter ? { ...found, bound: Math.max(found.shown, least) } : { ...best, bound: Math.max(best.shown, least) };
    tell(best);
  };
  tell(best);
  if (!isMost(best)) take(solver(questionOf(problem, kept, open, best.chosen, seconds), take));
  return best;
}

/** Those that fit beside what is kept, with all that they need. */
function openCandidates(problem: MostProblem, kept: ReadonlySet<number>): number[] {
  const left = problem.limit - costOf(problem, kept);
  return problem.candidates.flatMap((_, place) => (!kept.has(place) && priceOf(problem, place, kept) <= left ? [place] : []));
}

function priceOf(problem: CoverProblem, place: number, chosen: ReadonlySet<number>): number {
  return costOf(problem, [...withNeeds(problem, [place])].filter((p) => !chosen.has(p)));
}

function isChoice(problem: MostProblem, chosen: ReadonlySet<number>): boolean {
  return costOf(problem, chosen) <= problem.limit && withNeeds(problem, chosen).size === chosen.size;
}

function mostOf(problem: MostProblem, chosen: ReadonlySet<number>, bound: number): Most {
  return { chosen: [...chosen].sort((a, b) => a - b), cost: costOf(problem, chosen), shown: weightOf(problem, shownBy(problem, chosen)), bound };
}

function shownBy({ candidates }: CoverProblem, chosen: Iterable<number>): Set<number> {
  const shown = new Set<number>();
  for (const place of chosen) for (const item of candidates[place]?.items ?? []) shown.add(item);
  return shown;
}

function weightOf({ weights }: MostProblem, items: Iterable<number>): number {
  let weight = 0;
  for (const item of items) weight += weights[item] ?? 0;
  return weight;
}

/** In the best order as far as it fits; or the one that shows most at all, if that is more (as Khuller, Moss and Naor 1999). */
function quickMost(problem: MostProblem, kept: ReadonlySet<number>, open: readonly number[]): Set<number> {
  const candidates = problem.candidates.map((c) => ({ ...c, setUp: null }));
  const order = bestOrder({ weights: problem.weights, candidates, stages: [{ places: [...kept], fixed: true }, { places: open, fixed: false }], together: false });
  const chosen = new Set(kept);
  const shown = shownBy(problem, kept);
  let left = problem.limit - costOf(problem, kept);
  for (const place of order) {
    const more = [...withNeeds(problem, [place])].filter((p) => !chosen.has(p));
    const price = costOf(problem, more);
    const items = [...shownBy(problem, more)].filter((item) => !shown.has(item));
    if (items.length === 0 || price > left) continue;
    left -= price;
    for (const p of more) chosen.add(p);
    for (const item of items) shown.add(item);
  }
  const weightWith = (place: number): number => weightOf(problem, shownBy(problem, withNeeds(problem, [...kept, place])));
  const alone = open.reduce<{ readonly place: number; readonly weight: number } | null>((best, place) => {
    const weight = weightWith(place);
    return best === null || weight > best.weight ? { place, weight } : best;
  }, null);
  return alone !== null && alone.weight > weightOf(problem, shown) ? withNeeds(problem, [...kept, alone.place]) : chosen;
}

/** As if nobody showed what others show and the last one could be taken in part: that is never less than the best. */
function quickMostBound(problem: MostProblem, kept: ReadonlySet<number>, open: readonly number[]): number {
  const sure = shownBy(problem, kept);
  const already = weightOf(problem, sure);
  const all = weightOf(problem, shownBy(problem, [...kept, ...open]));
  const worth = open.map((place) => ({ weight: weightOf(problem, (problem.candidates[place]?.items ?? []).filter((item) => !sure.has(item))), cost: problem.candidates[place]?.cost ?? 1 }));
  let left = problem.limit - costOf(problem, kept);
  let bound = already;
  for (const { weight, cost } of worth.sort((a, b) => b.weight * a.cost - a.weight * b.cost)) {
    if (left <= 0) break;
    bound += (weight * Math.min(cost, left)) / cost;
    left -= cost;
  }
  return Math.min(all, Math.floor(bound + 1e-6));
}

function questionOf(problem: MostProblem, kept: ReadonlySet<number>, open: readonly number[], known: readonly number[], seconds: number): MostQuestion {
  const place = new Map(open.map((candidate, i) => [candidate, i]));
  const within = (of: readonly number[]): number[] => of.flatMap((candidate) => place.get(candidate) ?? []);
  const sure = shownBy(problem, kept);
  const showing = new Map<number, number[]>();
  open.forEach((candidate, i) => {
    for (const item of problem.candidates[candidate]?.items ?? []) {
      if (sure.has(item)) continue;
      const list = showing.get(item);
      if (list === undefined) showing.set(item, [i]);
      else list.push(i);
    }
  });
  // Items that the same ones show are one.
  const groups = new Map<string, { readonly shownBy: readonly number[]; weight: number }>();
  for (const [item, by] of showing) {
    const group = groups.get(by.join(' '));
    const weight = problem.weights[item] ?? 0;
    if (group === undefined) groups.set(by.join(' '), { shownBy: by, weight });
    else group.weight += weight;
  }
  return {
    costs: open.map((candidate) => problem.candidates[candidate]?.cost ?? 0),
    limit: problem.limit - costOf(problem, kept),
    shownBy: [...groups.values()].map((g) => g.shownBy),
    weights: [...groups.values()].map((g) => g.weight),
    needs: open.flatMap((candidate, i) => within(problem.candidates[candidate]?.needs ?? []).map((needed) => [i, needed] as const)),
    known: within(known),
    seconds,
  };
}
