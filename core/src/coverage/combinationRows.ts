import { Feasibility, combinationItems, combinationJudge, tuplesShown, type CombinationJudge, type CombinationModel, type Forbidden, type ItemKey, type Tuple } from '../conditions/index.ts';
import { RowSearch, type CoveringTask, type SearchProgress } from '../generation/index.ts';
import type { Filling, ProposedRow, RowsMade } from './rowsMade.ts';

/** Above so many factors a row is named by its number: its values would make no name. */
const MOST_NAMED_FACTORS = 5;

/**
 * Rows that show the missing items of a combination: few rows for the tuples, made at once and improved step by step,
 * and a row for each invalid value and each variation of the base row. The same seed and steps make the same rows.
 */
export class CombinationRows {
  readonly #judge: CombinationJudge;
  readonly #wanted: ReadonlySet<number>;
  readonly #search: RowSearch;
  readonly #validPlaces: readonly (readonly number[])[];
  readonly #keys: readonly ItemKey[];
  readonly #how: Filling;

  constructor(model: CombinationModel, missing: ReadonlySet<ItemKey>, how: Filling = 'fewest') {
    this.#judge = combinationJudge(model);
    this.#keys = combinationItems(this.#judge).map((i) => i.key);
    this.#wanted = new Set(this.#keys.flatMap((key, place) => (missing.has(key) ? [place] : [])));
    this.#validPlaces = model.factors.map((f) => f.values.flatMap((v, place) => (v.valid ? [place] : [])));
    this.#how = how;
    this.#search = new RowSearch(taskOf(this.#judge, this.#validPlaces, how === 'fewest' ? this.#wanted : new Set()));
  }

  get progress(): SearchProgress {
    return this.#search.progress;
  }

  improve(steps: number): SearchProgress {
    return this.#search.improve(steps);
  }

  /** The rows so far, with what each shows that none before it does. */
  get made(): RowsMade {
    const found = this.#search.best.map((row) => row.map((v, f) => this.#validPlaces[f]?.[v] ?? 0));
    const { tuples, invalidFrom, base } = this.#judge;
    const single = this.#how === 'onePerItem';
    const alone = [...this.#wanted].toSorted((a, b) => a - b).flatMap((place) => {
      const tuple = tuples[place];
      const own = tuple !== undefined && (single || place >= invalidFrom || (base !== null && tuple.factors.length === base.length));
      return own ? [{ place, row: this.#completed(tuple) }] : [];
    });
    const left = new Set(this.#wanted);
    const many = found.flatMap((values, i) => this.#proposed(values, i, left) ?? []);
    const each = alone.flatMap(({ place, row }, i) => {
      // One for each item counts for that item alone, whatever else it shows.
      const aim = single ? new Set([place]) : left;
      const proposed = row === null ? null : this.#proposed(row, found.length + i, aim);
      if (single && proposed !== null) left.delete(place);
      return proposed ?? [];
    });
    return { rows: [...many, ...each], unreachable: [...left].flatMap((place) => this.#keys[place] ?? []) };
  }

  #completed({ factors, values }: Tuple): number[] | null {
    const row = this.#judge.model.factors.map((_, f) => (factors.includes(f) ? (values[factors.indexOf(f)] ?? -1) : -1));
    return this.#judge.feasibility.complete(row);
  }

  #proposed(values: readonly number[], at: number, left: Set<number>): ProposedRow | null {
    const { factors } = this.#judge.model;
    const cells = factors.map((f, i) => ({ field: f.id, cell: f.values[values[i] ?? -1]?.value ?? '' }));
    const shown = tuplesShown(this.#judge, cells.map((c) => ({ kind: 'value', text: c.cell }))).filter((place) => left.has(place));
    if (shown.length === 0) return null;
    for (const place of shown) left.delete(place);
    const outcomes = factors.flatMap((f, i) => f.values[values[i] ?? -1]?.outcome ?? '').filter((o) => o !== '');
    const name = factors.length > MOST_NAMED_FACTORS ? `row ${at + 1}` : cells.map((c) => c.cell).join(', ').slice(0, 120);
    return { name, values: cells, outcome: [...new Set(outcomes)].join('; '), shows: shown.toSorted((a, b) => a - b).flatMap((place) => this.#keys[place] ?? []) };
  }
}

/** The search knows valid values only: invalid ones stand in rows of their own. */
function taskOf(judge: CombinationJudge, validPlaces: readonly (readonly number[])[], wanted: ReadonlySet<number>): CoveringTask {
  const { sets, model } = judge;
  const sizes = validPlaces.map((places) => places.length);
  const forbidden = judge.forbidden.map((box): Forbidden => ({ ...box, parts: box.parts.map((part) => ({ ...part, inside: (validPlaces[part.factor] ?? []).map((v) => part.inside[v] === true) })) }));
  const itemOf = (s: number, values: readonly number[]): number => {
    const set = sets[s];
    const code = set?.factors.reduce((sum, f, i) => sum + (validPlaces[f]?.[values[i] ?? 0] ?? 0) * (set.strides[i] ?? 1), set.from);
    return judge.places[code ?? -1] ?? -1;
  };
  return {
    sizes,
    sets: sets.map((s) => s.factors),
    wanted: (s, values) => wanted.has(itemOf(s, values)),
    forbidden,
    feasibility: forbidden.length === 0 ? null : new Feasibility(sizes.map((size) => new Array<boolean>(size).fill(true)), forbidden),
    seed: model.seed,
  };
}
