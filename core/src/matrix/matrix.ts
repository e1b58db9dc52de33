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
  const rowsAt = linesAt(down, turned ? columns.length : conditions.length);
  const columnsAt = linesAt(across, turned ? conditions.length : columns.length);
  const sums = down.map(() => new Map<number, number[]>());
  for (let at = 0; at < cells.length; at += CELL_SIZE) {
    const [first, second] = [cells[at] ?? 0, cells[at + 1] ?? 0];
    for (const row of rowsAt[turned ? second : first] ?? []) {
      for (const column of columnsAt[turned ? first : second] ?? []) addTo(sums[row], column, cells, at + 2);
    }
  }
  const rows = sums.map((sum) => [...sum].map(([at, counts]): MatrixCell => ({ at, counts })).sort((a, b) => a.at - b.at));
  const met = across.map(() => 0);
  for (const row of rows) for (const { at } of row) met[at] = (met[at] ?? 0) + 1;
  return { rows, met };
}

/** Which lines stand for each place. */
function linesAt(lines: readonly Line[], places: number): readonly (readonly number[])[] {
  const at = Array.from({ length: places }, (): number[] => []);
  lines.forEach((line, i) => {
    for (const place of line.places) at[place]?.push(i);
  });
  return at;
}

function addTo(sums: Map<number, number[]> | undefined, column: number, cells: readonly number[], from: number): void {
  const sum = sums?.get(column) ?? CELL_STANDINGS.map(() => 0);
  for (let i = 0; i < sum.length; i += 1) sum[i] = (sum[i] ?? 0) + (cells[from + i] ?? 0);
  sums?.set(column, sum);
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
