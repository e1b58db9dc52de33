import { FILE_LIMITS } from './limits.ts';
import { at, error, warning, type FileProblem } from './problem.ts';
import type { SourceDocument, SourceRecord } from './sourceDocument.ts';

/** A row of a table file; `line` is where it begins. */
export interface TableRow {
  readonly line: number;
  readonly cells: readonly string[];
}

/** A table as a document: the first row that is not empty names the columns. */
export function tableDocument(format: 'csv' | 'xlsx', rows: readonly TableRow[], problems: readonly FileProblem[], sheets: readonly string[] = []): SourceDocument {
  const found: FileProblem[] = [...problems];
  const header = rows.find((row) => row.cells.some((cell) => cell.trim() !== ''));
  if (header === undefined) {
    // A file that could not be read says why; one that holds nothing says that.
    if (!found.some((p) => p.severity === 'error')) found.push(error({ code: 'file_empty' }));
    return { format, columns: [], records: [], sheets, problems: found, types: null };
  }
  const width = Math.max(...rows.slice(0, 1_000).map((row) => row.cells.length));
  if (width > FILE_LIMITS.columns) {
    return { format, columns: [], records: [], sheets, problems: [...found, error({ code: 'too_many_columns', limit: FILE_LIMITS.columns, got: width }, at(header.line))], types: null };
  }
  const columns = columnNames(header, found);
  const records: SourceRecord[] = [];
  for (const row of rows.slice(rows.indexOf(header) + 1)) {
    if (row.cells.every((cell) => cell.trim() === '')) continue;
    if (records.length === FILE_LIMITS.records) {
      found.push(error({ code: 'too_many_records', limit: FILE_LIMITS.records }, at(row.line)));
      return { format, columns, records: [], sheets, problems: found, types: null };
    }
    if (row.cells.length > columns.length) found.push(warning({ code: 'cell_count', expected: columns.length, got: row.cells.length }, at(row.line)));
    records.push({ line: row.line, cells: columns.map((_, i) => row.cells[i] ?? ''), place: null, relations: [] });
  }
  if (records.length === 0) found.push(error({ code: 'file_empty' }));
  return { format, columns, records, sheets, problems: found, types: null };
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
