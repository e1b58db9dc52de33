import type { Forbidden } from './forbidden.ts';

/** Choices tried before a search is given up. */
const MOST_CHOICES = 20_000;

interface Occurrence {
  readonly forbidden: number;
  readonly part: number;
}

/**
 * Answers whether a partial row can be completed without lying in a forbidden product: the authority on feasibility.
 * Unit propagation with backtracking over the factors that constraints name; a domain is kept as the values left, and
 * for each part of a product how many of these lie outside it. Mutable inside; every answer leaves it as it was.
 */
export class Feasibility {
  readonly sizes: readonly number[];
  readonly forbidden: readonly Forbidden[];
  /** Whether any constraint names the factor. */
  readonly constrained: readonly boolean[];
  readonly #occurrences: Occurrence[][];
  readonly #left: Uint8Array[];
  readonly #count: number[];
  readonly #outside: number[][];
  readonly #full: number[];
  readonly #trail: number[] = [];
  readonly #possible: boolean;
  readonly #single: boolean[][];
  readonly #usable: readonly (readonly boolean[])[];
  #choices = 0;

  /** `usable[f][v]`: whether rows may take the value at all; values that are not usable can still be asked for by name. */
  constructor(usable: readonly (readonly boolean[])[], forbidden: readonly Forbidden[]) {
    this.sizes = usable.map((u) => u.length);
    this.forbidden = forbidden;
    this.#left = usable.map((u) => new Uint8Array(u.length).fill(1));
    this.#count = [...this.sizes];
    this.#occurrences = usable.map(() => []);
    forbidden.forEach(({ parts }, f) => {
      parts.forEach(({ factor }, p) => this.#occurrences[factor]?.push({ forbidden: f, part: p }));
    });
    this.constrained = this.#occurrences.map((o) => o.length > 0);
    this.#outside = forbidden.map(({ parts }) => parts.map(({ inside }) => inside.filter((is) => !is).length));
    this.#full = this.#outside.map((counts) => counts.filter((c) => c === 0).length);
    this.#usable = usable;
    const open = !forbidden.some(({ parts }, f) => this.#full[f] === parts.length) && this.sizes.every((size) => size > 0);
    // Products of a single open part take values out for good: nothing later would bring them up.
    this.#possible = open && forbidden.every(({ parts }, f) => this.#full[f] !== parts.length - 1 || this.#forceOutside(f, this.#outside[f]?.findIndex((c) => c > 0) ?? 0));
    this.#trail.length = 0;
    // Of a factor that no constraint names every value is possible as soon as anything is.
    const anything = this.#holds(this.sizes.map(() => -1));
    this.#single = this.sizes.map((size, f) => {
      const free = this.constrained[f] === false && usable[f]?.includes(true) === true;
      return Array.from({ length: size }, (_, v) => (free ? anything : this.#holds(this.#only(f, v))));
    });
  }

  #only(factor: number, value: number): number[] {
    return this.sizes.map((_, f) => (f === factor ? value : -1));
  }

  /** Whether a value can stand in any row. */
  possibleValue(factor: number, value: number): boolean {
    return this.#single[factor]?.[value] === true;
  }

  /** Whether some complete row holds the values of the factors. A search that is given up counts as yes. */
  possible(factors: readonly number[], values: ArrayLike<number>): boolean {
    let constrained = 0;
    for (let i = 0; i < factors.length; i += 1) {
      const factor = factors[i] ?? 0;
      if (!this.possibleValue(factor, values[i] ?? 0)) return false;
      if (this.constrained[factor] === true) constrained += 1;
    }
    if (constrained < 2) return true;
    const row = new Array<number>(this.sizes.length).fill(-1);
    factors.forEach((factor, i) => {
      row[factor] = values[i] ?? -1;
    });
    return this.#holds(row);
  }

  #holds(row: ArrayLike<number>): boolean {
    return this.complete(row) !== null || this.#choices > MOST_CHOICES;
  }

