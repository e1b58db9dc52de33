import { useLayoutEffect, useRef } from 'react';
import { useMedia, useTheme } from '../look/index.ts';
import type { Cursor } from './cursor.ts';
import { CELL, drawCells, type Sight } from './drawCells.ts';
import type { DrawnMatrix } from './useMatrix.ts';

interface Props {
  readonly drawn: DrawnMatrix;
  readonly seen: Cursor | null;
  /** What scrolls. */
  readonly view: HTMLElement;
  /** What of the scroller is left beside the heads. */
  readonly width: number;
  readonly height: number;
  readonly headWidth: number;
  readonly headHeight: number;
  readonly onPoint: (at: Cursor | null) => void;
  readonly onPick: (at: Cursor) => void;
}

/** The squares, on a canvas that stays where it is while what it shows moves. */
export function CellsCanvas({ drawn, seen, view, width, height, headWidth, headHeight, onPoint, onPick }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  // Colours are another theme's then.
  const theme = `${useTheme()} ${useMedia('(prefers-color-scheme: dark)')}`;
  useLayoutEffect(() => {
    const draw = (): void => drawOn(canvas.current, drawn, seen, { left: view.scrollLeft, top: view.scrollTop, width, height });
    draw();
    view.addEventListener('scroll', draw, { passive: true });
    return () => view.removeEventListener('scroll', draw);
  }, [drawn, height, seen, theme, view, width]);
  const cellOf = (event: React.MouseEvent): Cursor | null => {
    const [row, column] = [Math.floor((event.nativeEvent.offsetY + view.scrollTop) / CELL), Math.floor((event.nativeEvent.offsetX + view.scrollLeft) / CELL)];
    return row < drawn.down.length && column < drawn.across.length ? { row, column } : null;
  };
  return (
    <canvas
      ref={canvas}
      aria-hidden="true"
      className="sticky block"
      style={{ top: headHeight, left: headWidth, width, height }}
      onPointerMove={(event) => onPoint(cellOf(event))}
      onPointerLeave={() => onPoint(null)}
      onClick={(event) => {
        const at = cellOf(event);
        if (at !== null) onPick(at);
      }}
    />
  );
}

function drawOn(canvas: HTMLCanvasElement | null, drawn: DrawnMatrix, seen: Cursor | null, sight: Sight): void {
  const to = canvas?.getContext('2d');
  if (canvas === null || to == null) return;
  const scale = devicePixelRatio;
  const [width, height] = [Math.round(sight.width * scale), Math.round(sight.height * scale)];
  // Setting its size clears it, and costs more than all that is drawn on it.
  if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
  const style = getComputedStyle(document.documentElement);
  const known = new Map<string, string>();
  to.setTransform(scale, 0, 0, scale, 0, 0);
  drawCells(to, { ...drawn, seen }, sight, (token) => {
    const colour = known.get(token) ?? style.getPropertyValue(`--color-${token}`);
    known.set(token, colour);
    return colour;
  });
}
