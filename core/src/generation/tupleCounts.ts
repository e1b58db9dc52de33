import type { CoveringTask } from './coveringTask.ts';

/** Count of a tuple nobody wants: far from 0 and 1, so that it never counts as gained or lost. */
const UNWANTED = 0x8000;

/**
 * How many rows hold each tuple, and which wanted ones no row holds. The heart of the search, so plain arrays: the
 * tuples of set s begin at `offsets[s]` and are numbered by their values as digits.
 */
export class TupleCounts {
  readonly counts: Uint16Array;
  /** Tuples no row holds, in any order; the first `uncovered` of the list. */
  uncovered = 0;
  readonly #list: Int32Array;
  readonly #placeInList: Int32Array;
  readonly #offsets: number[] = [];
  /** By factor, for each set it is in: how many others, offset, own stride, then other factor and stride in turn. */
  readonly #around: Int32Array[];
  readonly #task: CoveringTask;

  constructor(task: CoveringTask) {
    this.#task = task;
    let size = 0;
    for (const set of task.sets) {
      this.#offsets.push(size);
      size += set.reduce((product, f) => product * (task.sizes[f] ?? 0), 1);
    }
    this.counts = new Uint16Array(size);
    this.#list = new Int32Array(size);
    this.#placeInList = new Int32Array(size).fill(-1);
    this.#around = aroundFactors(task, this.#offsets);
    task.sets.forEach((set, s) => this.#mark(set, s));
  }

  #mark(set: readonly number[], s: number): void {
    const offset = this.#offsets[s] ?? 0;
    const end = this.#offsets[s + 1] ?? this.counts.length;
    for (let tuple = offset; tuple < end; tuple += 1) {
      if (this.#task.wanted(s, this.#digits(set, tuple - offset))) this.#putOnList(tuple);
      else this.counts[tuple] = UNWANTED;
    }
  }

  #digits(set: readonly number[], code: number): number[] {
    const values = new Array<number>(set.length).fill(0);
    let rest = code;
    for (let i = set.length - 1; i >= 0; i -= 1) {
      const size = this.#task.sizes[set[i] ?? 0] ?? 1;
      values[i] = rest % size;
      rest = Math.floor(rest / size);
    }
    return values;
  }

  /** The factors and values of a tuple. */
  tuple(number: number): { readonly factors: readonly number[]; readonly values: readonly number[] } {
    let [low, high] = [0, this.#offsets.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.#offsets[middle] ?? 0) <= number) low = middle;
      else high = middle - 1;
    }
    const factors = this.#task.sets[low] ?? [];
    return { factors, values: this.#digits(factors, number - (this.#offsets[low] ?? 0)) };
  }

  uncoveredAt(place: number): number {
    return this.#list[place] ?? 0;
  }

  add(row: ArrayLike<number>): void {
    this.#eachTuple(row, (tuple) => {
      this.#more(tuple);
    });
  }

  remove(row: ArrayLike<number>): void {
    this.#eachTuple(row, (tuple) => {
      this.#less(tuple);
    });
  }

  /** How many wanted tuples only this row holds. */
  ownTuples(row: ArrayLike<number>): number {
    let own = 0;
    this.#eachTuple(row, (tuple) => {
      if (this.counts[tuple] === 1) own += 1;
    });
    return own;
  }

  #eachTuple(row: ArrayLike<number>, visit: (tuple: number) => void): void {
    this.#task.sets.forEach((set, s) => {
      let code = 0;
      for (const factor of set) {
        const value = row[factor] ?? -1;
        if (value < 0) return;
        code = code * (this.#task.sizes[factor] ?? 1) + value;
      }
      visit((this.#offsets[s] ?? 0) + code);
    });
  }

  /** Tuples gained less tuples lost when a row's value of a factor changes. Other values below 0 hold no tuple. */
  change(row: ArrayLike<number>, factor: number, value: number): number {
    const around = this.#around[factor];
    const old = row[factor] ?? -1;
    let gain = 0;
    if (around === undefined) return 0;
    for (let i = 0; i < around.length; ) {
      const others = around[i] ?? 0;
      let base = around[i + 1] ?? 0;
      const stride = around[i + 2] ?? 0;
      i += 3;
      for (const end = i + 2 * others; i < end; i += 2) {
        const other = row[around[i] ?? 0] ?? -1;
        base = other < 0 ? -1_000_000_000 : base + other * (around[i + 1] ?? 0);
      }
      if (base < 0) continue;
      if (this.counts[base + value * stride] === 0) gain += 1;
      if (old >= 0 && this.counts[base + old * stride] === 1) gain -= 1;
    }
    return gain;
  }

  /** Gives a row another value of a factor. */
  set(row: Int32Array, factor: number, value: number): void {
    const around = this.#around[factor];
    const old = row[factor] ?? -1;
    for (let i = 0; around !== undefined && i < around.length; ) {
      const others = around[i] ?? 0;
      let base = around[i + 1] ?? 0;
      const stride = around[i + 2] ?? 0;
      i += 3;
      for (const end = i + 2 * others; i < end; i += 2) {
        const other = row[around[i] ?? 0] ?? -1;
        base = other < 0 ? -1_000_000_000 : base + other * (around[i + 1] ?? 0);
      }
      if (base < 0) continue;
      if (old >= 0) this.#less(base + old * stride);
      if (value >= 0) this.#more(base + value * stride);
    }
    row[factor] = value;
  }

  #more(tuple: number): void {
    const count = this.counts[tuple] ?? 0;
    this.counts[tuple] = count + 1;
    if (count === 0) this.#takeOffList(tuple);
  }

  #less(tuple: number): void {
    const count = this.counts[tuple] ?? 0;
    this.counts[tuple] = count - 1;
    if (count === 1) this.#putOnList(tuple);
  }

  #putOnList(tuple: number): void {
    this.#list[this.uncovered] = tuple;
    this.#placeInList[tuple] = this.uncovered;
    this.uncovered += 1;
  }

  #takeOffList(tuple: number): void {
    this.uncovered -= 1;
    const place = this.#placeInList[tuple] ?? 0;
    const last = this.#list[this.uncovered] ?? 0;
    this.#list[place] = last;
    this.#placeInList[last] = place;
    this.#placeInList[tuple] = -1;
  }
}

function aroundFactors({ sizes, sets }: CoveringTask, offsets: readonly number[]): Int32Array[] {
  const around: number[][] = sizes.map(() => []);
  sets.forEach((set, s) => {
    const strides = set.map((_, i) => set.slice(i + 1).reduce((product, f) => product * (sizes[f] ?? 0), 1));
    set.forEach((factor, i) => {
      const others = set.flatMap((f, j) => (j === i ? [] : [f, strides[j] ?? 0]));
      around[factor]?.push(set.length - 1, offsets[s] ?? 0, strides[i] ?? 0, ...others);
    });
  });
  return around.map((a) => Int32Array.from(a));
}