  /**
   * A complete row with the given values (-1: free), taking values of `preferred` where it can. Null when there is none,
   * or none was found in {@link MOST_CHOICES} choices.
   * Values of free factors that no constraint names are the preferred or the first usable ones.
   */
  complete(row: ArrayLike<number>, preferred: ArrayLike<number> | null = null): number[] | null {
    if (!this.#possible) return null;
    const mark = this.#trail.length;
    this.#choices = 0;
    const found = this.#narrow(row) && this.#search(preferred);
    const answer = found ? this.#left.map((left, f) => this.#firstLeft(left, f, preferred)) : null;
    this.#undo(mark);
    return answer;
  }

  #firstLeft(left: Uint8Array, factor: number, preferred: ArrayLike<number> | null): number {
    const wanted = preferred?.[factor] ?? -1;
    return wanted >= 0 && left[wanted] === 1 ? wanted : left.indexOf(1);
  }

  #narrow(row: ArrayLike<number>): boolean {
    for (let f = 0; f < this.sizes.length; f += 1) {
      const value = row[f] ?? -1;
      for (let v = 0; v < (this.sizes[f] ?? 0); v += 1) {
        if ((value >= 0 ? v !== value : this.#usable[f]?.[v] !== true) && !this.#remove(f, v)) return false;
      }
    }
    return true;
  }

  #search(preferred: ArrayLike<number> | null): boolean {
    const factor = this.#narrowest();
    if (factor < 0) return true;
    const values = [...(this.#left[factor] ?? [])].flatMap((left, v) => (left === 1 ? [v] : []));
    const wanted = preferred?.[factor] ?? -1;
    for (const value of values.includes(wanted) ? [wanted, ...values.filter((v) => v !== wanted)] : values) {
      this.#choices += 1;
      if (this.#choices > MOST_CHOICES) return false;
      const mark = this.#trail.length;
      if (values.every((v) => v === value || this.#left[factor]?.[v] === 0 || this.#remove(factor, v)) && this.#search(preferred)) return true;
      this.#undo(mark);
    }
    return false;
  }

  /** The constrained factor with fewest values left, two at least; -1 when all are decided. */
  #narrowest(): number {
    let best = -1;
    for (let f = 0; f < this.sizes.length; f += 1) {
      const count = this.#count[f] ?? 0;
      if (this.constrained[f] === true && count > 1 && (best < 0 || count < (this.#count[best] ?? 0))) best = f;
    }
    return best;
  }

  /** Takes a value out of a factor's domain and all that follows; false on a contradiction. */
  #remove(factor: number, value: number): boolean {
    const left = this.#left[factor];
    if (left === undefined || left[value] !== 1) return true;
    left[value] = 0;
    this.#count[factor] = (this.#count[factor] ?? 0) - 1;
    this.#trail.push(factor, value);
    const forced: Occurrence[] = [];
    let contradiction = this.#count[factor] === 0;
    for (const { forbidden, part } of this.#occurrences[factor] ?? []) {
      const parts = this.forbidden[forbidden]?.parts ?? [];
      if (parts[part]?.inside[value] === true) continue;
      const counts = this.#outside[forbidden] ?? [];
      counts[part] = (counts[part] ?? 0) - 1;
      if (counts[part] !== 0) continue;
      this.#full[forbidden] = (this.#full[forbidden] ?? 0) + 1;
      if (this.#full[forbidden] === parts.length) contradiction = true;
      else if (this.#full[forbidden] === parts.length - 1) forced.push({ forbidden, part: counts.findIndex((c) => c > 0) });
    }
    return !contradiction && forced.every(({ forbidden, part }) => this.#forceOutside(forbidden, part));
  }

  /** All parts but one are met for certain: the last one must not be. */
  #forceOutside(forbidden: number, part: number): boolean {
    const last = this.forbidden[forbidden]?.parts[part];
    return last === undefined || last.inside.every((is, v) => !is || this.#remove(last.factor, v));
  }

  #undo(mark: number): void {
    while (this.#trail.length > mark) {
      const value = this.#trail.pop() ?? 0;
      const factor = this.#trail.pop() ?? 0;
      const left = this.#left[factor];
      if (left !== undefined) left[value] = 1;
      this.#count[factor] = (this.#count[factor] ?? 0) + 1;
      for (const { forbidden, part } of this.#occurrences[factor] ?? []) {
        if (this.forbidden[forbidden]?.parts[part]?.inside[value] === true) continue;
        const counts = this.#outside[forbidden] ?? [];
        if (counts[part] === 0) this.#full[forbidden] = (this.#full[forbidden] ?? 0) - 1;
        counts[part] = (counts[part] ?? 0) + 1;
      }
    }
  }
}
