/** A choice of sets that cover everything; `proven`: there is no smaller choice. */
export interface Covering {
  readonly chosen: readonly number[];
  readonly proven: boolean;
}

/** Steps after which the best choice so far is taken. */
const MOST_STEPS = 20_000;

/**
 * The fewest of the sets that hold every element 0 … `elements` − 1: branch and bound over the element that fewest
 * sets hold. The bound: elements no two of which share a set need a set each. What no set holds is passed over.
 */
export function fewestCovering(elements: number, sets: readonly (readonly number[])[]): Covering {
  const holders: number[][] = Array.from({ length: elements }, () => []);
  sets.forEach((set, s) => {
    for (const e of set) holders[e]?.push(s);
  });
  const wanted = holders.flatMap((h, e) => (h.length > 0 ? [e] : []));
  let best = greedy(wanted, sets);
  let steps = 0;
  const search = (left: readonly number[], chosen: readonly number[]): void => {
    steps += 1;
    if (steps > MOST_STEPS) return;
    const narrowest = left.reduce<number | null>((n, e) => (n === null || (holders[e]?.length ?? 0) < (holders[n]?.length ?? 0) ? e : n), null);
    if (narrowest === null) {
      if (chosen.length < best.length) best = [...chosen];
      return;
    }
    if (chosen.length + apart(left, holders, sets) >= best.length) return;
    const leftSet = new Set(left);
    const gain = (s: number): number => sets[s]?.reduce((n, e) => n + (leftSet.has(e) ? 1 : 0), 0) ?? 0;
    for (const s of (holders[narrowest] ?? []).toSorted((a, b) => gain(b) - gain(a))) {
      const held = new Set(sets[s]);
      search(left.filter((e) => !held.has(e)), [...chosen, s]);
    }
  };
  search(wanted, []);
  return { chosen: best, proven: steps <= MOST_STEPS };
}

function greedy(wanted: readonly number[], sets: readonly (readonly number[])[]): number[] {
  const left = new Set(wanted);
  const chosen: number[] = [];
  while (left.size > 0) {
    const gains = sets.map((set) => set.reduce((n, e) => n + (left.has(e) ? 1 : 0), 0));
    const best = gains.indexOf(Math.max(...gains));
    if ((gains[best] ?? 0) === 0) break;
    chosen.push(best);
    for (const e of sets[best] ?? []) left.delete(e);
  }
  return chosen;
}

/** How many elements can be found no two of which share a set. */
function apart(left: readonly number[], holders: readonly (readonly number[])[], sets: readonly (readonly number[])[]): number {
  const blocked = new Set<number>();
  let count = 0;
  for (const e of left) {
    if (blocked.has(e)) continue;
    count += 1;
    for (const s of holders[e] ?? []) for (const other of sets[s] ?? []) blocked.add(other);
  }
  return count;
}
