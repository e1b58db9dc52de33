import { fitsType, isParameterName, newRow, parameterId, rowId, type CaseContent, type Parameter, type ParameterType, type Row } from '../cases/index.ts';
import { AS_WRITTEN, guessParameterType, understoodCell, type ValueReading } from './rowValues.ts';
import type { SourceDocument, SourceRecord } from './sourceDocument.ts';

/** What becomes of the rows that are there: they give way, they stay and more are added, or those of the same name change. */
export const ROW_IMPORTS = ['replace', 'add', 'update'] as const;
export type RowImport = (typeof ROW_IMPORTS)[number];

/** What a column of a file is taken for. */
export type RowColumn =
  | { readonly kind: 'name' }
  | { readonly kind: 'parameter'; readonly id: Parameter['id'] }
  /** A parameter that is not there yet, by the name of the column. */
  | { readonly kind: 'new' }
  | { readonly kind: 'leave' };

/** A cell of the file that is not a value of its parameter's type. It is taken in as it is written. */
export interface RowProblem {
  readonly line: number;
  readonly column: string;
  readonly type: ParameterType;
  readonly value: string;
}

/** What the rows and parameters of a case would be. */
export interface RowsPlan {
  readonly rows: readonly Row[];
  readonly parameters: readonly Parameter[];
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
  readonly problems: readonly RowProblem[];
  /** Cells that are meant as something else than they are written, the first of them as examples. */
  readonly understood: { readonly count: number; readonly examples: readonly { readonly from: string; readonly to: string }[] };
}

const NAME_COLUMN = /^(?:row|name|row name|variant|data row)$/i;

/** What each column is most likely meant as: the name of the row, a parameter by its name with or without brackets, or a new one. */
export function guessRowColumns(columns: readonly string[], parameters: readonly Parameter[]): RowColumn[] {
  const plain = (name: string): string => name.trim().replace(/^<(.*)>$/, '$1').toLowerCase();
  const taken = new Set<string>();
  return columns.map((column): RowColumn => {
    const parameter = parameters.find((p) => plain(p.name) === plain(column));
    const target: RowColumn = parameter !== undefined ? { kind: 'parameter', id: parameter.id } : NAME_COLUMN.test(column.trim()) ? { kind: 'name' } : isParameterName(newName(column)) ? { kind: 'new' } : { kind: 'leave' };
    const key = JSON.stringify(target);
    // Two columns cannot be one parameter; two new ones have different names.
    if (target.kind !== 'new' && taken.has(key)) return { kind: 'leave' };
    taken.add(key);
    return target;
  });
}

function newName(column: string): string {
  return column.trim().replace(/^<(.*)>$/, '$1');
}

/**
 * The rows of a case with those of a file taken in; cells are read as `reading` says, else as they are written. Rows of the same name keep their ids in
 * every way of importing, so that calls and links to them stay. `newId` makes ids for rows and parameters.
 */
export function planRows(document: Pick<SourceDocument, 'columns' | 'records'>, columns: readonly RowColumn[], content: Pick<CaseContent, 'rows' | 'parameters'>, how: RowImport, newId: () => string, reading: ValueReading = AS_WRITTEN): RowsPlan {
  const parameters = [...content.parameters];
  const targets = columns.map((target, i): Parameter | 'name' | null => {
    if (target.kind === 'name') return 'name';
    if (target.kind === 'leave') return null;
    if (target.kind === 'parameter') return parameters.find((p) => p.id === target.id) ?? null;
    const made: Parameter = { id: parameterId(newId()), name: newName(document.columns[i] ?? ''), type: guessParameterType(document.records.map((r) => r.cells[i] ?? '')), default: '', description: '' };
    parameters.push(made);
    return made;
  });
  const [records, understood] = withValuesUnderstood(document.records, targets, reading);
  const read = records.map((record) => readRow(record, targets));
  const merged = mergeRows(content.rows, read, how, newId);
  return { ...merged, parameters, understood, problems: records.flatMap((record) => problemsOf(record, targets, document.columns)) };
}

const MOST_EXAMPLES = 4;

