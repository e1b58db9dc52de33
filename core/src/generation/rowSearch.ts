import { liesIn, type Forbidden } from '../conditions/index.ts';
import type { CoveringRow, CoveringTask } from './coveringTask.ts';
import { directRows } from './directRows.ts';
import { rowsInParameterOrder } from './inParameterOrder.ts';
import { seededRandom, type Random } from './random.ts';
import { TupleCounts } from './tupleCounts.ts';

/** Where a search stands. */
export interface SearchProgress {
  readonly rows: number;
  /** No smaller set of rows can exist. */
  readonly smallest: boolean;
  readonly steps: number;
}

/** For how many steps a changed cell stays as it is, at least; up to three more by chance. */
const TENURE = 2;
/** Of how many rows the one to drop is chosen: looking at all of many rows takes longer than the search. */
const MOST_DROP_CANDIDATES = 60;

/**
 * Makes few rows that show all wanted tuples and goes on improving: a direct construction where one fits, else
 * in-parameter-order, then a tabu search. It drops the row that shows least alone, takes an uncovered tuple by chance,
 * and makes the best change of one cell that shows it, until all is covered again; then drops the next.
 * Deterministic for a task: how far it gets depends on steps, never on a clock.
 */
export class RowSearch {
  readonly #task: CoveringTask;
  readonly #random: Random;
  readonly #touching: readonly (readonly Forbidden[])[];
  readonly #lowest: number;
  #best: CoveringRow[];
  #rows: Int32Array[] = [];
  #counts: TupleCounts;
  #tabu: Int32Array[] = [];
  #steps = 0;

  constructor(task: CoveringTask) {
    this.#task = task;
    this.#random = seededRandom(task.seed);
    this.#touching = task.sizes.map((_, f) => task.forbidden.filter((box) => box.parts.some((p) => p.factor === f)));
    this.#lowest = lowerBound(task);
    this.#best = smallerStart(task);
    this.#counts = new TupleCounts(task);
    this.#begin();
  }

  /** The best rows so far: complete, valid, and together holding every wanted tuple. */
  get best(): readonly CoveringRow[] {
    return this.#best;
  }

