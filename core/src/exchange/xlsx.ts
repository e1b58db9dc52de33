import { strFromU8 } from 'fflate';
import readWorkbook, { type CellValue } from 'read-excel-file/universal';
import writeWorkbook from 'write-excel-file/universal';
import { openArchive } from './archive.ts';
import { FILE_LIMITS } from './limits.ts';
import { error, warning, type FileProblem } from './problem.ts';
import type { ReadingOptions, SourceDocument } from './sourceDocument.ts';
import { tableDocument, type TableReading } from './table.ts';

/** A workbook as a document: the sheet asked for, or the first with content. Formulas are never evaluated: their last values are taken. */
export async function readXlsx(bytes: Uint8Array, options: ReadingOptions, table: TableReading): Promise<SourceDocument> {
  const archive = await openArchive(bytes, (path) => /^xl\/(?:(?:worksheets\/[^/]+|sharedStrings|workbook)\.xml|_rels\/workbook\.xml\.rels)$/.test(path));
  if (archive.kind === 'refused') return refused(archive.problem);
  const notes = [...archive.files].filter(([path]) => path.includes('worksheets/')).map(([, file]) => strFromU8(file));
  if ([...archive.files.values()].some((file) => strFromU8(file.subarray(0, 2_000)).includes('<!DOCTYPE'))) return refused(error({ code: 'xml_doctype' }));
  const widest = widestColumn(notes);
  const tallest = lastRow(notes);
  if (tallest > FILE_LIMITS.rows + 1) return refused(error({ code: 'sheet_too_tall', limit: FILE_LIMITS.rows, got: tallest }));
  if (widest > FILE_LIMITS.columns) return refused(error({ code: 'too_many_columns', limit: FILE_LIMITS.columns, got: widest }));
  try {
    const copy = new Uint8Array(bytes);
    const sheets = await readWorkbook<string>(copy.buffer, { parseNumber: (text: string) => text, trim: false });
    const chosen = sheets.find((s) => s.sheet === options.sheet) ?? sheets.find((s) => s.data.length > 0);
    const rows = (chosen?.data ?? []).map((cells, i) => ({ line: i + 1, cells: cells.map(cellText) }));
    if (chosen !== undefined) fillMerged(rows, sheetXml(archive.files, chosen.sheet));
    return tableDocument('xlsx', rows, sheetNotes(notes), table, sheets.map((s) => s.sheet));
  } catch (cause) {
    // The library throws plain errors on whatever it cannot read in a hostile workbook.
    return refused(error({ code: 'sheet_broken', reason: cause instanceof Error ? cause.message.slice(0, 200) : 'unreadable' }));
  }
}

function refused(problem: FileProblem): SourceDocument {
  return { format: 'xlsx', columns: [], records: [], sheets: [], problems: [problem], types: null };
}

/** The number of the last column any cell says it stands in. */
function widestColumn(sheets: readonly string[]): number {
  let widest = 0;
  for (const sheet of sheets) {
    for (const [, letters = ''] of sheet.matchAll(/<(?:\w+:)?c\b[^>]*?\br="([A-Z]+)\d/g)) {
      widest = Math.max(widest, columnNumber(letters));
      if (widest > FILE_LIMITS.columns) return widest;
    }
  }
  return widest;
}

/** The number of the last row any cell says it stands in: the library makes every row before it. */
function lastRow(sheets: readonly string[]): number {
  let last = 0;
  for (const sheet of sheets) {
    for (const [, row = ''] of sheet.matchAll(/<(?:\w+:)?c\b[^>]*?\br="[A-Z]+(\d+)/g)) last = Math.max(last, Number(row));
  }
  return last;
}

/** The XML of a sheet by its name; empty when the workbook does not say where it is. */
function sheetXml(files: ReadonlyMap<string, Uint8Array>, name: string): string {
  const text = (path: string): string => strFromU8(files.get(path) ?? new Uint8Array());
  const sheet = [...text('xl/workbook.xml').matchAll(/<(?:\w+:)?sheet\b[^>]*>/g)].map(([tag]) => tag).find((tag) => unescaped(/\bname="([^"]*)"/.exec(tag)?.[1] ?? '') === name);
  const id = /\br:id="([^"]*)"/.exec(sheet ?? '')?.[1];
  const relation = [...text('xl/_rels/workbook.xml.rels').matchAll(/<Relationship\b[^>]*>/g)].map(([tag]) => tag).find((tag) => /\bId="([^"]*)"/.exec(tag)?.[1] === id);
  const target = /\bTarget="(?:\/?xl\/)?([^"]*)"/.exec(relation ?? '')?.[1];
  return target === undefined ? '' : text(`xl/${target}`);
}

function unescaped(text: string): string {
  return text.replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&quot;', '"').replaceAll('&apos;', "'").replaceAll('&amp;', '&');
}

/** A cell merged over several rows stands in each of them, as one reads it; over columns it stands in the first, as a heading does. */
function fillMerged(rows: readonly { readonly cells: string[] }[], sheet: string): void {
  for (const [, letters = '', from = '', to = ''] of sheet.matchAll(/<(?:\w+:)?mergeCell\b[^>]*?\bref="([A-Z]{1,3})(\d{1,7}):[A-Z]{1,3}(\d{1,7})"/g)) {
    const column = columnNumber(letters) - 1;
    const value = rows[Number(from) - 1]?.cells[column] ?? '';
    if (value === '') continue;
    for (let row = Number(from); row < Math.min(Number(to), rows.length); row += 1) {
      const cells = rows[row]?.cells;
      if (cells === undefined || cells.every((cell) => cell.trim() === '')) continue;
      while (cells.length < column) cells.push('');
      cells[column] = value;
    }
  }
}

