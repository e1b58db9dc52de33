import type { Row, RowId, RowMark } from '@caderno/core/cases';
import { TextButton } from '../look/index.ts';
import { duplicated, filled, withRowsMarked, withRowsMoved, withoutRows, type CellRange } from './rowEdits.ts';
import { freshRow, type EditTable } from './table.ts';

interface Doing {
  readonly rows: readonly Row[];
  readonly range: CellRange;
  /** The first selected line. */
  readonly first: number;
  /** Whether all rows are seen in the order they are kept: only then do up and down mean something. */
  readonly isKept: boolean;
  readonly update: EditTable;
  readonly running: ReadonlySet<RowId> | null;
  /** All rows of what runs. */
  readonly runnable: readonly Row[];
  readonly onRun?: (rows: readonly RowId[]) => void;
  /** The rows moved, or a copy of them was put in: the selection goes along. */
  readonly onShift: (by: number) => void;
  readonly onFind: () => void;
}

const MARKS: readonly { readonly mark: RowMark | null; readonly word: string }[] = [{ mark: 'valid', word: 'valid' }, { mark: 'invalid', word: 'invalid' }, { mark: null, word: 'unmarked' }];

interface Props extends Doing {
  readonly canEdit: boolean;
}

/** What can be done with the rows that are selected, most of it also by keys. */
export function RowTools({ canEdit, rows, range, first, isKept, update, running, runnable, onRun, onShift, onFind }: Props) {
  const places = placesThere(range, rows);
  const selected = places.flatMap((place) => rows[place] ?? []);
  if (places.length === 0) return null;
  const several = places.length > 1;
  return (
    <div role="toolbar" aria-label="Selected rows" className="mt-1 flex flex-wrap items-baseline gap-x-3.5 gap-y-1 text-xs text-ink2">
      <span>{several ? `rows ${first + 1}–${first + places.length}` : `row ${first + 1}`}</span>
      {canEdit && (
        <>
          <TextButton onClick={() => onShift(duplicateRows(update, places))}>duplicate</TextButton>
          <TextButton title="Alt ↑" disabled={!isKept || places[0] === 0} onClick={() => moveRows(update, places, -1, onShift)}>
            up
          </TextButton>
          <TextButton title="Alt ↓" disabled={!isKept || places.at(-1) === rows.length - 1} onClick={() => moveRows(update, places, 1, onShift)}>
            down
          </TextButton>
          <TextButton onClick={() => update((data) => withoutRows(data, places))}>remove</TextButton>
          {several && (
            <>
              <TextButton title="Ctrl D" onClick={() => update((data) => filled(data, range, 'same'))}>
                fill down
              </TextButton>
              <TextButton title="Ctrl Shift D" onClick={() => update((data) => filled(data, range, 'series'))}>
                series
              </TextButton>
            </>
          )}
          <Marks update={update} selected={selected} places={places} />
        </>
      )}
      {onRun !== undefined && <Runs rows={runnable} selected={selected} running={running} onRun={onRun} />}
      {canEdit && (
        <TextButton title="Ctrl F" onClick={onFind}>
          find and replace
        </TextButton>
      )}
    </div>
  );
}

function Marks({ update, selected, places }: { readonly update: EditTable; readonly selected: readonly Row[]; readonly places: readonly number[] }) {
  const isAside = selected.every((r) => r.aside);
  return (
    <>
      <span>
        mark{' '}
        {MARKS.filter((m) => selected.some((r) => r.mark !== m.mark)).map((m) => (
          <TextButton key={m.word} className="mr-2" onClick={() => update((data) => withRowsMarked(data, places, { mark: m.mark }))}>
            {m.word}
          </TextButton>
        ))}
      </span>
      <TextButton title="Kept, but neither run nor counted" onClick={() => update((data) => withRowsMarked(data, places, { aside: !isAside }))}>
        {isAside ? 'Use again' : 'Set aside'}
      </TextButton>
    </>
  );
}

function Runs({ rows, selected, running, onRun }: { readonly rows: readonly Row[]; readonly selected: readonly Row[]; readonly running: ReadonlySet<RowId> | null; readonly onRun: (rows: readonly RowId[]) => void }) {
  const ids = selected.filter((r) => !r.aside).map((r) => r.id);
  const now = running === null ? rows.filter((r) => !r.aside).map((r) => r.id) : rows.filter((r) => running.has(r.id)).map((r) => r.id);
  const all = ids.every((id) => now.includes(id));
  if (ids.length === 0) return null;
  return (
    <>
      <TextButton onClick={() => onRun(ids)}>run only {ids.length === 1 ? 'this' : 'these'}</TextButton>
      <TextButton onClick={() => onRun(all ? now.filter((id) => !ids.includes(id)) : [...now, ...ids])}>{all ? 'do not run' : 'run too'}</TextButton>
    </>
  );
}

/** The selected rows that are there: the last line is where one types the next. */
function placesThere(range: CellRange, rows: readonly Row[]): readonly number[] {
  return range.rows.filter((place) => place < rows.length);
}

/** Answers how far down the copies stand. */
function duplicateRows(update: EditTable, places: readonly number[]): number {
  // Made once, outside the update, which may run twice.
  const spare = places.map(() => freshRow(''));
  update((data) => duplicated(data, places, spare));
  return places.length;
}

function moveRows(update: EditTable, places: readonly number[], direction: -1 | 1, onShift: (by: number) => void): void {
  update((data) => withRowsMoved(data, places, direction));
  onShift(direction);
}

/** The same by keys; answers whether the keys meant something. */
export function rowKeys(event: React.KeyboardEvent, { rows, range, isKept, update, onShift, onFind }: Doing): boolean {
  const control = event.ctrlKey || event.metaKey;
  const places = placesThere(range, rows);
  if (control && event.key.toLowerCase() === 'f') {
    onFind();
    return true;
  }
  if (control && event.key.toLowerCase() === 'd') {
    if (places.length > 0) update((data) => filled(data, range, event.shiftKey ? 'series' : 'same'));
    return true;
  }
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    const direction = event.key === 'ArrowUp' ? -1 : 1;
    const hasPlace = isKept && places.length > 0 && rows[(direction === -1 ? (places[0] ?? 0) : (places.at(-1) ?? 0)) + direction] !== undefined;
    if (hasPlace) moveRows(update, places, direction, onShift);
    return true;
  }
  return false;
}
