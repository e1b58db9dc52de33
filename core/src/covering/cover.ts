/** Something that shows items and can be chosen. */
export interface CoverCandidate {
  /** A whole number, at least 1. */
  readonly cost: number;
  /** The items that it shows, by their places, each once. */
  readonly items: readonly number[];
  /** The candidates, by their places, without which it cannot be chosen. */
  readonly needs: readonly number[];
  /** Whether it is chosen in any case. */
  readonly kept: boolean;
}

/** Items to be shown by as little as possible. Each item is shown by a candidate; one that nothing shows is in no problem. */
export interface CoverProblem {
  readonly items: number;
  readonly candidates: readonly CoverCandidate[];
}

/** A choice that shows all items, and how good it is known to be. */
export interface Cover {
  /** Candidates by their places, in order. */
  readonly chosen: readonly number[];
  readonly cost: number;
  /** No choice costs less than that. */
  readonly bound: number;
}

/** Whether nothing cheaper shows the same: proved, not searched. */
export function isProved({ cost, bound }: Pick<Cover, 'cost' | 'bound'>): boolean {
  return bound >= cost;
}

/** What some candidates cost together. */
export function costOf({ candidates }: CoverProblem, chosen: Iterable<number>): number {
  let cost = 0;
  for (const place of chosen) cost += candidates[place]?.cost ?? 0;
  return cost;
}

/** With all that the chosen ones need, and what these need. */
export function withNeeds({ candidates }: { readonly candidates: readonly Pick<CoverCandidate, 'needs'>[] }, chosen: Iterable<number>): Set<number> {
  const all = new Set<number>();
  const waiting = [...chosen];
  for (let place = waiting.pop(); place !== undefined; place = waiting.pop()) {
    if (all.has(place)) continue;
    all.add(place);
    waiting.push(...(candidates[place]?.needs ?? []));
  }
  return all;
}
