/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { axisLines, itemLines, matrixOf, type AxisItem } from '@caderno/core/matrix';
import { CELL, drawCells } from './drawCells.ts';
import type { MatrixItem } from './useAxes.ts';
import type { MatrixLine } from './useMatrix.ts';

/** Writes down where shapes of which colour are drawn. */
class Paper {
  readonly shapes: string[] = [];
  readonly boxes: string[] = [];
  readonly lines: string[] = [];
  fillStyle = '';
  strokeStyle = '';
  lineWidth = 1;
  #at = [0, 0];

  translate(x: number, y: number): void {
    this.#at = [this.#at[0]! + x, this.#at[1]! + y];
  }
  fill(): void {
    this.shapes.push(`${this.fillStyle} ${this.#at.join(',')}`);
  }
  fillRect(x: number, y: number, width: number, height: number): void {
    this.boxes.push(`${this.fillStyle} ${x},${y} ${width}x${height}`);
  }
  strokeRect(x: number, y: number): void {
    this.boxes.push(`around ${x},${y}`);
  }
  lineTo(x: number, y: number): void {
    this.lines.push(`${x},${y}`);
  }
  stroke = (): void => undefined;
  beginPath = (): void => undefined;
  moveTo = (): void => undefined;
  setLineDash = (): void => undefined;
}

const before = globalThis.Path2D;
beforeEach(() => void (globalThis.Path2D = Object as unknown as typeof Path2D));
afterEach(() => void (globalThis.Path2D = before));

const item = (id: string, ...places: readonly number[]): MatrixItem => ({ id, title: id, figure: { kind: 'shows', items: 0 }, group: '', places }) as MatrixItem;
const many = (letter: string, count: number): MatrixItem[] => Array.from({ length: count }, (_, i) => item(`${letter}-${i + 1}`, i));

function drawn(count: number, sight: Parameters<typeof drawCells>[2], cells: readonly number[], down: readonly MatrixLine[] = itemLines(many('R', count)), seen: Parameters<typeof drawCells>[1]['seen'] = null): Paper {
  const across = itemLines(many('C', count));
  const paper = new Paper();
  const matrix = matrixOf({ conditions: Array.from({ length: count }, (_, i) => `K-${i + 1}` as const), columns: Array.from({ length: count }, (_, i) => `C-${i + 1}`), cells }, down, across);
  drawCells(paper as unknown as CanvasRenderingContext2D, { down, across, matrix, seen }, sight, (token) => token);
  return paper;
}

test('every cell in view is drawn in its square and in its shape, and none that is out of view', () => {
  // On the diagonal: shown, suspect, waiting, linked, left out.
  const cells = [0, 1, 2, 3, 4].flatMap((n) => [n, n, ...[0, 1, 2, 3, 4].map((s) => (s === n ? 1 : 0))]);
  expect(drawn(5, { left: 0, top: 0, width: 200, height: 200 }, cells).shapes).toEqual(['pine 6,6', 'brick-wash 30,30', 'plum-wash 54,54', 'page 78,78', 'ochre 78,78']);
  // Scrolled by a square and a half: the first is gone, the second half in view.
  expect(drawn(5, { left: CELL * 1.5, top: CELL * 1.5, width: 36, height: 36 }, cells).shapes).toEqual(['brick-wash -6,-6', 'plum-wash 18,18']);
});

test('what a large matrix costs is what is in view', () => {
  const cells = Array.from({ length: 2_000 }, (_, n) => [n, n, 1, 0, 0, 0, 0, n, (n * 7) % 2_000, 0, 0, 0, 1, 0]).flat();
  const paper = drawn(2_000, { left: 20_000, top: 20_000, width: 240, height: 240 }, cells);
  expect(paper.lines.length).toBeLessThan(30);
  expect(paper.shapes.filter((s) => s.startsWith('pine'))).toHaveLength(11);
});

test('headings, and the row and column that one points at, stand out; lines end with the matrix', () => {
  const rows: AxisItem[] = [{ ...item('R-1', 0), group: 'a' }, { ...item('R-2', 1), group: 'b' }];
  const lines = axisLines(rows, new Set()) as readonly MatrixLine[];
  const paper = drawn(2, { left: 0, top: 0, width: 500, height: 500 }, [], lines, { row: 1, column: 1 });
  expect(paper.boxes).toEqual(['page 0,0 500x500', 'page2 0,0 48x24', 'page2 0,48 48x24', 'blue-wash 0,24 48x24', 'blue-wash 24,0 24x96', 'around 24.5,24.5']);
  expect(paper.lines).toContain('48,95.5');
  // On the head of a column only that column is marked.
  expect(drawn(2, { left: 0, top: 0, width: 500, height: 500 }, [], lines, { row: -1, column: 0 }).boxes.slice(3)).toEqual(['blue-wash 0,0 24x96']);
});