  get progress(): SearchProgress {
    return { rows: this.#best.length, smallest: this.#best.length <= this.#lowest, steps: this.#steps };
  }

  /** Goes on for some steps; stops early when no smaller set of rows can exist. */
  improve(steps: number): SearchProgress {
    const end = this.#steps + steps;
    while (this.#steps < end && this.#best.length > this.#lowest) {
      this.#steps += 1;
      if (this.#counts.uncovered === 0) this.#takeAsBest();
      else this.#cover(this.#counts.tuple(this.#counts.uncoveredAt(this.#random(this.#counts.uncovered))));
    }
    return this.progress;
  }

  #begin(): void {
    this.#rows = this.#best.map((row) => Int32Array.from(row));
    this.#tabu = this.#rows.map((row) => new Int32Array(row.length));
    this.#counts = new TupleCounts(this.#task);
    for (const row of this.#rows) this.#counts.add(row);
    this.#drop();
  }

  #takeAsBest(): void {
    this.#best = this.#rows.map((row) => [...row]);
    this.#drop();
  }

  #drop(): void {
    let [at, fewest] = [-1, Infinity];
    const step = Math.max(1, Math.floor(this.#rows.length / MOST_DROP_CANDIDATES));
    for (let r = step === 1 ? 0 : this.#random(step); r < this.#rows.length; r += step) {
      const own = this.#counts.ownTuples(this.#rows[r] ?? []);
      if (own < fewest) [at, fewest] = [r, own];
    }
    const row = this.#rows[at];
    if (row === undefined) return;
    this.#counts.remove(row);
    this.#rows.splice(at, 1);
    this.#tabu.splice(at, 1);
  }

  /** The best change of one cell after which some row holds the tuple; where there is none, a row is written anew. */
  #cover({ factors, values }: { readonly factors: readonly number[]; readonly values: readonly number[] }): void {
    let [best, ties, bestRow, bestAt] = [-Infinity, 0, -1, -1];
    for (let r = 0; r < this.#rows.length; r += 1) {
      const row = this.#rows[r];
      const at = row === undefined ? -1 : onlyMiss(row, factors, values);
      if (row === undefined || at < 0) continue;
      const factor = factors[at] ?? 0;
      if ((this.#tabu[r]?.[factor] ?? 0) > this.#steps || this.#breaks(row, factor, values[at] ?? 0)) continue;
      const gain = this.#counts.change(row, factor, values[at] ?? 0);
      if (gain < best) continue;
      ties = gain > best ? 1 : ties + 1;
      if (gain > best || this.#random(ties) === 0) [best, bestRow, bestAt] = [gain, r, at];
    }
    const row = this.#rows[bestRow];
    if (row === undefined) this.#rewrite(factors, values);
    else this.#change(row, bestRow, factors[bestAt] ?? 0, values[bestAt] ?? 0);
  }

  #change(row: Int32Array, r: number, factor: number, value: number): void {
    this.#counts.set(row, factor, value);
    const tabu = this.#tabu[r];
    if (tabu !== undefined) tabu[factor] = this.#steps + TENURE + this.#random(4);
  }

  #breaks(row: Int32Array, factor: number, value: number): boolean {
    const touching = this.#touching[factor] ?? [];
    if (touching.length === 0) return false;
    const old = row[factor] ?? 0;
    row[factor] = value;
    const broken = touching.some((box) => liesIn(box, row));
    row[factor] = old;
    return broken;
  }

  /** Writes the tuple into a row by chance, changing as little else as the constraints allow. */
  #rewrite(factors: readonly number[], values: readonly number[]): void {
    const r = this.#random(this.#rows.length);
    const row = this.#rows[r];
    if (row === undefined) return;
    let target: ArrayLike<number> | null = row.map((v, f) => (factors.includes(f) ? (values[factors.indexOf(f)] ?? v) : v));
    if (this.#task.feasibility !== null) target = this.#task.feasibility.complete(row.map((_, f) => (factors.includes(f) ? (values[factors.indexOf(f)] ?? -1) : -1)), row);
    if (target === null) return;
    this.#counts.remove(row);
    row.set(target);
    this.#counts.add(row);
    for (const f of factors) this.#tabu[r]?.fill(this.#steps + TENURE + this.#random(4), f, f + 1);
  }
}

/** The place of the one cell in which a row misses a tuple; -1 when it misses in none or in several. */
function onlyMiss(row: Int32Array, factors: readonly number[], values: readonly number[]): number {
  let miss = -1;
  for (let i = 0; i < factors.length; i += 1) {
    if (row[factors[i] ?? 0] === values[i]) continue;
    if (miss >= 0) return -1;
    miss = i;
  }
  return miss;
}

/** Of no set of factors can two wanted tuples share a row. */
function lowerBound({ sizes, sets, wanted }: CoveringTask): number {
  const counts = sets.map((set, s) => {
    let count = 0;
    const values = set.map(() => 0);
    for (let at = 0; at >= 0; ) {
      if (wanted(s, values)) count += 1;
      for (at = set.length - 1; at >= 0; at -= 1) {
        values[at] = ((values[at] ?? 0) + 1) % (sizes[set[at] ?? 0] ?? 1);
        if (values[at] !== 0) break;
      }
    }
    return count;
  });
  return Math.max(0, ...counts);
}

function smallerStart(task: CoveringTask): CoveringRow[] {
  const grown = rowsInParameterOrder(task).map((row) => [...row]);
  const strength = task.sets[0]?.length ?? 0;
  const uniform = strength > 0 && task.forbidden.length === 0 && task.sets.every((set) => set.length === strength) && task.sets.length === subsetsOf(task.sizes.length, strength);
  const direct = uniform ? directRows(task.sizes, strength) : null;
  return direct !== null && direct.length < grown.length ? direct : grown;
}

function subsetsOf(of: number, size: number): number {
  let count = 1;
  for (let i = 0; i < size; i += 1) count = (count * (of - i)) / (i + 1);
  return count;
}
