import { costOf, isProved, type Cover, type CoverProblem } from './cover.ts';
import { quickBound, quickCover } from './quick.ts';
import { reduce, type CoverPart } from './reduce.ts';

/** A part of a problem as a solver is asked for it: yes or no for each candidate, by places within the part. */
export interface SolverQuestion {
  readonly costs: readonly number[];
  /** Of each item, the candidates of which one at least is to be chosen. */
  readonly shownBy: readonly (readonly number[])[];
  /** The first is chosen only with the second. */
  readonly needs: readonly (readonly [number, number])[];
  /** Chosen by the best that is known. */
  readonly known: readonly number[];
  readonly seconds: number;
}

/** What a solver found: a choice, and what every choice costs at least. */
export interface SolverAnswer {
  readonly chosen: readonly number[];
  readonly bound: number;
}

/** Solves such questions, until it is sure or its time is over. `better` hears of what it finds on the way. */
export type CoverSolver = (question: SolverQuestion, better: (answer: SolverAnswer) => void) => SolverAnswer;

/**
 * The smallest choice that shows all items: what needs no search is decided first, then something good is found at once, and then each
 * part that is left is given to the solver. What is known so far is told again and again (`tell`); the last of it is answered. With enough
 * time it is proved; otherwise `bound` says how much smaller it could be at most. Costs are whole numbers, so that a bound may be rounded up.
 */
export function smallestCover(problem: CoverProblem, solver: CoverSolver, seconds: number, tell: (cover: Cover) => void, now: () => number): Cover {
  const { forced, parts } = reduce(problem);
  const known = parts.map((part) => ({ part, chosen: quickCover(problem, part), bound: quickBound(problem, part) }));
  const soFar = (): Cover => {
    const chosen = [...forced, ...known.flatMap((k) => k.chosen)].sort((a, b) => a - b);
    const sure = costOf(problem, forced);
    return { chosen, cost: costOf(problem, chosen), bound: sure + known.reduce((sum, k) => sum + Math.min(k.bound, costOf(problem, k.chosen)), 0) };
  };
  const take = (at: number, answer: SolverAnswer): void => {
    const entry = known[at];
    if (entry === undefined) return;
    const chosen = answer.chosen.flatMap((place) => entry.part.candidates[place] ?? []);
    const isBetter = isCover(problem, entry.part, chosen) && costOf(problem, chosen) < costOf(problem, entry.chosen);
    // The solver counts in fractions: what is a hair above a whole number is that number.
    known[at] = { ...entry, chosen: isBetter ? chosen : entry.chosen, bound: Math.max(entry.bound, Math.ceil(answer.bound - 1e-6)) };
    tell(soFar());
  };
  tell(soFar());
  const end = now() + seconds * 1000;
  // The small ones first: most are decided in no time, and what is left of it is for the others.
  const open = known.map((k, at) => ({ at, size: k.part.candidates.length })).sort((a, b) => a.size - b.size);
  for (const { at } of open) {
    const entry = known[at];
    const left = (end - now()) / 1000;
    if (entry === undefined || left <= 0 || isProved({ cost: costOf(problem, entry.chosen), bound: entry.bound })) continue;
    take(at, solver(questionOf(problem, entry.part, entry.chosen, left), (answer) => take(at, answer)));
  }
  return soFar();
}

function questionOf(problem: CoverProblem, { candidates, items }: CoverPart, known: readonly number[], seconds: number): SolverQuestion {
  const place = new Map(candidates.map((candidate, i) => [candidate, i]));
  const within = (of: readonly number[]): number[] => of.flatMap((candidate) => place.get(candidate) ?? []);
  const shownBy = new Map<number, number[]>(items.map((item) => [item, []]));
  candidates.forEach((candidate, i) => {
    for (const item of problem.candidates[candidate]?.items ?? []) shownBy.get(item)?.push(i);
  });
  return {
    costs: candidates.map((candidate) => problem.candidates[candidate]?.cost ?? 0),
    shownBy: [...shownBy.values()],
    // What is needed and not in the part is chosen already.
    needs: candidates.flatMap((candidate, i) => within(problem.candidates[candidate]?.needs ?? []).map((needed) => [i, needed] as const)),
    known: within(known),
    seconds,
  };
}

/** Whether a choice shows all of a part, with what each of it needs: a solver is not believed. */
function isCover(problem: CoverProblem, { candidates, items }: CoverPart, chosen: readonly number[]): boolean {
  const [within, there] = [new Set(candidates), new Set(chosen)];
  const shown = new Set(chosen.flatMap((place) => problem.candidates[place]?.items ?? []));
  return items.every((item) => shown.has(item)) && chosen.every((place) => (problem.candidates[place]?.needs ?? []).every((needed) => there.has(needed) || !within.has(needed)));
}