function withValuesUnderstood(records: readonly SourceRecord[], targets: readonly (Parameter | 'name' | null)[], reading: ValueReading): [readonly SourceRecord[], RowsPlan['understood']] {
  const typed = targets.flatMap((target, i) => (target === null || target === 'name' || target.type === 'text' ? [] : [{ i, type: target.type }]));
  let count = 0;
  const examples: { from: string; to: string }[] = [];
  const understood = records.map((record) => {
    const cells = [...record.cells];
    for (const { i, type } of typed) {
      const from = cells[i] ?? '';
      const to = understoodCell(type, from, reading);
      if (to === from) continue;
      cells[i] = to;
      count += 1;
      if (examples.length < MOST_EXAMPLES) examples.push({ from, to });
    }
    return { ...record, cells };
  });
  return count === 0 ? [records, { count, examples }] : [understood, { count, examples }];
}

interface ReadRow {
  /** Null: the file does not name its rows. */
  readonly name: string | null;
  readonly cells: Readonly<Record<string, string>>;
}

const LONGEST_NAME = 200;

function readRow(record: SourceRecord, targets: readonly (Parameter | 'name' | null)[]): ReadRow {
  const nameAt = targets.indexOf('name');
  const cells = targets.flatMap((target, i) => (target === null || target === 'name' ? [] : [[target.id, record.cells[i] ?? ''] as const]));
  return { name: nameAt < 0 ? null : (record.cells[nameAt] ?? '').slice(0, LONGEST_NAME), cells: Object.fromEntries(cells) };
}

function mergeRows(rows: readonly Row[], read: readonly ReadRow[], how: RowImport, newId: () => string): Pick<RowsPlan, 'rows' | 'added' | 'changed' | 'removed'> {
  const free = new Map<string, Row[]>();
  for (const row of rows) {
    const same = free.get(row.name);
    if (same === undefined) free.set(row.name, [row]);
    else same.push(row);
  }
  let [added, changed] = [0, 0];
  const taken = new Set<Row>();
  const incoming = read.map(({ name, cells }, i): Row => {
    const same = how === 'add' || name === null || name === '' ? undefined : free.get(name)?.shift();
    if (same !== undefined) taken.add(same);
    const base = how === 'replace' ? {} : (same?.cells ?? {});
    const row: Row = { ...(same ?? newRow(rowId(newId()), name ?? `row ${(how === 'replace' ? 0 : rows.length) + i + 1}`)), cells: withoutEmpty({ ...base, ...cells }) };
    if (same === undefined) added += 1;
    else if (JSON.stringify(sorted(row.cells)) !== JSON.stringify(sorted(same.cells))) changed += 1;
    return row;
  });
  if (how === 'replace') return { rows: incoming, added, changed, removed: rows.length - taken.size };
  const byId = new Map(incoming.map((row) => [row.id, row]));
  const kept = rows.map((row) => byId.get(row.id) ?? row);
  const there = new Set(rows.map((row) => row.id));
  return { rows: [...kept, ...incoming.filter((row) => !there.has(row.id))], added, changed, removed: 0 };
}

function withoutEmpty(cells: Readonly<Record<string, string>>): Record<string, string> {
  return Object.fromEntries(Object.entries(cells).filter(([, cell]) => cell !== ''));
}

function sorted(cells: Readonly<Record<string, string>>): [string, string][] {
  return Object.entries(cells).sort(([a], [b]) => (a < b ? -1 : 1));
}

function problemsOf(record: SourceRecord, targets: readonly (Parameter | 'name' | null)[], columns: readonly string[]): RowProblem[] {
  return targets.flatMap((target, i) => {
    const value = record.cells[i] ?? '';
    if (target === null || target === 'name' || fitsType(target.type, value)) return [];
    return [{ line: record.line, column: columns[i] ?? '', type: target.type, value }];
  });
}

/** The rows as a table: the name of each, then its cells as they are typed. What {@link planRows} reads again unchanged. */
export function rowsTable(content: Pick<CaseContent, 'rows' | 'parameters'>): string[][] {
  return [['row', ...content.parameters.map((p) => p.name)], ...content.rows.map((row) => [row.name, ...content.parameters.map((p) => row.cells[p.id] ?? '')])];
}

/** The rows as JSON: of each its name, what is said of it, and its cells by the names of the parameters. */
export function rowsJson(content: Pick<CaseContent, 'rows' | 'parameters'>): string {
  const parameters = content.parameters.map(({ name, type, default: value, description }) => ({ name, type, default: value, description }));
  const rows = content.rows.map((row) => ({ name: row.name, description: row.description, mark: row.mark, aside: row.aside, values: Object.fromEntries(content.parameters.flatMap((p) => (row.cells[p.id] === undefined ? [] : [[p.name, row.cells[p.id]]]))) }));
  return `${JSON.stringify({ parameters, rows }, null, 2)}\n`;
}
