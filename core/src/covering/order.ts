import { withNeeds } from './cover.ts';

/** Something that shows items and has its place in an order. */
export interface OrderCandidate {
  /** A whole number, at least 1. */
  readonly cost: number;
  /** The items that it shows, by their places, each once. */
  readonly items: readonly number[];
  /** The candidates, by their places, that are to come before it. */
  readonly needs: readonly number[];
  /** What has to be there for it; those with the same stay together if that is wanted. Null: nothing is said. */
  readonly setUp: string | null;
}

/** A stretch of the order: who is in it stays in it. */
export interface OrderStage {
  readonly places: readonly number[];
  /** Whether they stay in the order they are in. */
  readonly fixed: boolean;
}

/** What is to be shown as soon as possible. */
export interface OrderProblem {
  /** What each item counts: whole numbers. */
  readonly weights: readonly number[];
  readonly candidates: readonly OrderCandidate[];
  /** Each candidate is in one of them. */
  readonly stages: readonly OrderStage[];
  /** Whether those that have the same set-up stay together. */
  readonly together: boolean;
}

/**
 * An order in which what weighs most is shown soonest: always next what adds most for what it costs, with what has to come before it (greedy;
 * where nothing needs another, the area over the curve is never more than four times the least: Feige, Lovász and Tetali 2004, with costs Munagala et al. 2005). What adds
 * nothing comes last, in the order it is in. Dependencies hold within a stage; in a circle of them somebody has to begin, the first one does.
 */
export function bestOrder(problem: OrderProblem): number[] {
  const shown = new Set<number>();
  return problem.stages.flatMap(({ places, fixed }) => {
    const order = fixed ? places : orderOf(problem, places, shown);
    for (const place of order) for (const item of problem.candidates[place]?.items ?? []) shown.add(item);
    return order;
  });
}

/** Ordered by what they add to what is shown already. */
function orderOf(problem: OrderProblem, places: readonly number[], before: ReadonlySet<number>): number[] {
  const stage = new Stage(problem, new Set(places), before);
  const units = unitsOf(problem, places);
  const order: number[] = [];
  inBestOrder(units, (unit) => stage.gainOf(unit), (unit) => {
    inBestOrder(unit, (place) => stage.gainOf([place]), (place) => void order.push(...stage.place(place)));
  });
  return order;
}

/** Takes one after the other, always the one that adds most for its cost, the first of several; those that add nothing any more as they come. */
function inBestOrder<T>(list: readonly T[], gainOf: (one: T) => Gain, take: (one: T) => void): void {
  const left = [...list];
  while (left.length > 0) {
    let at = 0;
    let most: Gain = { weight: 0, cost: 1 };
    left.forEach((one, i) => {
      const gain = gainOf(one);
      if (gain.weight * most.cost > most.weight * gain.cost) [at, most] = [i, gain];
    });
    if (most.weight === 0) return left.forEach(take);
    const [one] = left.splice(at, 1);
    if (one !== undefined) take(one);
  }
}

function unitsOf({ candidates, together }: OrderProblem, places: readonly number[]): number[][] {
  const units = new Map<string, number[]>();
  for (const place of places) {
    const setUp = candidates[place]?.setUp ?? null;
    const key = together && setUp !== null ? `of ${setUp}` : `${place}`;
    const unit = units.get(key);
    if (unit === undefined) units.set(key, [place]);
    else unit.push(place);
  }
  return [...units.values()];
}

interface Gain {
  readonly weight: number;
  readonly cost: number;
}

/** What the candidates of a stage still add, kept while they are placed one after the other. */
class Stage {
  readonly #problem: OrderProblem;
  readonly #within: ReadonlySet<number>;
  readonly #shown: Set<number>;
  readonly #placed = new Set<number>();
  readonly #adds = new Map<number, number>();
  readonly #shownBy = new Map<number, number[]>();

  constructor(problem: OrderProblem, within: ReadonlySet<number>, before: ReadonlySet<number>) {
    this.#problem = problem;
    this.#within = within;
    this.#shown = new Set(before);
    for (const place of within) {
      let adds = 0;
      for (const item of problem.candidates[place]?.items ?? []) {
        if (this.#shown.has(item)) continue;
        adds += problem.weights[item] ?? 0;
        const showing = this.#shownBy.get(item);
        if (showing === undefined) this.#shownBy.set(item, [place]);
        else showing.push(place);
      }
      this.#adds.set(place, adds);
    }
  }

  /** What some of them add, with what has to come before them, and what that costs. */
  gainOf(places: readonly number[]): Gain {
    const [only] = places;
    const candidate = only === undefined ? undefined : this.#problem.candidates[only];
    if (places.length === 1 && only !== undefined && candidate !== undefined && !candidate.needs.some((needed) => this.#isMissing(needed))) return { weight: this.#placed.has(only) ? 0 : (this.#adds.get(only) ?? 0), cost: candidate.cost };
    const items = new Set<number>();
    let cost = 0;
    for (const place of this.#missing(withNeeds({ candidates: this.#problem.candidates }, places))) {
      cost += this.#problem.candidates[place]?.cost ?? 0;
      for (const item of this.#problem.candidates[place]?.items ?? []) if (!this.#shown.has(item)) items.add(item);
    }
    let weight = 0;
    for (const item of items) weight += this.#problem.weights[item] ?? 0;
    return { weight, cost: Math.max(1, cost) };
  }

  /** Places one, behind what it needs; answers all that took their place. */
  place(one: number): number[] {
    const order: number[] = [];
    const begun: { readonly place: number; next: number }[] = [];
    const begin = (place: number): void => {
      if (!this.#within.has(place) || this.#placed.has(place)) return;
      this.#placed.add(place);
      begun.push({ place, next: 0 });
    };
    begin(one);
    for (let last = begun.at(-1); last !== undefined; last = begun.at(-1)) {
      const needed = this.#problem.candidates[last.place]?.needs[last.next];
      last.next += 1;
      if (needed !== undefined) begin(needed);
      else order.push(...begun.splice(-1).map((b) => b.place));
    }
    for (const place of order) for (const item of this.#problem.candidates[place]?.items ?? []) this.#show(item);
    return order;
  }

  #missing(places: Iterable<number>): number[] {
    return [...places].filter((place) => this.#isMissing(place));
  }

  #isMissing(place: number): boolean {
    return this.#within.has(place) && !this.#placed.has(place);
  }

  #show(item: number): void {
    if (this.#shown.has(item)) return;
    this.#shown.add(item);
    for (const place of this.#shownBy.get(item) ?? []) this.#adds.set(place, (this.#adds.get(place) ?? 0) - (this.#problem.weights[item] ?? 0));
  }
}

/** A point of the curve: what is shown when so much was spent. */
export interface ShownSoFar {
  readonly cost: number;
  readonly shown: number;
}

/** What is shown after each of an order; before the first, nothing for nothing. */
export function shownSoFar({ weights, candidates }: Pick<OrderProblem, 'weights' | 'candidates'>, order: readonly number[]): ShownSoFar[] {
  const seen = new Set<number>();
  let [cost, shown] = [0, 0];
  return [
    { cost, shown },
    ...order.map((place) => {
      for (const item of candidates[place]?.items ?? []) {
        if (seen.has(item)) continue;
        seen.add(item);
        shown += weights[item] ?? 0;
      }
      cost += candidates[place]?.cost ?? 0;
      return { cost, shown };
    }),
  ];
}
