import type { VirtualItem, Virtualizer } from '@tanstack/react-virtual';

/** Lines of a long list that are put on paper. */
const MOST_PRINTED = 3_000;

/** The lines of a long list that are to be drawn: those in view, or on paper all of them, one after the other. */
export function drawnLines(lines: Pick<Virtualizer<HTMLDivElement, Element>, 'getVirtualItems' | 'options'>, printing: boolean): readonly Pick<VirtualItem, 'index' | 'key' | 'start'>[] {
  if (!printing) return lines.getVirtualItems();
  return Array.from({ length: Math.min(MOST_PRINTED, lines.options.count) }, (_, index) => ({ index, key: lines.options.getItemKey(index), start: 0 }));
}
