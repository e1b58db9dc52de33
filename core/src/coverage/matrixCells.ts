import type { ConditionId, CoveringId } from '../artefacts/index.ts';
import { Chosen, type Choice } from './chosen.ts';
import { standingsOf, type CoveringCase } from './conditionCoverage.ts';
import type { ConditionEntry, CoverageIndex } from './coverageIndex.ts';
import { countStandings, type Standing } from './standing.ts';

/** How items of a condition can stand by what one column does for them. A gap is none of it; the first that holds of any item is what the cell looks like. */
export const CELL_STANDINGS = ['shown', 'suspect', 'waiting', 'linked', 'leftOut'] as const satisfies readonly Standing[];

/** Numbers of one cell: the place of its condition, the place of its column, then items by {@link CELL_STANDINGS}. */
export const CELL_SIZE = 2 + CELL_STANDINGS.length;

/**
 * What each of many columns does for each condition, as if it were alone: of an item that is shown by another one, too, both
 * cells say so. Flat, as the large project has tens of thousands of cells.
 */
export interface MatrixCells<C extends string = string> {
  readonly conditions: readonly ConditionId[];
  readonly columns: readonly C[];
  /** {@link CELL_SIZE} numbers a cell; only cells of which there is something to say. */
  readonly cells: readonly number[];
}

/** The cells of all conditions that count and all cases and scenarios that cover one. */
export function matrixCells(index: CoverageIndex): MatrixCells<CoveringId> {
  const made = new CellsMade<CoveringId>();
  for (const entry of index.entries.values()) {
    if (entry.counted === null) continue;
    const condition = made.condition(entry.id);
    for (const { id, counts } of cellsOf(entry.counted)) made.add(condition, id, counts);
  }
  return made.finish();
}

/** The same with one column for each choice of cases and scenarios. */
export function choiceCells<C extends string>(index: CoverageIndex, choices: readonly { readonly column: C; readonly choice: Choice }[]): MatrixCells<C> {
  const made = new CellsMade<C>();
  const chosen = choices.map(({ column, choice }) => ({ column, chosen: new Chosen(index, choice) }));
  for (const entry of index.entries.values()) {
    if (entry.counted === null) continue;
    const condition = made.condition(entry.id);
    for (const { column, chosen: of } of chosen) {
      const covering = of.covering(entry, entry.counted.grounds);
      if (covering.length > 0) made.add(condition, column, countsOf(entry.counted, covering));
    }
  }
  return made.finish();
}

type Counted = NonNullable<ConditionEntry['counted']>;
type CellCounts = readonly number[];

/** What is counted of a condition is made anew when anything of it changes: after an edit only few cells are worked out again. */
const kept = new WeakMap<Counted, readonly { readonly id: CoveringId; readonly counts: CellCounts }[]>();

function cellsOf(counted: Counted): readonly { readonly id: CoveringId; readonly counts: CellCounts }[] {
  const known = kept.get(counted);
  if (known !== undefined) return known;
  const made = counted.grounds.covering.map((covering) => ({ id: covering.id, counts: countsOf(counted, [covering]) }));
  kept.set(counted, made);
  return made;
}

function countsOf({ grounds }: Counted, covering: readonly CoveringCase[]): CellCounts {
  const counts = countStandings(standingsOf({ ...grounds, covering }));
  return CELL_STANDINGS.map((standing) => counts[standing]);
}

class CellsMade<C extends string> {
  readonly #conditions: ConditionId[] = [];
  readonly #columns = new Map<C, number>();
  readonly #cells: number[] = [];

  condition(id: ConditionId): number {
    return this.#conditions.push(id) - 1;
  }

  add(condition: number, column: C, counts: CellCounts): void {
    const at = this.#columns.get(column) ?? this.#columns.size;
    this.#columns.set(column, at);
    this.#cells.push(condition, at, ...counts);
  }

  finish(): MatrixCells<C> {
    return { conditions: this.#conditions, columns: [...this.#columns.keys()], cells: this.#cells };
  }
}
