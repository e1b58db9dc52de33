import { withNeeds, type CoverProblem } from './cover.ts';

/** What is left of a problem to decide: parts that have nothing to do with each other. */
export interface Reduced {
  /** Chosen in every best choice, or in one of the best; by their places. */
  readonly forced: ReadonlySet<number>;
  /** Each with candidates and items that are left, by the places of the whole problem. */
  readonly parts: readonly CoverPart[];
}

/** A part of a problem, which is decided by itself. */
export interface CoverPart {
  readonly candidates: readonly number[];
  readonly items: readonly number[];
}

/** Pairs that are looked at for one being contained in the other; beyond, what is left is left to the search. */
const MOST_COMPARED = 4_000_000;

/**
 * Takes out of a problem what needs no search, without making the best choice any worse: what is kept, what alone shows an item, items that
 * are shown whenever another one is, and candidates that another one at most as dear does the work of (the classic reductions of set covering:
 * Beasley 1987). Whoever needs others, or is needed, is never put aside for another.
 */
export function reduce(problem: CoverProblem): Reduced {
  const state = new Reducing(problem);
  state.run();
  return { forced: state.forced, parts: state.parts() };
}

class Reducing {
  readonly #problem: CoverProblem;
  /** By candidate: the items it shows that are left. Only candidates that are left are in it. */
  readonly #items = new Map<number, Set<number>>();
  /** By item that is left: the candidates that show it. */
  readonly #shownBy = new Map<number, Set<number>>();
  /** Tied to others by needs. */
  readonly #tied = new Set<number>();
  forced: ReadonlySet<number> = new Set();
  #left = MOST_COMPARED;

  constructor(problem: CoverProblem) {
    this.#problem = problem;
    problem.candidates.forEach(({ items, needs }, place) => {
      this.#items.set(place, new Set(items));
      for (const item of items) {
        const showing = this.#shownBy.get(item);
        if (showing === undefined) this.#shownBy.set(item, new Set([place]));
        else showing.add(place);
      }
      if (needs.length > 0) for (const tied of [place, ...needs]) this.#tied.add(tied);
    });
  }

  run(): void {
    this.#force(this.#problem.candidates.flatMap((c, place) => (c.kept ? [place] : [])));
    for (;;) {
      const before = this.#items.size + this.#shownBy.size;
      this.#force([...this.#shownBy.values()].flatMap((showing) => (showing.size === 1 ? [...showing] : [])));
      this.#dropItems();
      this.#dropCandidates();
      if (this.#items.size + this.#shownBy.size === before) return;
    }
  }

  /** Chooses these and all they need: what they show is shown. */
  #force(places: readonly number[]): void {
    const forced = withNeeds(this.#problem, [...this.forced, ...places]);
    this.forced = forced;
    for (const place of forced) {
      for (const item of this.#problem.candidates[place]?.items ?? []) this.#dropItem(item);
      this.#items.delete(place);
    }
    for (const [place, items] of this.#items) if (items.size === 0 && !this.#tied.has(place)) this.#items.delete(place);
  }

  #dropItem(item: number): void {
    for (const place of this.#shownBy.get(item) ?? []) this.#items.get(place)?.delete(item);
    this.#shownBy.delete(item);
  }

  #dropCandidate(place: number): void {
    for (const item of this.#items.get(place) ?? []) this.#shownBy.get(item)?.delete(place);
    this.#items.delete(place);
  }

  /** An item is shown whenever another one is of which all showing candidates show it. */
  #dropItems(): void {
    const byFewest = [...this.#shownBy].sort((a, b) => a[1].size - b[1].size);
    for (const [item, showing] of byFewest) {
      if (this.#shownBy.get(item) !== showing) continue;
      const [first] = showing;
      for (const other of (first === undefined ? undefined : this.#items.get(first)) ?? []) {
        const wider = this.#shownBy.get(other);
        if (other === item || wider === undefined || wider.size < showing.size) continue;
        if ((this.#left -= 1) < 0) return;
        if (isWithin(showing, wider)) this.#dropItem(other);
      }
    }
  }

  /** A candidate is not needed when another one shows all of it and costs no more; of two alike the first stays. */
  #dropCandidates(): void {
    for (const [place, items] of [...this.#items]) {
      if (this.#tied.has(place) || !this.#items.has(place)) continue;
      const rarest = [...items].reduce<Set<number> | undefined>((best, item) => {
        const showing = this.#shownBy.get(item);
        return showing !== undefined && (best === undefined || showing.size < best.size) ? showing : best;
      }, undefined);
      for (const other of rarest ?? []) {
        const wider = this.#items.get(other);
        if (other === place || wider === undefined || wider.size < items.size) continue;
        if ((this.#left -= 1) < 0) return;
        if (this.#isAtMostAsDear(other, place, wider.size === items.size) && isWithin(items, wider)) {
          this.#dropCandidate(place);
          break;
        }
      }
    }
  }

  /** What another one needs costs besides, so that it does nobody's work. */
  #isAtMostAsDear(other: number, place: number, isAlike: boolean): boolean {
    const [a, b] = [this.#problem.candidates[other], this.#problem.candidates[place]];
    if (a === undefined || b === undefined || a.needs.length > 0) return false;
    return a.cost < b.cost || (a.cost === b.cost && (!isAlike || other < place));
  }

  /** What is left, as parts that share neither an item nor a need. */
  parts(): CoverPart[] {
    const parts: CoverPart[] = [];
    const seen = new Set<number>();
    const tiedTo = this.#ties();
    for (const start of this.#items.keys()) {
      if (seen.has(start)) continue;
      const candidates: number[] = [];
      const items = new Set<number>();
      const waiting = [start];
      seen.add(start);
      for (let place = waiting.pop(); place !== undefined; place = waiting.pop()) {
        candidates.push(place);
        const own = [...(this.#items.get(place) ?? [])];
        const beside = [...own.flatMap((item) => (items.has(item) ? [] : [...(this.#shownBy.get(item) ?? [])])), ...(tiedTo.get(place) ?? [])];
        for (const item of own) items.add(item);
        for (const next of beside) {
          if (seen.has(next) || !this.#items.has(next)) continue;
          seen.add(next);
          waiting.push(next);
        }
      }
      if (items.size > 0) parts.push({ candidates: candidates.sort((a, b) => a - b), items: [...items].sort((a, b) => a - b) });
    }
    return parts;
  }

  /** Who needs whom, both ways. */
  #ties(): ReadonlyMap<number, readonly number[]> {
    const ties = new Map<number, number[]>();
    const tie = (a: number, b: number): void => void ties.set(a, [...(ties.get(a) ?? []), b]);
    for (const place of this.#items.keys()) {
      for (const needed of this.#problem.candidates[place]?.needs ?? []) {
        tie(place, needed);
        tie(needed, place);
      }
    }
    return ties;
  }
}

function isWithin(part: ReadonlySet<number>, whole: ReadonlySet<number>): boolean {
  for (const member of part) if (!whole.has(member)) return false;
  return true;
}
