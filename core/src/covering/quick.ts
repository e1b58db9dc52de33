import { costOf, withNeeds, type CoverProblem } from './cover.ts';
import type { CoverPart } from './reduce.ts';

/**
 * A good choice of a part, at once: again and again the candidate that shows most of what is left for what it costs with all it needs
 * (Chvátal 1979), then without those that turned out not to be needed, the dearest first.
 */
export function quickCover(problem: CoverProblem, { candidates, items }: CoverPart): number[] {
  const missing = new Set(items);
  const within = new Set(candidates);
  const chosen = new Set<number>();
  const worth = (place: number): number => {
    const shown = (problem.candidates[place]?.items ?? []).reduce((n, item) => (missing.has(item) ? n + 1 : n), 0);
    return shown === 0 ? 0 : shown / priceOf(problem, place, chosen, within);
  };
  // What one is worth mostly only gets less: one that was worth less than another is asked again when it comes to be the best.
  const waiting = new Waiting(candidates.map((place) => ({ place, worth: worth(place) })));
  while (missing.size > 0) {
    const best = waiting.next(worth);
    if (best === null) break;
    for (const place of withNeeds(problem, [best])) {
      if (!within.has(place)) continue;
      chosen.add(place);
      for (const item of problem.candidates[place]?.items ?? []) missing.delete(item);
    }
  }
  return withoutIdle(problem, items, chosen);
}

/** What choosing one more costs, with what it needs and is not chosen yet. */
function priceOf(problem: CoverProblem, place: number, chosen: ReadonlySet<number>, within: ReadonlySet<number>): number {
  const { needs, cost } = problem.candidates[place] ?? { needs: [], cost: 1 };
  if (needs.length === 0) return cost;
  return costOf(problem, [...withNeeds(problem, [place])].filter((p) => within.has(p) && !chosen.has(p)));
}

interface Waited {
  readonly place: number;
  worth: number;
}

/** Candidates by what they were last worth, the best first: a heap. */
class Waiting {
  readonly #heap: Waited[];

  constructor(all: readonly Waited[]) {
    this.#heap = all.toSorted(better);
  }

  /** Takes the one that is worth most now; null: none is worth anything. */
  next(worth: (place: number) => number): number | null {
    for (;;) {
      const [best] = this.#heap;
      if (best === undefined || best.worth === 0) return null;
      const now = worth(best.place);
      if (now === best.worth) {
        this.#sink({ place: best.place, worth: 0 });
        return best.place;
      }
      this.#sink({ place: best.place, worth: now });
    }
  }

  /** Puts another one in the place of the first, and where it belongs. */
  #sink(waited: Waited): void {
    const heap = this.#heap;
    let at = 0;
    for (;;) {
      const [left, right] = [2 * at + 1, 2 * at + 2];
      let down = left;
      const [a, b] = [heap[left], heap[right]];
      if (a === undefined) break;
      if (b !== undefined && better(b, a) < 0) down = right;
      const below = heap[down];
      if (below === undefined || better(waited, below) <= 0) break;
      heap[at] = below;
      at = down;
    }
    heap[at] = waited;
  }
}

function better(a: Waited, b: Waited): number {
  return b.worth - a.worth || a.place - b.place;
}

/** Without those all of whose items others show too, and whom none of the others needs; the dearest go first. */
function withoutIdle(problem: CoverProblem, items: readonly number[], chosen: ReadonlySet<number>): number[] {
  const counted = new Map<number, number>(items.map((item) => [item, 0]));
  const left = new Set(chosen);
  for (const place of chosen) for (const item of problem.candidates[place]?.items ?? []) counted.set(item, (counted.get(item) ?? 0) + 1);
  const dearest = [...chosen].sort((a, b) => (problem.candidates[b]?.cost ?? 0) - (problem.candidates[a]?.cost ?? 0) || b - a);
  for (const place of dearest) {
    const own = problem.candidates[place]?.items ?? [];
    const isNeeded = [...left].some((other) => problem.candidates[other]?.needs.includes(place) === true);
    if (isNeeded || own.some((item) => counted.get(item) === 1)) continue;
    left.delete(place);
    for (const item of own) counted.set(item, (counted.get(item) ?? 0) - 1);
  }
  return [...left].sort((a, b) => a - b);
}

/**
 * What a part costs at least: each item is given a price, so that what a candidate shows never costs more than the candidate; the prices of all
 * items together are then a lower bound (weak duality). The rarest items first, each as much as its candidates have left.
 */
export function quickBound(problem: CoverProblem, { candidates, items }: CoverPart): number {
  const left = new Map(candidates.map((place) => [place, problem.candidates[place]?.cost ?? 0]));
  const shownBy = new Map<number, number[]>(items.map((item) => [item, []]));
  for (const place of candidates) for (const item of problem.candidates[place]?.items ?? []) shownBy.get(item)?.push(place);
  let bound = 0;
  for (const [, showing] of [...shownBy].sort((a, b) => a[1].length - b[1].length)) {
    const price = showing.reduce((least, place) => Math.min(least, left.get(place) ?? 0), Number.POSITIVE_INFINITY);
    if (price === 0 || showing.length === 0) continue;
    bound += price;
    for (const place of showing) left.set(place, (left.get(place) ?? 0) - price);
  }
  return bound;
}
