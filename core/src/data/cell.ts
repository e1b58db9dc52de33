/**
 * A cell of a data row, as typed. Three things are not plain text: an empty cell gives no value of its own (the
 * default applies), `""` gives the empty text, and `(missing)` gives no value at all, on purpose.
 */
export type CellText = string;

export const EMPTY_CELL: CellText = '""';
export const MISSING_CELL: CellText = '(missing)';

export type CellValue =
  | { readonly kind: 'notGiven' }
  | { readonly kind: 'missing' }
  | { readonly kind: 'text'; readonly text: string };

/** Whether a cell is the text that stands in it, as nearly all are. */
export function isPlainCell(cell: CellText): boolean {
  return cell !== '' && cell !== EMPTY_CELL && cell !== MISSING_CELL;
}

export function readCell(cell: CellText): CellValue {
  if (cell === '') return { kind: 'notGiven' };
  if (cell === EMPTY_CELL) return { kind: 'text', text: '' };
  if (cell === MISSING_CELL) return { kind: 'missing' };
  return { kind: 'text', text: cell };
}
