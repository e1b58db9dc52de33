import { CsvError, parse, type Options } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { decodeText } from './decodeText.ts';
import { FILE_LIMITS } from './limits.ts';
import { at, error, warning, type FileProblem } from './problem.ts';
import type { ReadingOptions, SourceDocument } from './sourceDocument.ts';
import { tableDocument, type TableReading, type TableRow } from './table.ts';

export const SEPARATORS = [',', ';', '\t', '|'] as const;

/** A CSV file (RFC 4180, with any line ends and common separators) as a document. */
export function readCsv(bytes: Uint8Array, options: ReadingOptions, table: TableReading): SourceDocument {
  const { text, problems } = decodeText(bytes, options.encoding);
  const separator = options.separator ?? guessSeparator(text);
  const read = parseRows(text, separator, table.most);
  return tableDocument('csv', read.rows, [...problems, ...read.problems], table);
}

interface ReadRows {
  readonly rows: TableRow[];
  readonly problems: FileProblem[];
}

/** By hand nobody writes inches, or words that are quoted within a cell, as RFC 4180 asks; spreadsheets take them as they are. Told apart only where the file needs it: whatever is called for each cell takes several times as long. */
function parseRows(text: string, delimiter: string, most: number): ReadRows {
  try {
    return { rows: recordsOf(text, delimiter, most, {}), problems: [] };
  } catch (cause) {
    if (!(cause instanceof CsvError)) throw cause;
    return cause.code === 'INVALID_OPENING_QUOTE' || cause.code === 'CSV_INVALID_CLOSING_QUOTE' ? keepingQuotes(text, delimiter, most) : { rows: [], problems: [unreadable(cause)] };
  }
}

function keepingQuotes(text: string, delimiter: string, most: number): ReadRows {
  let [count, first] = [0, 0];
  const cast: Options['cast'] = (cell, { quoting, lines }) => {
    if (!quoting && cell.includes('"') && !AS_TEXT.test(cell) && (count += 1) === 1) first = lines;
    return cell;
  };
  try {
    const rows = recordsOf(text, delimiter, most, { relax_quotes: true, cast });
    return { rows, problems: count === 0 ? [] : [warning({ code: 'quotes_kept', count }, at(first))] };
  } catch (cause) {
    if (!(cause instanceof CsvError)) throw cause;
    return { rows: [], problems: [unreadable(cause)] };
  }
}

/** @throws {CsvError} */
function recordsOf(text: string, delimiter: string, most: number, quotes: Pick<Options, 'relax_quotes' | 'cast'>): TableRow[] {
  const rows: TableRow[] = [];
  parse(text, {
    ...quotes,
    delimiter,
    record_delimiter: ['\r\n', '\n', '\r'],
    relax_column_count: true,
    skip_empty_lines: true,
    max_record_size: FILE_LIMITS.cell * 10,
    to: most + 20,
    on_record: (record: string[], { lines }) => {
      // The library says on which line a record ends; its own line ends lead back to where it begins.
      rows.push({ line: lines - lineEnds(record), cells: record.map(withoutGuard) });
      return null;
    },
  });
  return rows;
}

/** @throws what is not the file's fault. */
function unreadable(cause: CsvError): FileProblem {
  const line = typeof cause.lines === 'number' ? cause.lines : 1;
  if (cause.code === 'CSV_MAX_RECORD_SIZE') return error({ code: 'cell_too_long', limit: FILE_LIMITS.cell * 10, got: FILE_LIMITS.cell * 10 }, at(line));
  if (cause.code !== 'CSV_QUOTE_NOT_CLOSED') throw cause;
  return error({ code: 'quote_unclosed' }, at(line));
}

function lineEnds(record: readonly string[]): number {
  return record.reduce((n, cell) => n + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0);
}

/** Lines that are looked at to find the separator. */
const LINES_LOOKED_AT = 20;

/** The separator that cuts the most of the first lines into as many columns, and into many; quoted text is not looked into. Titles above a table, and commas in its texts, mislead nobody. */
export function guessSeparator(text: string): string {
  const head = text.slice(0, 20_000).replaceAll(/"(?:[^"]|"")*"/g, '');
  const lines = head.split(/\r\n|\n|\r/).filter((line) => line.trim() !== '').slice(0, LINES_LOOKED_AT);
  const cuts = SEPARATORS.map((separator) => ({ separator, cut: mostAlike(lines.map((line) => line.split(separator).length - 1)) }));
  return cuts.reduce((best, next) => (next.cut > best.cut ? next : best)).separator;
}

/** The more lines a separator cuts alike, the surer; that many tell more than that into many. */
function mostAlike(counts: readonly number[]): number {
  return Math.max(0, ...counts.map((count) => count * counts.filter((other) => other === count).length ** 2));
}

/** What a spreadsheet would run as a formula; also after apostrophes, so that the guard can be taken off again. */
const RUNS = /^'*[=+\-@\t\r]/;

/** Rows as CSV with a byte order mark, so that spreadsheets read it as UTF-8; no cell is taken for a formula. */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  return stringify(rows.map((row) => row.map((cell) => (RUNS.test(cell) ? `'${cell}` : cell))), { bom: true, record_delimiter: '\r\n', quoted_match: /[\r\n]/ });
}

const ROWS_A_PIECE = 1_000;

/** The same piece by piece, for more rows than are to be in memory as a text; only the first piece begins as a file does. */
export function* csvPieces(rows: Iterable<string[]>): Generator<string> {
  let some: string[][] = [];
  let isFirst = true;
  const piece = (): string => {
    const text = writeCsv(some);
    const own = isFirst ? text : text.replace(/^\uFEFF/, '');
    isFirst = false;
    some = [];
    return own;
  };
  for (const row of rows) {
    some.push(row);
    if (some.length === ROWS_A_PIECE) yield piece();
  }
  if (some.length > 0) yield piece();
}

/** `="007"`, as programs write it so that a spreadsheet leaves the zeros where they are. */
const AS_TEXT = /^="([^"]*)"$/;

function withoutGuard(cell: string): string {
  return /^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : (AS_TEXT.exec(cell)?.[1] ?? cell);
}
