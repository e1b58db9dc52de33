import { firstFrom, type Matrix } from '@caderno/core/matrix';

/** Where one is: in a cell, on the head of a row (column -1) or of a column (row -1). */
export interface Cursor {
  readonly row: number;
  readonly column: number;
}

export interface Extent {
  readonly rows: number;
  readonly columns: number;
  /** Rows that are in view at a time. */
  readonly page: number;
}

type Pressed = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey'>;

/** Where a key leads; null: it is no key that moves. With Ctrl the arrows go to the next cell with something in it. */
export function moved(cursor: Cursor, pressed: Pressed, matrix: Matrix, extent: Extent): Cursor | null {
  const far = pressed.ctrlKey || pressed.metaKey;
  const { row, column } = cursor;
  switch (pressed.key) {
    case 'ArrowRight':
      return within(far ? { row, column: nextIn(matrix, row, column, extent) } : { row, column: column + 1 }, extent);
    case 'ArrowLeft':
      return within(far ? { row, column: lastIn(matrix, row, column) } : { row, column: column - 1 }, extent);
    case 'ArrowDown':
      return within(far ? { row: rowWith(matrix, row, column, 1, extent), column } : { row: row + 1, column }, extent);
    case 'ArrowUp':
      return within(far ? { row: rowWith(matrix, row, column, -1, extent), column } : { row: row - 1, column }, extent);
    case 'Home':
      return within({ row: far ? 0 : row, column: far ? 0 : -1 }, extent);
    case 'End':
      return within({ row: far ? extent.rows - 1 : row, column: extent.columns - 1 }, extent);
    case 'PageDown':
      return within({ row: row + extent.page, column }, extent);
    case 'PageUp':
      return within({ row: Math.max(0, row - extent.page), column }, extent);
    default:
      return null;
  }
}

/** The corner holds nothing: whoever would come there stays on the head. */
function within({ row, column }: Cursor, { rows, columns }: Extent): Cursor {
  const at = { row: Math.min(rows - 1, Math.max(-1, row)), column: Math.min(columns - 1, Math.max(-1, column)) };
  return at.row === -1 && at.column === -1 ? { row: Math.min(0, rows - 1), column: -1 } : at;
}

/** Behind the last cell of a row comes its end, before the first its head. */
function nextIn({ rows }: Matrix, row: number, column: number, { columns }: Extent): number {
  const cells = rows[row] ?? [];
  return cells[firstFrom(cells, column + 1)]?.at ?? columns - 1;
}

function lastIn({ rows }: Matrix, row: number, column: number): number {
  const cells = rows[row] ?? [];
  return cells[firstFrom(cells, column) - 1]?.at ?? -1;
}

function rowWith({ rows }: Matrix, row: number, column: number, step: 1 | -1, extent: Extent): number {
  for (let at = row + step; at >= 0 && at < extent.rows; at += step) {
    const cells = rows[at] ?? [];
    if (cells[firstFrom(cells, column)]?.at === column) return at;
  }
  return step === 1 ? extent.rows - 1 : -1;
}
