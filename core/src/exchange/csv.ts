import { CsvError, parse } from 'csv-parse/sync';
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

function parseRows(text: string, delimiter: string, most: number): { rows: TableRow[]; problems: FileProblem[] } {
  try {
    const rows: TableRow[] = [];
    const kept = { count: 0, first: 0 };
    parse(text, {
      delimiter,
      record_delimiter: ['\r\n', '\n', '\r'],
      relax_column_count: true,
      // Inches, and words that are quoted within a cell: by hand nobody writes as RFC 4180 asks, and spreadsheets take it as it is.
      relax_quotes: true,
      cast: (cell, { quoting, lines }) => {
        if (!quoting && cell.includes('"') && (kept.count += 1) === 1) kept.first = lines;
        return cell;
      },
      skip_empty_lines: true,
      max_record_size: FILE_LIMITS.cell * 10,
      to: most + 20,
      on_record: (record: string[], { lines }) => {
        // The library says on which line a record ends; its own line ends lead back to where it begins.
        rows.push({ line: lines - lineEnds(record), cells: record.map(withoutGuard) });
        return null;
      },
    });
    return { rows, problems: kept.count === 0 ? [] : [warning({ code: 'quotes_kept', count: kept.count }, at(kept.first))] };
  } catch (cause) {
    if (!(cause instanceof CsvError)) throw cause;
    const line = typeof cause.lines === 'number' ? cause.lines : 1;
    if (cause.code === 'CSV_MAX_RECORD_SIZE') return { rows: [], problems: [error({ code: 'cell_too_long', limit: FILE_LIMITS.cell * 10, got: FILE_LIMITS.cell * 10 }, at(line))] };
    if (cause.code !== 'CSV_QUOTE_NOT_CLOSED') throw cause;
    return { rows: [], problems: [error({ code: 'quote_unclosed' }, at(line))] };
  }
}

function lineEnds(record: readonly string[]): number {
  return record.reduce((n, cell) => n + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0);
}

/** The separator that cuts the first lines into the most columns; quoted text is not looked into. */
export function guessSeparator(text: string): string {
  const head = text.slice(0, 20_000).replaceAll(/"(?:[^"]|"")*"/g, '');
  const [first = ''] = head.split(/\r\n|\n|\r/).filter((line) => line.trim() !== '');
  const counts = SEPARATORS.map((separator) => ({ separator, count: first.split(separator).length }));
  return counts.reduce((best, next) => (next.count > best.count ? next : best)).separator;
}

/** What a spreadsheet would run as a formula; also after apostrophes, so that the guard can be taken off again. */
const RUNS = /^'*[=+\-@\t\r]/;

/** Rows as CSV with a byte order mark, so that spreadsheets read it as UTF-8; no cell is taken for a formula. */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  return stringify(rows.map((row) => row.map((cell) => (RUNS.test(cell) ? `'${cell}` : cell))), { bom: true, record_delimiter: '\r\n', quoted_match: /[\r\n]/ });
}

function withoutGuard(cell: string): string {
  return /^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell;
}