function columnNumber(letters: string): number {
  return [...letters].reduce((n, letter) => n * 26 + letter.charCodeAt(0) - 64, 0);
}

function sheetNotes(sheets: readonly string[]): FileProblem[] {
  const count = (pattern: RegExp): number => sheets.reduce((n, sheet) => n + (sheet.match(pattern)?.length ?? 0), 0);
  const formulas = count(/<(?:\w+:)?f[\s>/]/g);
  const merged = count(/<(?:\w+:)?mergeCell[\s/]/g);
  return [...(formulas > 0 ? [warning({ code: 'formulas_taken_as_values', count: formulas })] : []), ...(merged > 0 ? [warning({ code: 'cells_merged', count: merged })] : [])];
}

/** Numbers stay as written, dates become ISO dates, so that nothing is turned into something else on the way. */
function cellText(value: CellValue | string | null): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) {
    const iso = Number.isNaN(value.getTime()) ? '' : value.toISOString();
    return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso.replace(/:00\.000Z$/, '').replace('T', ' ');
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return String(value);
}

/** What XML cannot hold or had better not, which the writer leaves out without a word: control characters, the replacement character, what is no character, halves of pairs. */
const LEFT_OUT = /[\p{Cc}\p{Cs}\p{Noncharacter_Code_Point}\uFFFD]/gu;

/**
 * A text as a workbook spells it, every unit that its XML cannot hold as `_xHHHH_` (ECMA-376 part 1, 22.9.2.19 ST_Xstring), and so a text that looks like such
 * a spelling. The writer keeps its texts in an object, where some names are taken: their first letter is spelt, too.
 */
function spelt(text: string): string {
  if (isPlain(text)) return text;
  const units = (characters: string): string => characters.split('').map((unit) => `_x${unit.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}_`).join('');
  if (text in Object.prototype) return units(text.slice(0, 1)) + text.slice(1);
  return text.replace(/_(?=x[\dA-Fa-f]{4}_)/g, units).replace(LEFT_OUT, (character) => ('\t\n'.includes(character) ? character : units(character)));
}

/** Nearly all texts are: letters of ASCII in which nothing looks like a spelling, with a space or more than one line, as names that are taken have none. */
function isPlain(text: string): boolean {
  return /^[\n -~]*$/.test(text) && /[\n ]/.test(text) && !text.includes('_x');
}

/** What one cell of a spreadsheet can hold. */
export const LONGEST_XLSX_CELL = 32_767;

/** Rows as a workbook of one sheet. Every cell is text: a formula in it is shown, not run. The first row is the header. */
export async function writeXlsx(sheet: string, rows: readonly (readonly string[])[]): Promise<Uint8Array> {
  return writeSheets([{ name: sheet, rows }]);
}

/** A sheet of a workbook to be written; its first row is the header. */
export interface SheetRows {
  readonly name: string;
  readonly rows: readonly (readonly string[])[];
}

/** The same with several sheets, made to be read. */
export async function writeSheets(sheets: readonly SheetRows[]): Promise<Uint8Array> {
  const blob = await writeWorkbook(workbookOf(sheets)).toBlob();
  return new Uint8Array(await blob.arrayBuffer());
}

/** What `write-excel-file` is handed for sheets that are to be read: columns as wide as what they hold, texts wrapped, the names of the columns always in view. */
export function workbookOf(sheets: readonly SheetRows[]) {
  const names = sheetNames(sheets.map((s) => s.name));
  return sheets.map(({ rows }, at) => {
    const columns = (rows[0] ?? []).map((_, column) => ({ width: widthOf(rows, column) }));
    const isTall = (row: readonly string[]): boolean => row.some((cell, i) => cell.length > (columns[i]?.width ?? NARROWEST) - 2 || cell.includes('\n'));
    const data = rows.map((row, i) => {
      // A look takes most of the time of a cell: only rows that need more than one line have one.
      const look = { ...(isTall(row) ? { wrap: true, alignVertical: 'top' as const } : {}), ...(i === 0 ? { fontWeight: 'bold' as const } : {}) };
      return row.map((cell) => (cell === '' ? null : { value: spelt(cell), type: String, ...look }));
    });
    return { sheet: names[at] ?? '', data, columns, stickyRowsCount: 1 };
  });
}

const [NARROWEST, WIDEST] = [8, 60];
const LOOKED_AT = 200;

/** As wide as the longest line of its first cells, within bounds. */
function widthOf(rows: readonly (readonly string[])[], column: number): number {
  const longest = Math.max(0, ...rows.slice(0, LOOKED_AT).flatMap((row) => (row[column] ?? '').split('\n').map((line) => line.length)));
  return Math.min(WIDEST, Math.max(NARROWEST, longest + 2));
}

const LONGEST_SHEET_NAME = 31;

/** Names that a workbook takes: no longer, without some signs, and each once whatever its capitals. */
function sheetNames(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain = name.replaceAll(/[[\]:*?/\\]/g, ' ').replaceAll(/^'+|'+$/g, '').trim() || 'Sheet';
    let made = plain.slice(0, LONGEST_SHEET_NAME).toWellFormed();
    for (let turn = 2; taken.has(made.toLowerCase()); turn += 1) made = `${plain.slice(0, LONGEST_SHEET_NAME - 5).toWellFormed()} (${turn})`;
    taken.add(made.toLowerCase());
    return made;
  });
}
