import { compareDecimals, parseDecimal } from '../values/index.ts';
import { readCell, type CellText } from '../data/index.ts';
import type { Row } from './row.ts';
import type { Parameter, ParameterId } from './parameter.ts';

/** Stands for the names of rows where a column is meant; no parameter has it as id. */
export const NAME_COLUMN = '@name';
export type ColumnId = ParameterId | typeof NAME_COLUMN;

/**
 * What rows must have in a column, as it is typed: words that stand in the cell, or a sign before what is compared:
 * `=` is, `!=` is not (letter for letter but for capitals; by value in a column of numbers, so that 42 is not 0042 in one
 * of texts), `!` does not hold, `<` `<=` `>` `>=` in order. `=` alone: nothing is given; `!=` alone: something is.
 */
export interface ColumnFilter {
  readonly id: ColumnId;
  readonly text: string;
}

const SIGNS = ['!=', '<=', '>=', '=', '<', '>', '!'] as const;
type Sign = (typeof SIGNS)[number];

/** The rows that pass every filter, in their order. A cell that leaves its value to the default counts as that. */
export function filteredRows(rows: readonly Row[], parameters: readonly Parameter[], filters: readonly ColumnFilter[]): readonly Row[] {
  const asked = filters.filter((f) => f.text.trim() !== '');
  if (asked.length === 0) return rows;
  const tests = asked.map((f) => ({ column: columnReader(f.id, parameters), passes: cellTest(f.text.trim(), isNumeric(f.id, parameters)) }));
  return rows.filter((row) => tests.every(({ column, passes }) => passes(column(row))));
}

/** The rows in the order of a column, equal ones as they were; what gives nothing comes last in either direction. */
export function sortedRows(rows: readonly Row[], parameters: readonly Parameter[], by: ColumnId, descending: boolean): readonly Row[] {
  const column = columnReader(by, parameters);
  const keyed = rows.map((row) => ({ row, cell: column(row) }));
  return keyed.toSorted((a, b) => Number(a.cell === '') - Number(b.cell === '') || (descending ? -1 : 1) * compareCells(a.cell, b.cell)).map(({ row }) => row);
}

/** What a row has in a column: the value as text, the default where the cell leaves it to that; empty when there is none. */
function columnReader(id: ColumnId, parameters: readonly Parameter[]): (row: Row) => string {
  if (id === NAME_COLUMN) return (row) => row.name;
  const fallback = parameters.find((p) => p.id === id)?.default ?? '';
  return (row) => valueText(row.cells[id] ?? '') ?? valueText(fallback) ?? '';
}

/** Null: the cell leaves its value to the default. */
function valueText(cell: CellText): string | null {
  const value = readCell(cell);
  return value.kind === 'text' ? value.text : value.kind === 'missing' ? cell : null;
}

function isNumeric(id: ColumnId, parameters: readonly Parameter[]): boolean {
  const type = parameters.find((p) => p.id === id)?.type;
  return type === 'whole' || type === 'decimal';
}

function cellTest(text: string, byValue: boolean): (cell: string) => boolean {
  const sign = SIGNS.find((s) => text.startsWith(s));
  const wanted = (sign === undefined ? text : text.slice(sign.length)).trim();
  const words = wanted.toLowerCase();
  if (sign === undefined) return (cell) => cell.toLowerCase().includes(words);
  if (sign === '!') return (cell) => !cell.toLowerCase().includes(words);
  if (sign === '=' || sign === '!=') return (cell) => (cell === '' || wanted === '' ? cell === wanted : byValue ? compareCells(cell, wanted) === 0 : cell.toLowerCase() === words) === (sign === '=');
  const isNumber = parseDecimal(wanted) !== null;
  // A number is neither before nor after what is none.
  return (cell) => cell !== '' && (parseDecimal(cell) !== null) === isNumber && SIGN_HOLDS[sign](compareCells(cell, wanted));
}

const SIGN_HOLDS: Record<Exclude<Sign, '!' | '=' | '!='>, (order: number) => boolean> = {
  '<': (order) => order < 0,
  '<=': (order) => order <= 0,
  '>': (order) => order > 0,
  '>=': (order) => order >= 0,
};

/** Numbers by their exact value, everything else as text without regard to capitals: dates and times sort so too. */
export function compareCells(a: string, b: string): number {
  const [x, y] = [parseDecimal(a), parseDecimal(b)];
  if (x !== null && y !== null) return compareDecimals(x, y);
  const [left, right] = [a.toLowerCase(), b.toLowerCase()];
  return left < right ? -1 : left > right ? 1 : 0;
}
