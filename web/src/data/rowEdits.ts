import { continueSeries } from '@caderno/core/data';
import { freeName, rowId, type CaseContent, type Parameter, type Row } from '@caderno/core/cases';
import type { Extent } from './gridSelection.ts';

/** The grid's columns: the row's name, then one for each parameter. */
export function cellOf(row: Row, parameters: readonly Parameter[], column: number): string {
  const parameter = parameters[column - 1];
  return column === 0 ? row.name : parameter === undefined ? '' : (row.cells[parameter.id] ?? '');
}

export function newRow(name: string): Row {
  return { id: rowId(crypto.randomUUID().slice(0, 8)), name, cells: {} };
}

/** The case with a block of texts written from a cell on; rows are added as needed, what goes beyond the columns is dropped. */
export function withBlock(content: CaseContent, at: { readonly row: number; readonly column: number }, block: readonly (readonly string[])[], spare: readonly Row[]): CaseContent {
  const rows = [...content.rows];
  block.forEach((texts, i) => {
    const index = at.row + i;
    const row = rows[index] ?? spare[i];
    if (row !== undefined) rows[index] = texts.reduce((r, text, j) => withCell(r, content.parameters, at.column + j, text), row);
  });
  return { ...content, rows };
}

function withCell(row: Row, parameters: readonly Parameter[], column: number, text: string): Row {
  if (column === 0) return { ...row, name: text.slice(0, 200) };
  const parameter = parameters[column - 1];
  if (parameter === undefined) return row;
  const { [parameter.id]: _, ...others } = row.cells;
  return { ...row, cells: text === '' ? others : { ...others, [parameter.id]: text } };
}

export function cleared(content: CaseContent, extent: Extent): CaseContent {
  const block = Array.from({ length: extent.bottom - extent.top + 1 }, () => Array.from({ length: extent.right - extent.left + 1 }, () => ''));
  return withBlock(content, { row: extent.top, column: extent.left }, block, []);
}

/** The range as a spreadsheet takes it: tabs and line breaks, cells that hold either in quotes. */
export function copied(rows: readonly Row[], parameters: readonly Parameter[], extent: Extent): string {
  return rows
    .slice(extent.top, extent.bottom + 1)
    .map((row) =>
      Array.from({ length: extent.right - extent.left + 1 }, (_, i) => {
        const text = cellOf(row, parameters, extent.left + i);
        return /[\t\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
      }).join('\t'),
    )
    .join('\n');
}

export function withoutRows(content: CaseContent, extent: Extent): CaseContent {
  return { ...content, rows: content.rows.filter((_, i) => i < extent.top || i > extent.bottom) };
}

/** The case with the rows of an extent written once more, below them, under names of their own. */
export function duplicated(content: CaseContent, extent: Extent, spare: readonly Row[]): CaseContent {
  const names = new Set(content.rows.map((r) => r.name));
  const copies = content.rows.slice(extent.top, extent.bottom + 1).flatMap((row, i) => {
    const fresh = spare[i];
    if (fresh === undefined) return [];
    const name = row.name === '' ? '' : freeName(row.name, names).slice(0, 200);
    names.add(name);
    return [{ ...row, id: fresh.id, name }];
  });
  return { ...content, rows: content.rows.toSpliced(extent.bottom + 1, 0, ...copies) };
}

/** The case with the rows of an extent one place up or down; the same case when there is no place. */
export function withRowsMoved(content: CaseContent, extent: Extent, direction: -1 | 1): CaseContent {
  const { top, bottom } = rowsIn(content, extent);
  const other = direction === -1 ? top - 1 : bottom + 1;
  const passed = content.rows[other];
  if (passed === undefined || bottom < top) return content;
  const without = content.rows.toSpliced(other, 1);
  return { ...content, rows: without.toSpliced(direction === -1 ? bottom : top, 0, passed) };
}

/** The rows of an extent that are there: its last may be the line where one types the next. */
function rowsIn({ rows }: CaseContent, { top, bottom }: Extent): { readonly top: number; readonly bottom: number } {
  return { top, bottom: Math.min(bottom, rows.length - 1) };
}

/** The case with the first cells of a range repeated down to its end, or gone on from: those that are filled at the top are what is given. */
export function filled(content: CaseContent, extent: Extent, how: 'same' | 'series'): CaseContent {
  const { top, bottom } = rowsIn(content, extent);
  const columns = Array.from({ length: extent.right - extent.left + 1 }, (_, i) => extent.left + i);
  const texts = columns.map((column) => {
    const cells = content.rows.slice(top, bottom + 1).map((row) => cellOf(row, content.parameters, column));
    const given = how === 'same' ? 1 : givenAtTop(cells);
    const seed = cells.slice(0, given);
    return [...seed, ...(how === 'same' ? cells.slice(given).map(() => seed[0] ?? '') : continueSeries(seed, cells.length - given))];
  });
  const block = Array.from({ length: bottom - top + 1 }, (_, i) => texts.map((column) => column[i] ?? ''));
  return withBlock(content, { row: top, column: extent.left }, block, []);
}

/** How many cells at the top are filled, where the rest is empty; all filled: the first two say how it goes on. */
function givenAtTop(cells: readonly string[]): number {
  const firstEmpty = cells.indexOf('');
  return firstEmpty < 0 ? Math.min(2, Math.max(1, cells.length - 1)) : Math.max(1, firstEmpty);
}

/** What is looked for in cells. */
export interface Search {
  readonly words: string;
  readonly wholeCell: boolean;
  readonly sameCase: boolean;
}

/** The cells in which it stands, row by row; names of rows count as cells. */
export function cellsWith(content: Pick<CaseContent, 'rows' | 'parameters'>, search: Search): { readonly row: number; readonly column: number }[] {
  const pattern = patternOf(search);
  if (pattern === null) return [];
  return content.rows.flatMap((row, at) => Array.from({ length: content.parameters.length + 1 }, (_, column) => ({ row: at, column })).filter(({ column }) => cellOf(row, content.parameters, column).search(pattern) >= 0));
}

/** The case with what was found replaced, in all cells or in one. */
export function withReplaced(content: CaseContent, search: Search, by: string, only: { readonly row: number; readonly column: number } | null): CaseContent {
  const pattern = patternOf(search);
  if (pattern === null) return content;
  return cellsWith(content, search)
    .filter((at) => only === null || (at.row === only.row && at.column === only.column))
    .reduce((changed, at) => {
      const row = changed.rows[at.row];
      // A function, so that $& in what is put in stays what it is.
      return row === undefined ? changed : withBlock(changed, at, [[cellOf(row, changed.parameters, at.column).replaceAll(pattern, () => by)]], []);
    }, content);
}

function patternOf({ words, wholeCell, sameCase }: Search): RegExp | null {
  if (words === '') return null;
  const plain = words.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`);
  return new RegExp(wholeCell ? `^${plain}$` : plain, sameCase ? 'gu' : 'giu');
}
