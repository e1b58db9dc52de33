import { newRow, parameterId, rowId, type Parameter, type Row } from '../cases/index.ts';
import { lineId, textOf, type FeatureContent, type FeatureLine, type FeaturePart, type PartId } from './feature.ts';
import { freeColumn, rowLine } from './fromCase.ts';
import type { NewId } from './identities.ts';
import { movedCover } from './movedCover.ts';
import { readFeature, type ReadLine } from './reading.ts';
import { aligned } from './tidying.ts';

/** A table of examples as a table of data: its columns as parameters, called by their names, and its rows by the ids of their lines. */
export interface ExamplesTable {
  readonly parameters: readonly Parameter[];
  /** What a row is called stands in the first column, where no step uses that. */
  readonly rows: readonly Row[];
}

/** Where a table stands in its part, with the lines of rows and what stands between them. */
interface Place {
  readonly lines: readonly FeatureLine[];
  readonly read: readonly ReadLine[];
  /** The line of the keyword. */
  readonly keyword: number;
  /** Behind the last row. */
  readonly to: number;
  /** The column that says what a row is; null: none. */
  readonly name: string | null;
}

/** The n-th table of examples of an outline, from 0; null: it has no such one. */
export function examplesTable(content: FeatureContent, part: PartId, at: number): ExamplesTable | null {
  const place = placeOf(content, part, at);
  return place === null ? null : tableAt(place);
}

/** How many tables of examples a scenario has. */
export function examplesCount(content: FeatureContent, part: PartId): number {
  return partLines(content, part).read.filter((l) => l.role === 'examples').length;
}

/** The line of the part on which the keyword of a table of examples stands. */
export function examplesKeywordLine(content: FeatureContent, part: PartId, at: number): number | null {
  return placeOf(content, part, at)?.keyword ?? null;
}

/**
 * The feature with another table there. Lines of rows stay who they are, and what was not changed stays as it was
 * written; comments stay above the row they stood above. A name for a row where no column has any makes one. The very
 * same where nothing is other.
 */
export function withExamplesTable(content: FeatureContent, part: PartId, at: number, table: ExamplesTable, newId: NewId): FeatureContent {
  const place = placeOf(content, part, at);
  if (place === null || saysTheSame(tableAt(place), table)) return content;
  const name = place.name ?? (table.rows.some((r) => r.name !== '') ? freeColumn(table.parameters.map((p) => p.name)) : null);
  const columns = [...(name === null ? [] : [name]), ...table.parameters.map((p) => p.name)];
  const lines = [...place.lines.slice(0, place.keyword + 1), ...beforeTable(place), ...tableLines(place, table, name, columns, newId), ...place.lines.slice(place.to)];
  return { ...content, parts: content.parts.map((p) => (p.id === part ? { ...p, lines } : p)) };
}

/** The feature with a column called otherwise: in all tables of the outline, in its steps and its name, and in what it covers. Null: the name can be none, or another column has it. */
export function withColumnRenamed(content: FeatureContent, part: PartId, from: string, to: string): FeatureContent | null {
  const name = to.trim();
  if (!isColumnName(name)) return null;
  const { read } = partLines(content, part);
  if (headersOf(read).some((header) => header.includes(from) && header.includes(name))) return null;
  const renamed = Array.from({ length: examplesCount(content, part) }, (_, at) => at).reduce((feature, at) => {
    const table = examplesTable(feature, part, at);
    return table === null ? feature : withHeader(feature, part, at, (column) => (column === from ? name : column));
  }, content);
  const steps = (p: FeaturePart): FeaturePart => ({ ...p, lines: p.lines.map((line) => (line.text.includes(`<${from}>`) ? { ...line, text: line.text.replaceAll(`<${from}>`, `<${name}>`) } : line)), covers: p.covers.map((c) => movedCover(c, new Map(), (id) => (id === from ? parameterId(name) : id))) });
  return { ...renamed, parts: renamed.parts.map((p) => (p.id === part ? steps(p) : p)) };
}

/** Whether a column can be called so: it stands between bars, and between angle brackets in steps. */
export function isColumnName(name: string): boolean {
  return name !== '' && name === name.trim() && !/[<>|\\\r\n]/.test(name);
}

function partLines(content: FeatureContent, id: PartId): { readonly lines: readonly FeatureLine[]; readonly read: readonly ReadLine[] } {
  const index = content.parts.findIndex((p) => p.id === id);
  const lines = content.parts[index]?.lines ?? [];
  const start = content.parts.slice(0, Math.max(0, index)).reduce((sum, p) => sum + p.lines.length, 0);
  return { lines, read: readFeature(textOf(content)).lines.slice(start, start + lines.length) };
}

function placeOf(content: FeatureContent, part: PartId, at: number): Place | null {
  const { lines, read } = partLines(content, part);
  const keywords = read.flatMap((l, i) => (l.role === 'examples' ? [i] : []));
  const keyword = keywords[at];
  if (keyword === undefined) return null;
  const end = keywords[at + 1] ?? read.length;
  const last = read.findLastIndex((l, i) => i > keyword && i < end && l.role === 'tableRow');
  const place = { lines, read, keyword, to: (last < 0 ? lastOfHead(read, keyword, end) : last) + 1 };
  const [first] = headerOf(place);
  const used = read.slice(0, keywords[0]).some((l) => first !== undefined && l.role !== 'scenario' && lineSays(l).includes(`<${first}>`));
  return { ...place, name: first === undefined || used ? null : first };
}

