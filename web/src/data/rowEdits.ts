import { rowId, type CaseContent, type Parameter, type Row } from '@caderno/core/cases';
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
