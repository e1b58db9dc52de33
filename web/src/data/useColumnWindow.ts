import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo } from 'react';
import type { GridColumn } from './table.ts';

/** A column that is drawn, and its place among all that are seen. */
export interface DrawnColumn {
  readonly column: GridColumn;
  readonly at: number;
}

/** What is drawn of the columns beside the row's name, how wide the grid's parts are, and how to bring a column into view. */
export interface ColumnWindow {
  readonly drawn: readonly DrawnColumn[];
  /** Whether room for columns that are not drawn stands before and behind those that are. */
  readonly isPart: boolean;
  readonly template: string;
  readonly scrollTo: (at: number) => void;
}

/** With more columns only those in view are drawn: a row of many is slow to make. */
const MOST_DRAWN = 14;
const WIDTH = 96;
export const MARK_WIDTH = 26;
const NAME_WIDTH = 120;
const SHOWS_WIDTH = 180;

/** Wide enough for a date on one line: two lines each would halve the rows in view. */
function narrowest(column: GridColumn): number {
  if (column.kind === 'description') return 96;
  const type = column.kind === 'parameter' ? column.parameter.type : 'text';
  return type === 'date' ? 92 : type === 'dateTime' ? 132 : 76;
}

export function useColumnWindow(scroller: React.RefObject<HTMLDivElement | null>, columns: readonly GridColumn[]): ColumnWindow {
  const isPart = columns.length > MOST_DRAWN;
  const beside = columns.length - 1;
  const virtual = useVirtualizer({
    horizontal: true,
    count: isPart ? beside : 0,
    getScrollElement: () => scroller.current,
    estimateSize: () => WIDTH,
    paddingStart: MARK_WIDTH + NAME_WIDTH,
    scrollPaddingStart: MARK_WIDTH + NAME_WIDTH,
    overscan: 3,
    useFlushSync: false,
  });
  const items = virtual.getVirtualItems();
  const [first, last] = isPart ? [items[0]?.index ?? 0, items.at(-1)?.index ?? MOST_DRAWN] : [0, beside - 1];
  return useMemo(() => {
    const drawn = columns.slice(1 + first, 2 + last).map((column, i) => ({ column, at: 1 + first + i }));
    const template = isPart
      ? `${MARK_WIDTH}px ${NAME_WIDTH}px ${first * WIDTH}px repeat(${drawn.length}, ${WIDTH}px) ${(beside - 1 - last) * WIDTH}px ${SHOWS_WIDTH}px`
      : [`${MARK_WIDTH}px`, 'minmax(88px,1.1fr)', ...drawn.map(({ column }) => `minmax(${narrowest(column)}px,1fr)`), 'minmax(112px,1.3fr)'].join(' ');
    return { drawn, isPart, template, scrollTo: (at: number) => void (isPart && at > 0 && virtual.scrollToIndex(at - 1)) };
  }, [beside, columns, first, isPart, last, virtual]);
}
