import { cellAt } from '@caderno/core/matrix';
import { groupName } from './Heads.tsx';
import { cellWords, figureWords } from './matrixWords.ts';
import type { DrawnMatrix, MatrixLine } from './useMatrix.ts';

/** Columns that a sheet of a workbook can have (ECMA-376), and squares that are written in some seconds. */
export const SHEET_LIMITS = { columns: 16_384, squares: 2_000_000 } as const;

const NAMING = 3;

/** Why a matrix is too large for a sheet; null: it is not. */
export function tooLarge({ down, across }: Pick<DrawnMatrix, 'down' | 'across'>): 'columns' | 'squares' | null {
  if (across.length + NAMING > SHEET_LIMITS.columns) return 'columns';
  return across.length * down.length > SHEET_LIMITS.squares ? 'squares' : null;
}

/** The matrix as the table of a sheet: names down, ids and below them titles across, in each square how many items stand how. */
export function matrixTable({ down, across, matrix }: Pick<DrawnMatrix, 'down' | 'across' | 'matrix'>): string[][] {
  return [
    ['Id', 'Title', 'Shown', ...across.map((line) => (line.kind === 'heading' ? groupName(line.group) : line.item.id))],
    ['', '', '', ...across.map((line) => (line.kind === 'heading' ? '' : line.item.title))],
    ...down.map((line, row) => {
      const cells = matrix.rows[row] ?? [];
      return [...nameCells(line), ...across.map((_, column) => squareWords(cellAt(cells, column)))];
    }),
  ];
}

function nameCells(line: MatrixLine): string[] {
  return line.kind === 'heading' ? ['', groupName(line.group), ''] : [line.item.id, line.item.title, figureWords(line.item.figure)];
}

function squareWords(cell: ReturnType<typeof cellAt>): string {
  return cell === undefined ? '' : cellWords(cell);
}
