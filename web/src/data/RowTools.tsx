import type { CaseContent, Row } from '@caderno/core/cases';
import { TextButton } from '../look/index.ts';
import type { Extent } from './gridSelection.ts';
import { duplicated, filled, newRow, withRowsMoved, withoutRows } from './rowEdits.ts';

type Update = (change: (content: CaseContent) => CaseContent) => void;

interface Props {
  readonly rows: readonly Row[];
  readonly extent: Extent;
  readonly update: Update;
  /** The rows moved, or a copy of them was put in: the selection goes along. */
  readonly onShift: (by: number) => void;
  readonly onFind: () => void;
}

/** What can be done with the cells that are selected, each also by keys. */
export function RowTools({ rows, extent, update, onShift, onFind }: Props) {
  const bottom = Math.min(extent.bottom, rows.length - 1);
  const several = bottom > extent.top;
  const range = several ? `rows ${extent.top + 1}–${bottom + 1}` : `row ${extent.top + 1}`;
  if (extent.top >= rows.length) return null;
  return (
    <div role="toolbar" aria-label="Selected rows" className="mt-1 flex flex-wrap items-baseline gap-x-3.5 text-xs text-ink2">
      <span>{range}</span>
      <TextButton onClick={() => onShift(duplicateRows(update, extent))}>duplicate</TextButton>
      <TextButton title="Alt ↑" disabled={extent.top === 0} onClick={() => moveRows(update, extent, -1, onShift)}>
        up
      </TextButton>
      <TextButton title="Alt ↓" disabled={bottom === rows.length - 1} onClick={() => moveRows(update, extent, 1, onShift)}>
        down
      </TextButton>
      <TextButton onClick={() => update((c) => withoutRows(c, extent))}>remove</TextButton>
      {several && (
        <>
          <TextButton title="Ctrl D" onClick={() => update((c) => filled(c, extent, 'same'))}>
            fill down
          </TextButton>
          <TextButton title="Ctrl Shift D" onClick={() => update((c) => filled(c, extent, 'series'))}>
            series
          </TextButton>
        </>
      )}
      <TextButton title="Ctrl F" onClick={onFind}>
        find and replace
      </TextButton>
    </div>
  );
}

/** Answers how far down the copies stand. */
function duplicateRows(update: Update, extent: Extent): number {
  const size = extent.bottom - extent.top + 1;
  // Made once, outside the update, which may run twice.
  const spare = Array.from({ length: size }, () => newRow(''));
  update((c) => duplicated(c, extent, spare));
  return size;
}

function moveRows(update: Update, extent: Extent, direction: -1 | 1, onShift: (by: number) => void): void {
  update((c) => withRowsMoved(c, extent, direction));
  onShift(direction);
}

/** The same by keys; answers whether the keys meant something. */
export function rowKeys(event: React.KeyboardEvent, { rows, extent, update, onShift, onFind }: Props): boolean {
  const control = event.ctrlKey || event.metaKey;
  if (control && event.key.toLowerCase() === 'f') {
    onFind();
    return true;
  }
  if (control && event.key.toLowerCase() === 'd') {
    if (extent.top < rows.length) update((c) => filled(c, extent, event.shiftKey ? 'series' : 'same'));
    return true;
  }
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    const direction = event.key === 'ArrowUp' ? -1 : 1;
    const hasPlace = direction === -1 ? extent.top > 0 && extent.top < rows.length : extent.bottom < rows.length - 1;
    if (hasPlace) moveRows(update, extent, direction, onShift);
    return true;
  }
  return false;
}
