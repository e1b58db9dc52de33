import { LOOKED_AT, areNumbered } from './columnContent.ts';
import { FILE_LIMITS } from './limits.ts';
import { at, error, warning, type FileProblem } from './problem.ts';
import type { SourceDocument, SourceRecord } from './sourceDocument.ts';

/** A row of a table file; `line` is where it begins. */
export interface TableRow {
  readonly line: number;
  readonly cells: readonly string[];
}

/** What is a table's own: which row names the columns, and how many may follow. */
export interface TableReading {
  /** A place among the rows that are not empty, from 1; 0: no row does; null: as it looks. */
  readonly header: number | null;
  readonly most: number;
  /** Whether a cell is a name that columns have; the row with the most of them names the columns. */
  readonly isName?: (cell: string) => boolean;
  /** Whether a row with one text in it parts the table instead of being a record. */
  readonly hasSections?: boolean;
}

/** A table as a document. */
export function tableDocument(format: 'csv' | 'xlsx', rows: readonly TableRow[], problems: readonly FileProblem[], reading: TableReading, sheets: readonly string[] = []): SourceDocument {
  const found: FileProblem[] = [...problems];
  const filled = rows.filter((row) => row.cells.some((cell) => cell.trim() !== ''));
  const headerAt = reading.header ?? headerByNames(filled, reading.isName) ?? guessHeader(filled);
  const names = { header: headerAt, rows: filled.slice(0, ROWS_OFFERED).map((row) => row.cells.filter((cell) => cell.trim() !== '').join(' · ').replaceAll(/\s+/g, ' ').slice(0, 120)) };
  const header = filled[Math.max(0, headerAt - 1)];
  if (header === undefined) {
    // A file that could not be read says why; one that holds nothing says that.
    if (!found.some((p) => p.severity === 'error')) found.push(error({ code: 'file_empty' }));
    return { format, columns: [], records: [], sheets, problems: found, types: null };
  }
  const width = Math.max(...rows.slice(0, 1_000).map((row) => row.cells.length));
  if (width > FILE_LIMITS.columns) {
    return { format, columns: [], records: [], sheets, problems: [...found, error({ code: 'too_many_columns', limit: FILE_LIMITS.columns, got: width }, at(header.line))], types: null };
  }
  const columns = headerAt === 0 ? Array.from({ length: width }, (_, i) => `column ${i + 1}`) : columnNames(header, found);
  const records: SourceRecord[] = [];
  for (const row of filled.slice(headerAt)) {
    if (records.length === reading.most) {
      found.push(error({ code: 'too_many_records', limit: reading.most }, at(row.line)));
      return { format, columns, records: [], sheets, problems: found, types: null };
    }
    if (row.cells.slice(columns.length).some((cell) => cell.trim() !== '')) found.push(warning({ code: 'cell_count', expected: columns.length, got: row.cells.length }, at(row.line)));
    const section = reading.hasSections === true && columns.length >= NARROWEST_SECTIONED ? sectionOf(row) : null;
    records.push({ line: row.line, cells: columns.map((_, i) => row.cells[i] ?? ''), place: null, relations: [], ...(section === null ? {} : { section }) });
  }
  if (records.length === 0) found.push(error({ code: 'file_empty' }));
  // Where most rows have one text only they are the records.
  const areRecords = records.filter((r) => r.section !== undefined).length * 2 > records.length;
  return { format, columns, records: areRecords ? records.map(({ section: _, ...record }) => record) : records, sheets, problems: found, types: null, names };
}

/** Most rows that are offered as the one that names the columns. */
const ROWS_OFFERED = 12;
/** A table of two columns has rows with one text for other reasons. */
const NARROWEST_SECTIONED = 3;

/** The one text of a row that has no other; a number is a value. */
function sectionOf({ cells }: TableRow): string | null {
  const [text, ...others] = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  return text === undefined || others.length > 0 || VALUE.test(text) ? null : text.replaceAll(/\s+/g, ' ');
}

const LEAST_NAMES = 2;

/** The row among the first that holds the most known names of columns, if at least two. */
function headerByNames(filled: readonly TableRow[], isName: TableReading['isName']): number | null {
  if (isName === undefined) return null;
  const counts = filled.slice(0, 20).map((row) => new Set(row.cells.map((cell) => cell.trim()).filter((cell) => cell !== '' && isName(cell))).size);
  const most = Math.max(0, ...counts);
  return most < LEAST_NAMES ? null : counts.indexOf(most) + 1;
}

const VALUE = /^[+-]?[\d.,]*\d(?:[./:T -][\d.,/:T -]*)?$/;

/** Which row names the columns: lines of a title above the table do not, and where all cells of the first are values, or it is numbered as those below, none does. */
function guessHeader(filled: readonly TableRow[]): number {
  const width = (row: TableRow): number => row.cells.filter((cell) => cell.trim() !== '').length;
  const widest = Math.max(0, ...filled.slice(0, 20).map(width));
  const first = widest < 3 ? 0 : filled.findIndex((row) => width(row) > 1);
  const cells = (filled[first]?.cells ?? []).filter((cell) => cell.trim() !== '');
  return cells.every((cell) => VALUE.test(cell.trim())) || isRecord(filled.slice(first)) ? 0 : first + 1;
}

/** Whether the first row is numbered as all below it are, `REQ-1` above `REQ-2`: then it is one of them. */
function isRecord(rows: readonly TableRow[]): boolean {
  const looked = rows.slice(0, LOOKED_AT);
  const [first] = looked;
  const kind = (cell: string): string => cell.replace(/\d.*$/, '').toLowerCase();
  const isOneOf = (cells: readonly string[]): boolean => areNumbered(cells) && new Set(cells.map(kind)).size === 1;
  return looked.length > 1 && first !== undefined && first.cells.some((_, i) => isOneOf(looked.map((row) => (row.cells[i] ?? '').trim())));
}

/** Names of the columns, made different where the header repeats itself or is silent. */
function columnNames(header: TableRow, problems: FileProblem[]): string[] {
  const names: string[] = [];
  let cells = [...header.cells];
  while (cells.length > 0 && (cells.at(-1) ?? '').trim() === '') cells = cells.slice(0, -1);
  cells.forEach((cell, i) => {
    const name = cell.replaceAll(/\s+/g, ' ').trim().slice(0, 120) || `column ${i + 1}`;
    if (names.includes(name)) problems.push(warning({ code: 'column_doubled', name }, at(header.line, name)));
    let unique = name;
    for (let n = 2; names.includes(unique); n += 1) unique = `${name} (${n})`;
    names.push(unique);
  });
  return names;
}
