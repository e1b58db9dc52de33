import { useVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useState, type ReactNode } from 'react';
import { CellsCanvas } from './CellsCanvas.tsx';
import { ColumnHead, RowHead } from './Heads.tsx';
import { moved, type Cursor } from './cursor.ts';
import { CELL } from './drawCells.ts';
import { lineName, type DrawnMatrix, type MatrixLine } from './useMatrix.ts';

const HEAD_HEIGHT = 104;
/** Ids of the last columns lean beyond their squares. */
const LEANING = 56;
/** On a narrow window the squares need the room. */
const [HEAD_WIDTH, NARROW_HEAD, NARROW] = [330, 190, 760] as const;

interface Props {
  readonly label: string;
  readonly describedBy: string;
  readonly drawn: DrawnMatrix;
  readonly seen: Cursor | null;
  readonly cursor: Cursor | null;
  readonly onPoint: (at: Cursor | null) => void;
  readonly onCursor: (at: Cursor) => void;
  /** What the cursor is on is opened, or its heading folded. */
  readonly onEnter: (at: Cursor) => void;
  readonly corner: ReactNode;
}

/** The graph paper with its heads: one stop of Tab, moved through by arrows. Only what is in view is drawn. */
export function MatrixGrid({ label, describedBy, drawn, seen, cursor, onPoint, onCursor, onEnter, corner }: Props) {
  const { down, across, matrix, meeting } = drawn;
  const [view, setView] = useState<HTMLDivElement | null>(null);
  const size = useSize(view);
  const headWidth = size.width < NARROW ? NARROW_HEAD : HEAD_WIDTH;
  const [width, height] = [Math.max(0, Math.min(size.width - headWidth, across.length * CELL + 1)), Math.max(0, Math.min(size.height - HEAD_HEIGHT, down.length * CELL + 1))];
  const rows = useVirtualizer({ count: down.length, getScrollElement: () => view, estimateSize: () => CELL, overscan: 6 });
  const columns = useVirtualizer({ count: across.length, getScrollElement: () => view, estimateSize: () => CELL, horizontal: true, overscan: 6 });
  useInView(view, cursor, headWidth);
  const press = (event: React.KeyboardEvent): void => {
    if (event.target !== view || event.altKey) return;
    const at = cursor ?? { row: 0, column: -1 };
    if (event.key === 'Enter' && cursor !== null) {
      event.preventDefault();
      onEnter(cursor);
      return;
    }
    const to = moved(at, event, matrix, { rows: down.length, columns: across.length, page: Math.max(1, Math.floor(height / CELL) - 1) });
    if (to === null) return;
    event.preventDefault();
    onPoint(null);
    onCursor(to);
  };
  const alone = (line: MatrixLine): boolean => line.kind === 'item' && !meeting.basis.has(line.item.id) && !meeting.tests.has(line.item.id);
  return (
    <div
      ref={setView}
      tabIndex={0}
      role="group"
      aria-label={label}
      aria-describedby={describedBy}
      className="min-h-80 flex-1 overflow-auto border-t-2 border-rule outline-none focus-visible:border-t-blue print:hidden"
      onKeyDown={press}
      onFocus={(event) => event.target === view && cursor === null && down.length > 0 && onCursor({ row: 0, column: -1 })}
    >
      <div className="grid" style={{ gridTemplateColumns: `${headWidth}px ${across.length * CELL + 1}px`, gridTemplateRows: `${HEAD_HEIGHT}px ${down.length * CELL + 1}px`, width: headWidth + across.length * CELL + 1 + LEANING }}>
        <div className="sticky left-0 top-0 z-30 border-b border-rule2 bg-page px-6 py-3 max-[800px]:px-2">{corner}</div>
        <div className="sticky top-0 z-20 border-b border-rule2 bg-page" style={{ marginRight: -LEANING }}>
          {columns.getVirtualItems().map(({ index, start }) => {
            const line = across[index];
            return line === undefined ? null : <ColumnHead key={lineName(line)} line={line} left={start} marked={seen?.column === index} alone={alone(line)} onPick={() => pick(line, { row: -1, column: index })} />;
          })}
        </div>
        <div className="sticky left-0 z-20 border-r border-rule2 bg-page">
          {rows.getVirtualItems().map(({ index, start }) => {
            const line = down[index];
            return line === undefined ? null : <RowHead key={lineName(line)} line={line} top={start} marked={seen?.row === index} alone={alone(line)} onPick={() => pick(line, { row: index, column: -1 })} />;
          })}
        </div>
        <div className="min-w-0">
          {view !== null && <CellsCanvas drawn={drawn} seen={seen} view={view} width={width} height={height} headWidth={headWidth} headHeight={HEAD_HEIGHT} onPoint={onPoint} onPick={focusOn} />}
        </div>
      </div>
    </div>
  );

  function focusOn(at: Cursor): void {
    view?.focus();
    onCursor(at);
  }

  function pick(line: MatrixLine, at: Cursor): void {
    focusOn(at);
    if (line.kind === 'heading') onEnter(at);
  }
}

function useSize(view: HTMLElement | null): { readonly width: number; readonly height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    if (view === null) return;
    const observer = new ResizeObserver(() => setSize({ width: view.clientWidth, height: view.clientHeight }));
    observer.observe(view);
    return () => observer.disconnect();
  }, [view]);
  return size;
}

/** Scrolls as far as it takes to see where the cursor is. */
function useInView(view: HTMLElement | null, cursor: Cursor | null, headWidth: number): void {
  const [row, column] = [cursor?.row ?? -1, cursor?.column ?? -1];
  useLayoutEffect(() => {
    if (view === null) return;
    view.scrollTo({
      ...(row < 0 ? {} : { top: seenFrom(view.scrollTop, row * CELL, view.clientHeight - HEAD_HEIGHT) }),
      ...(column < 0 ? {} : { left: seenFrom(view.scrollLeft, column * CELL, view.clientWidth - headWidth) }),
    });
  }, [column, headWidth, row, view]);
}

function seenFrom(scrolled: number, start: number, length: number): number {
  if (start < scrolled) return start;
  return start + CELL > scrolled + length ? start + CELL - length : scrolled;
}
