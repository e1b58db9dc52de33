import { useEffect } from 'react';
import type { CellAt, Selection } from '../grid/index.ts';
import { useLatest } from '../look/index.ts';

/** The focus follows the selected cell, or the field while one edits. */
export function useFocusCell(scroller: React.RefObject<HTMLDivElement | null>, selection: Selection | null, edit: string | null, scrollTo: (at: CellAt) => void): void {
  const editing = edit !== null;
  const [row, column] = selection === null ? [null, null] : [selection.focus.row, selection.focus.column];
  const scroll = useLatest(scrollTo);
  useEffect(() => {
    if (row === null) return;
    const find = (): HTMLElement | null | undefined => scroller.current?.querySelector<HTMLElement>(`[data-cell="${row}/${column}"]`);
    const focus = (cell: HTMLElement): void => (editing ? (cell.querySelector('input') ?? cell) : cell).focus({ preventScroll: !editing });
    const there = find();
    scroll.current({ row, column });
    if (there != null) {
      if (!editing) there.scrollIntoView({ block: 'nearest', inline: 'nearest' });
      focus(there);
      return;
    }
    // It is drawn once it is scrolled to.
    const frame = requestAnimationFrame(() => {
      const cell = find();
      if (cell != null) focus(cell);
    });
    return () => cancelAnimationFrame(frame);
  }, [column, editing, row, scroll, scroller]);
}
