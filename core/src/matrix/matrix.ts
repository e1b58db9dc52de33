import { CELL_SIZE, CELL_STANDINGS, type MatrixCells } from '../coverage/index.ts';

/** Where something has to do with something: how many items stand how, by {@link CELL_STANDINGS}. */
export interface MatrixCell {
  /** The place of its column. */
  readonly at: number;
  readonly counts: readonly number[];
}

/** A matrix as it is drawn. */
export interface Matrix {
  /** Of each row its cells, from left to right. Most places have none. */
  readonly rows: readonly (readonly MatrixCell[])[];
  /** How many rows each column meets. */
  readonly met: readonly number[];
}

interface Line {
  readonly places: readonly number[];
}

/** Sums cells into rows and columns, of which each stands for some conditions, or some of what covers them. `turned`: conditions go across. */
export function matrixOf({ cells, conditions, columns }: MatrixCells, down: readonly Line[], across: readonly Line[], turned = false): Matrix {
  const rowsAt = new LinesAt(down, turned ? columns.length : conditions.length);
  const columnsAt = new LinesAt(across, turned ? conditions.length : columns.length);
  const rows = down.map((): MatrixCell[] => []);
  for (let at = 0; at < cells.length; at += CELL_SIZE) {
    const [first = 0, second = 0] = turned ? [cells[at + 1], cells[at]] : [cells[at], cells[at + 1]];
    for (let r = rowsAt.from(first); r < rowsAt.from(first + 1); r += 1) {
      for (let c = columnsAt.from(second); c < columnsAt.from(second + 1); c += 1) rows[rowsAt.line(r)]?.push({ at: columnsAt.line(c), counts: cells.slice(at + 2, at + CELL_SIZE) });
    }
  }
  const met = across.map(() => 0);
  const summed = rows.map(summedRow);
  for (const row of summed) for (const { at } of row) met[at] = (met[at] ?? 0) + 1;
  return { rows: summed, met };
}

/** Which lines stand for each place, in two flat lists: a list for each of tens of thousands of places would be dear to make. */
class LinesAt {
  readonly #starts: Uint32Array;
  readonly #lines: Uint32Array;

  constructor(lines: readonly Line[], places: number) {
    const starts = new Uint32Array(places + 1);
    for (const line of lines) for (const place of line.places) starts[place + 1] = (starts[place + 1] ?? 0) + 1;
    for (let place = 0; place < places; place += 1) starts[place + 1] = (starts[place + 1] ?? 0) + (starts[place] ?? 0);
    this.#starts = starts;
    this.#lines = new Uint32Array(starts[places] ?? 0);
    const next = starts.slice();
    lines.forEach((line, i) => {
      for (const place of line.places) {
        const at = next[place] ?? 0;
        this.#lines[at] = i;
        next[place] = at + 1;
      }
    });
  }

  /** Where the lines of a place begin; those of the one before end there. */
  from(place: number): number {
    return this.#starts[place] ?? 0;
  }

  line(at: number): number {
    return this.#lines[at] ?? 0;
  }
}

/** The cells of a row from left to right, those of one column as their sum. */
function summedRow(row: readonly MatrixCell[]): MatrixCell[] {
  if (row.length < 2) return [...row];
  const summed: MatrixCell[] = [];
  for (const cell of row.toSorted((a, b) => a.at - b.at)) {
    const last = summed.at(-1);
    if (last?.at === cell.at) summed[summed.length - 1] = { at: cell.at, counts: last.counts.map((count, i) => count + (cell.counts[i] ?? 0)) };
    else summed.push(cell);
  }
  return summed;
}

/** What a cell looks like: shown when anything is shown there. */
export function cellStanding({ counts }: Pick<MatrixCell, 'counts'>): (typeof CELL_STANDINGS)[number] {
  return CELL_STANDINGS.find((_, i) => (counts[i] ?? 0) > 0) ?? 'leftOut';
}

/** The cell of a row in a column; undefined: they have nothing to do with each other. */
export function cellAt(row: readonly MatrixCell[], column: number): MatrixCell | undefined {
  const from = firstFrom(row, column);
  return row[from]?.at === column ? row[from] : undefined;
}

/** Where the cells of a row from a column on begin. */
export function firstFrom(row: readonly MatrixCell[], column: number): number {
  let [low, high] = [0, row.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((row[middle]?.at ?? 0) < column) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The places of lines, those first that have a cell there, the ones that show most before them; the others behind them in their order. */
export function byPartner(cells: readonly (MatrixCell | undefined)[]): number[] {
  const weight = (at: number): readonly number[] => cells[at]?.counts ?? [];
  return cells
    .map((_, at) => at)
    .sort((a, b) => {
      for (let i = 0; i < CELL_STANDINGS.length; i += 1) {
        const difference = (weight(b)[i] ?? 0) - (weight(a)[i] ?? 0);
        if (difference !== 0) return difference;
      }
      return a - b;
    });
}