/** Where there is no row yet, rows come behind the keyword and what describes it. */
function lastOfHead(read: readonly ReadLine[], keyword: number, end: number): number {
  return read.findLastIndex((l, i) => i >= keyword && i < end && (l.role === 'examples' || l.role === 'description'));
}

function lineSays({ text, items }: ReadLine): string {
  return [text, ...items.map((i) => i.text)].join(' ');
}

function headerOf({ read, keyword, to }: Pick<Place, 'read' | 'keyword' | 'to'>): readonly string[] {
  return read.slice(keyword, to).find((l) => l.role === 'tableRow')?.items.map((i) => i.text) ?? [];
}

function headersOf(read: readonly ReadLine[]): (readonly string[])[] {
  return read.flatMap((l, i) => (l.role === 'examples' ? [headerOf({ read, keyword: i, to: read.length })] : []));
}

function rowPlaces({ read, keyword, to }: Place): number[] {
  return read.flatMap((l, i) => (i > keyword && i < to && l.role === 'tableRow' ? [i] : []));
}

function tableAt(place: Place): ExamplesTable {
  const header = headerOf(place);
  const columns = place.name === null ? header : header.slice(1);
  const [, ...rows] = rowPlaces(place);
  return {
    parameters: columns.map((name) => ({ id: parameterId(name), name, type: 'text', default: '', description: '' })),
    rows: rows.map((i) => {
      const cells = place.read[i]?.items.map((item) => item.text) ?? [];
      const own = place.name === null ? cells : cells.slice(1);
      return newRow(rowId(place.lines[i]?.id ?? ''), place.name === null ? '' : (cells[0] ?? ''), Object.fromEntries(columns.flatMap((name, c) => (own[c] === undefined || own[c] === '' ? [] : [[name, own[c]]]))));
    }),
  };
}

function saysTheSame(a: ExamplesTable, b: ExamplesTable): boolean {
  const said = ({ parameters, rows }: ExamplesTable): string => JSON.stringify([parameters.map((p) => p.name), rows.map((r) => [r.id, r.name, parameters.map((p) => r.cells[p.id] ?? '')])]);
  return said(a) === said(b);
}

/** What stands between the keyword and the first row: a description, a comment. */
function beforeTable(place: Place): readonly FeatureLine[] {
  return place.lines.slice(place.keyword + 1, rowPlaces(place)[0] ?? place.to);
}

function tableLines(place: Place, { rows, parameters }: ExamplesTable, name: string | null, columns: readonly string[], newId: NewId): FeatureLine[] {
  const places = rowPlaces(place);
  const [header] = places;
  const end = place.lines.some((l) => l.text.endsWith('\r')) ? '\r' : '';
  const indent = /^\s*/.exec(place.lines[header ?? place.keyword]?.text ?? '')?.[0] ?? '';
  const indentOfRows = header === undefined ? `${indent}  ` : indent;
  const texts = aligned([rowText(place, header, columns, indentOfRows), ...rows.map((row) => rowText(place, places.find((i) => place.lines[i]?.id === (row.id as string)), [...(name === null ? [] : [row.name]), ...parameters.map((p) => row.cells[p.id] ?? '')], indentOfRows))]);
  const between = remarksBetween(place, new Set<string>(rows.map((r) => r.id)));
  const line = (id: string, i: number): FeatureLine => ({ id: lineId(id), text: `${texts[i] ?? ''}${end}` });
  return [line(header === undefined ? newId() : (place.lines[header]?.id ?? newId()), 0), ...rows.flatMap((row, i) => [...(between.get(row.id) ?? []), line(row.id, i + 1)]), ...(between.get(null) ?? [])];
}

/** A row as it was written, as long as it says the same. */
function rowText(place: Place, at: number | undefined, cells: readonly string[], indent: string): string {
  const was = at === undefined ? null : place.read[at]?.items.map((i) => i.text);
  return at !== undefined && JSON.stringify(was) === JSON.stringify(cells) ? (place.lines[at]?.text.replace(/\r$/, '') ?? '') : rowLine(indent, cells);
}

/** Comments and blank lines, by the row that they stand above now; null: below all. */
function remarksBetween(place: Place, rows: ReadonlySet<string>): Map<string | null, FeatureLine[]> {
  const places = rowPlaces(place);
  const between = new Map<string | null, FeatureLine[]>();
  let waiting: FeatureLine[] = [];
  for (let i = (places[0] ?? place.to) + 1; i < place.to; i += 1) {
    const line = place.lines[i];
    if (line === undefined) continue;
    if (!places.includes(i)) waiting.push(line);
    else if (rows.has(line.id)) {
      between.set(line.id, waiting);
      waiting = [];
    }
  }
  return waiting.length === 0 ? between : between.set(null, waiting);
}

function withHeader(content: FeatureContent, part: PartId, at: number, rename: (column: string) => string): FeatureContent {
  const place = placeOf(content, part, at);
  const [header, ...others] = place === null ? [] : rowPlaces(place);
  if (place === null || header === undefined) return content;
  const end = place.lines[header]?.text.endsWith('\r') === true ? '\r' : '';
  const indent = /^\s*/.exec(place.lines[header]?.text ?? '')?.[0] ?? '';
  const texts = aligned([rowLine(indent, headerOf(place).map(rename)), ...others.map((i) => place.lines[i]?.text.replace(/\r$/, '') ?? '')]);
  const made = new Map([header, ...others].map((i, n) => [i, `${texts[n] ?? ''}${end}`]));
  const lines = place.lines.map((line, i): FeatureLine => (made.has(i) ? { ...line, text: made.get(i) ?? line.text } : line));
  return { ...content, parts: content.parts.map((p) => (p.id === part ? { ...p, lines } : p)) };
}
