import { cellStanding, firstFrom, type Matrix } from '@caderno/core/matrix';
import { STANDING_SHAPES, type ShapePart } from '../look/index.ts';
import type { Cursor } from './cursor.ts';
import type { MatrixLine } from './useMatrix.ts';

/** The side of a square of the graph paper, and of the shape in it. */
export const CELL = 24;
const SHAPE = 12;

/** The part of a matrix that is in view. */
export interface Sight {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

interface Drawing {
  readonly down: readonly MatrixLine[];
  readonly across: readonly MatrixLine[];
  readonly matrix: Matrix;
  /** Whose row and column are marked. */
  readonly seen: Cursor | null;
}

/** What a colour of the theme is at the moment. */
type Colours = (token: string) => string;

/** Draws what is in view, and nothing else: however large the matrix is, it takes the same time. */
export function drawCells(to: CanvasRenderingContext2D, { down, across, matrix, seen }: Drawing, sight: Sight, colours: Colours): void {
  const rows = range(sight.top, sight.height, down.length);
  const columns = range(sight.left, sight.width, across.length);
  const x = (column: number): number => column * CELL - sight.left;
  const y = (row: number): number => row * CELL - sight.top;
  const [right, bottom] = [Math.min(sight.width, x(across.length)), Math.min(sight.height, y(down.length))];
  to.fillStyle = colours('page');
  to.fillRect(0, 0, sight.width, sight.height);
  to.fillStyle = colours('page2');
  for (let row = rows.from; row < rows.to; row += 1) if (down[row]?.kind === 'heading') to.fillRect(0, y(row), right, CELL);
  for (let column = columns.from; column < columns.to; column += 1) if (across[column]?.kind === 'heading') to.fillRect(x(column), 0, CELL, bottom);
  if (seen !== null) {
    to.fillStyle = colours('blue-wash');
    if (seen.row >= 0) to.fillRect(0, y(seen.row), right, CELL);
    if (seen.column >= 0) to.fillRect(x(seen.column), 0, CELL, bottom);
  }
  to.strokeStyle = colours('rule');
  to.lineWidth = 1;
  to.beginPath();
  for (let row = rows.from; row <= rows.to; row += 1) line(to, 0, y(row) - 0.5, right, y(row) - 0.5);
  for (let column = columns.from; column <= columns.to; column += 1) line(to, x(column) - 0.5, 0, x(column) - 0.5, bottom);
  to.stroke();
  for (let row = rows.from; row < rows.to; row += 1) {
    const cells = matrix.rows[row] ?? [];
    for (let at = firstFrom(cells, columns.from); at < cells.length; at += 1) {
      const cell = cells[at];
      if (cell === undefined || cell.at >= columns.to) break;
      drawShape(to, STANDING_SHAPES[cellStanding(cell)], x(cell.at) + (CELL - SHAPE) / 2, y(row) + (CELL - SHAPE) / 2, colours);
    }
  }
  if (seen !== null && seen.row >= 0 && seen.column >= 0) {
    to.strokeStyle = colours('blue');
    to.lineWidth = 1.5;
    to.strokeRect(x(seen.column) + 0.5, y(seen.row) + 0.5, CELL - 2, CELL - 2);
  }
}

/** The lines that a length of view touches. */
function range(start: number, length: number, lines: number): { readonly from: number; readonly to: number } {
  return { from: Math.max(0, Math.floor(start / CELL)), to: Math.min(lines, Math.ceil((start + length) / CELL)) };
}

function line(to: CanvasRenderingContext2D, x1: number, y1: number, x2: number, y2: number): void {
  to.moveTo(x1, y1);
  to.lineTo(x2, y2);
}

/** A path is read once, however often it is drawn. */
const paths = new Map<string, Path2D>();

function drawShape(to: CanvasRenderingContext2D, parts: readonly ShapePart[], x: number, y: number, colours: Colours): void {
  to.translate(x, y);
  for (const { path, fill, stroke, width = 1, dash } of parts) {
    const known = paths.get(path) ?? new Path2D(path);
    paths.set(path, known);
    if (fill !== undefined) {
      to.fillStyle = colours(fill);
      to.fill(known);
    }
    if (stroke !== undefined) {
      to.strokeStyle = colours(stroke);
      to.lineWidth = width;
      to.setLineDash(dash === undefined ? [] : [...dash]);
      to.stroke(known);
    }
  }
  to.setLineDash([]);
  to.translate(-x, -y);
}
