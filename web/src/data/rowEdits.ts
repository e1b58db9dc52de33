import { continueSeries } from '@caderno/core/data';
import { freeName, type Parameter, type ParameterId, type Row } from '@caderno/core/cases';
import { cellOf, withCells, type DataTable, type GridColumn } from './table.ts';

/** Cells that are selected: the rows by their places in the table, in the order they are seen; a place beyond the last is a row to come. */
export interface CellRange {
  readonly rows: readonly number[];
  readonly columns: readonly GridColumn[];
}

/** The table with a block of texts written over a range; what goes beyond its columns is dropped, rows to come are taken from `spare`. */
export function withBlock<D extends DataTable>(data: D, { rows: places, columns }: CellRange, block: readonly (readonly string[])[], spare: readonly Row[]): D {
  const rows = [...data.rows];
  let used = 0;
  block.forEach((texts, i) => {
    const place = places[i] ?? rows.length;
    const row = rows[place] ?? spare[used];
    if (row === undefined) return;
    if (place >= rows.length) used += 1;
    rows[Math.min(place, rows.length)] = withCells(row, columns, texts);
  });
  return { ...data, rows };
}

export function cleared<D extends DataTable>(data: D, range: CellRange): D {
  const there = range.rows.filter((place) => place < data.rows.length);
  return withBlock(data, { ...range, rows: there }, there.map(() => range.columns.map(() => '')), []);
}

/** The range as a spreadsheet takes it: tabs and line breaks, cells that hold either in quotes. */
export function copied(rows: readonly Row[], range: CellRange): string {
  return rowsIn(rows, range)
    .map((row) =>
      range.columns
        .map((column) => {
          const text = cellOf(row, column);
          return /[\t\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
        })
        .join('\t'),
    )
    .join('\n');
}

export function withoutRows<D extends DataTable>(data: D, places: readonly number[]): D {
  const gone = new Set(places);
  return { ...data, rows: data.rows.filter((_, i) => !gone.has(i)) };
}

/** The table with rows written once more, below the last of them, under names of their own. */
export function duplicated<D extends DataTable>(data: D, places: readonly number[], spare: readonly Row[]): D {
  const names = new Set(data.rows.map((r) => r.name));
  const copies = rowsIn(data.rows, { rows: places }).flatMap((row, i) => {
    const fresh = spare[i];
    if (fresh === undefined) return [];
    const name = row.name === '' ? '' : freeName(row.name, names).slice(0, 200);
    names.add(name);
    return [{ ...row, id: fresh.id, name }];
  });
  return { ...data, rows: data.rows.toSpliced(Math.max(...places) + 1, 0, ...copies) };
}

/** The table with rows that stand together one place up or down; the same when there is no place. */
export function withRowsMoved<D extends DataTable>(data: D, places: readonly number[], direction: -1 | 1): D {
  const there = places.filter((place) => place < data.rows.length);
  const [top, bottom] = [Math.min(...there), Math.max(...there)];
  const other = direction === -1 ? top - 1 : bottom + 1;
  const passed = data.rows[other];
  if (passed === undefined || there.length === 0) return data;
  return { ...data, rows: data.rows.toSpliced(other, 1).toSpliced(direction === -1 ? bottom : top, 0, passed) };
}

/** The table with what a person says of rows: valid or invalid, or put aside. */
export function withRowsMarked<D extends DataTable>(data: D, places: readonly number[], marks: Partial<Pick<Row, 'mark' | 'aside'>>): D {
  const marked = new Set(places);
  return { ...data, rows: data.rows.map((row, i) => (marked.has(i) ? { ...row, ...marks } : row)) };
}

/** The table with the first cells of a range repeated down to its end, or gone on from: those that are filled at the top are what is given. */
export function filled<D extends DataTable>(data: D, range: CellRange, how: 'same' | 'series'): D {
  const there = range.rows.filter((place) => place < data.rows.length);
  const rows = rowsIn(data.rows, { rows: there });
  const texts = range.columns.map((column) => {
    const cells = rows.map((row) => cellOf(row, column));
    const given = how === 'same' ? 1 : givenAtTop(cells);
    const seed = cells.slice(0, given);
    return [...seed, ...(how === 'same' ? cells.slice(given).map(() => seed[0] ?? '') : continueSeries(seed, cells.length - given))];
  });
  return withBlock(data, { rows: there, columns: range.columns }, rows.map((_, i) => texts.map((column) => column[i] ?? '')), []);
}

/** How many cells at the top are filled, where the rest is empty; all filled: the first two say how it goes on. */
function givenAtTop(cells: readonly string[]): number {
  const firstEmpty = cells.indexOf('');
  return firstEmpty < 0 ? Math.min(2, Math.max(1, cells.length - 1)) : Math.max(1, firstEmpty);
}

function rowsIn(rows: readonly Row[], { rows: places }: Pick<CellRange, 'rows'>): Row[] {
  return places.flatMap((place) => rows[place] ?? []);
}

/** The table with a parameter one column to the left or right; the same when there is no place. */
export function withColumnMoved<D extends DataTable>(data: D, id: ParameterId, direction: -1 | 1): D {
  const at = data.parameters.findIndex((p) => p.id === id);
  const moved = data.parameters[at];
  if (moved === undefined || data.parameters[at + direction] === undefined) return data;
  return { ...data, parameters: data.parameters.toSpliced(at, 1).toSpliced(at + direction, 0, moved) };
}

/** The table with a parameter changed. */
export function withColumn<D extends DataTable>(data: D, id: ParameterId, part: Partial<Parameter>): D {
  return { ...data, parameters: data.parameters.map((p) => (p.id === id ? { ...p, ...part } : p)) };
}

/** What is looked for in cells. */
export interface Search {
  readonly words: string;
  readonly wholeCell: boolean;
  readonly sameCase: boolean;
}

/** A cell by the place of its row in the table and that of its column among those seen. */
export interface FoundCell {
  readonly row: number;
  readonly column: number;
}

/** The cells in which it stands, row by row; names of rows count as cells. */
export function cellsWith(rows: readonly Row[], columns: readonly GridColumn[], search: Search): FoundCell[] {
  const pattern = patternOf(search);
  if (pattern === null) return [];
  return rows.flatMap((row, at) => columns.flatMap((c, column) => (cellOf(row, c).search(pattern) >= 0 ? [{ row: at, column }] : [])));
}

/** The table with what was found replaced in all cells of these columns. */
export function withReplaced<D extends DataTable>(data: D, columns: readonly GridColumn[], search: Search, by: string): D {
  const pattern = patternOf(search);
  if (pattern === null) return data;
  // A function, so that $& in what is put in stays what it is.
  const rows = data.rows.map((row) => withCells(row, columns, columns.map((column) => cellOf(row, column).replaceAll(pattern, () => by))));
  return { ...data, rows };
}

function patternOf({ words, wholeCell, sameCase }: Search): RegExp | null {
  if (words === '') return null;
  const plain = words.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`);
  return new RegExp(wholeCell ? `^${plain}$` : plain, sameCase ? 'gu' : 'giu');
}
