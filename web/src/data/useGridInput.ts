import { MOST_PASTED_CELLS, parsePastedGrid } from '@caderno/core/data';
import type { Row, RowId } from '@caderno/core/cases';
import { useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { countOf, useLatest, locale } from '../look/index.ts';
import { extentOf, moved, within, type CellAt, type Extent, type Selection } from '../grid/index.ts';
import { cleared, copied, withBlock, withoutRows, type CellRange } from './rowEdits.ts';
import { tableOfPaste } from './pastedColumns.ts';
import { cellOf, freshRow, type EditTable, type GridColumn } from './table.ts';

interface Input {
  readonly rows: readonly Row[];
  /** Those that are seen. */
  readonly columns: readonly GridColumn[];
  /** The places of the rows that are seen, in their order. */
  readonly order: readonly number[];
  readonly canEdit: boolean;
  /** Whether no column is hidden: only then is a row that is selected from end to end selected as a whole. */
  readonly isWhole: boolean;
  readonly update: EditTable;
  readonly onChoose: (row: RowId | null) => void;
}

/** What is selected and typed in a grid, and what the keys, the mouse and the clipboard do with it. */
export function useGridInput({ rows, columns, order, canEdit, isWhole, update, onChoose }: Input) {
  const [selection, setSelection] = useState<Selection | null>(null);
  /** What the edited cell began with; null: none is edited. */
  const [edit, setEdit] = useState<string | null>(null);
  /** What stands in its field by now: no key that is typed there draws the grid. */
  const typed = useRef('');
  const [isLeaving, setLeaving] = useState(false);
  const size: CellAt = { row: order.length + (canEdit ? 1 : 0), column: columns.length };
  const extent = selection === null ? null : extentOf(selection);
  /** The places of lines in the table; a line beyond the last is a row to come. */
  const placeOf = (line: number): number => order[line] ?? rows.length + line - order.length;
  const range = extent === null ? null : rangeOf(extent, placeOf, columns);
  const rowAt = (line: number): Row | undefined => rows[order[line] ?? -1];
  const textAt = (at: CellAt): string => {
    const [row, column] = [rowAt(at.row), columns[at.column]];
    return row === undefined || column === undefined ? '' : cellOf(row, column);
  };

  const write = (at: CellAt, block: readonly (readonly string[])[]): void => {
    const places = block.map((_, i) => placeOf(at.row + i));
    const spare = places.flatMap((place) => (place < rows.length ? [] : [freshRow(at.column === 0 ? '' : `row ${place + 1}`)]));
    update((data) => withBlock(data, { rows: places, columns: columns.slice(at.column) }, block, spare));
  };
  const commit = (next: Selection | null): void => {
    if (edit !== null && selection !== null) write(selection.focus, [[typed.current]]);
    setEdit(null);
    if (next !== null) setSelection(next);
  };
  const begin = (text: string): void => {
    if (!canEdit) return;
    typed.current = text;
    setEdit(text);
  };
  const go = (next: Selection): void => {
    commit(next);
    onChoose(rowAt(next.focus.row)?.id ?? null);
  };
  const goTo = (focus: CellAt): void => go({ anchor: focus, focus });
  const shift = (by: number): void => {
    if (selection === null) return;
    const down = (at: CellAt): CellAt => ({ row: Math.max(0, at.row + by), column: at.column });
    setSelection({ anchor: down(selection.anchor), focus: down(selection.focus) });
  };
  const remove = (): void => {
    if (range === null || !canEdit) return;
    const areRows = isWhole && range.columns.length === columns.length;
    update((data) => (areRows ? withoutRows(data, range.rows) : cleared(data, range)));
  };

  /** Answers whether the key meant something while a cell is edited. */
  const editKey = (event: React.KeyboardEvent, at: CellAt): boolean => {
    if (event.key === 'Enter') goTo(within({ row: at.row + (event.shiftKey ? -1 : 1), column: at.column }, size));
    else if (event.key === 'Escape') setEdit(null);
    else return false;
    return true;
  };
  /** The same while none is. */
  const selectKey = (event: React.KeyboardEvent, now: Selection): boolean => {
    const control = event.ctrlKey || event.metaKey;
    const next = moved(now, event.key, { extend: event.shiftKey, control }, { size, page: linesSeen(event.currentTarget), isFilled: (at) => textAt(at) !== '' });
    if (next !== null) go(next);
    else if (control && event.key.toLowerCase() === 'a') setSelection({ anchor: { row: 0, column: 0 }, focus: within({ row: order.length - 1, column: size.column - 1 }, size) });
    else if (event.key === 'Escape') escape(now);
    else if (event.key === 'Enter' || event.key === 'F2') begin(textAt(now.focus));
    else if (event.key === 'Delete' || event.key === 'Backspace') remove();
    else if (event.key.length === 1 && !control && !event.altKey) begin(event.key);
    else return false;
    return true;
  };
  /** First to one cell, then ready to leave: Tab leads out of the grid. */
  const escape = ({ anchor, focus }: Selection): void => {
    if (anchor.row === focus.row && anchor.column === focus.column) setLeaving(true);
    else setSelection({ anchor: focus, focus });
  };
  /** `rowKeys`: what keys do with whole rows, before they do anything else. */
  const keyDown = (event: React.KeyboardEvent, rowKeys: ((event: React.KeyboardEvent) => boolean) | null): void => {
    if (selection === null || !isOfCells(event)) return;
    const tabbed = event.key === 'Tab' && !isLeaving ? tabFrom(selection.focus, event.shiftKey, size) : null;
    if (!MODIFIERS.includes(event.key)) setLeaving(false);
    const isMeant = edit === null && rowKeys?.(event) === true;
    if (tabbed !== null) goTo(tabbed);
    else if (!isMeant && !(edit === null ? selectKey(event, selection) : editKey(event, selection.focus))) return;
    event.preventDefault();
  };
  const copy = (event: React.ClipboardEvent): boolean => {
    if (edit !== null || range === null || !isOfCells(event)) return false;
    event.preventDefault();
    event.clipboardData.setData('text/plain', copied(rows, range));
    return true;
  };
  const cut = (event: React.ClipboardEvent): void => {
    if (copy(event) && range !== null && canEdit) update((data) => cleared(data, range));
  };
  const paste = (event: React.ClipboardEvent): void => {
    if (edit !== null || extent === null || !canEdit || !isOfCells(event)) return;
    event.preventDefault();
    const block = parsePastedGrid(event.clipboardData.getData('text/plain'));
    const cells = block.reduce((n, r) => n + r.length, 0);
    if (cells > MOST_PASTED_CELLS) return void toast.error(`A paste may have ${countOf(MOST_PASTED_CELLS, 'cell')}; this has ${cells.toLocaleString(locale())}. Nothing was pasted.`);
    const hasColumns = columns.some((c) => c.kind === 'parameter') || !isWhole;
    if (!hasColumns && block.some((r) => r.length > 1)) {
      const table = tableOfPaste(block);
      update((data) => ({ ...data, parameters: [...data.parameters, ...table.parameters], rows: [...data.rows, ...table.rows] }));
      toast.success(`${countOf(table.parameters.length, 'column')} and ${countOf(table.rows.length, 'row')} were made of what was pasted.`);
      return;
    }
    const room = size.column - extent.left;
    const widest = block.reduce((most, r) => Math.max(most, r.length), 0);
    if (widest > room) toast.warning(`${countOf(widest - room, 'column')} beyond the last ${widest - room === 1 ? 'was' : 'were'} left out. Add the columns first and paste again.`);
    const start = { row: extent.top, column: extent.left };
    write(start, block.map((r) => r.slice(0, room)));
    // The focus, and with it the view, stays where one pasted.
    setSelection({ anchor: within({ row: extent.top + block.length - 1, column: extent.left + widest - 1 }, { ...size, row: extent.top + block.length }), focus: start });
  };

  const latest = useLatest({ selection, go, commit, begin, textAt });
  const onCell = useMemo(
    () => ({
      select: (focus: CellAt, extend: boolean) => latest.current.go({ anchor: extend && latest.current.selection !== null ? latest.current.selection.anchor : focus, focus }),
      open: (at: CellAt) => latest.current.begin(latest.current.textAt(at)),
      edit: (text: string) => void (typed.current = text),
      leave: () => latest.current.commit(null),
    }),
    [latest],
  );
  return { selection, extent, range, edit, size, rowAt, goTo, shift, keyDown, copy, cut, paste, onCell };
}

function rangeOf(extent: Extent, placeOf: (line: number) => number, columns: readonly GridColumn[]): CellRange {
  return { rows: Array.from({ length: extent.bottom - extent.top + 1 }, (_, i) => placeOf(extent.top + i)), columns: columns.slice(extent.left, extent.right + 1) };
}

/** Where the tab key leads: cell by cell, line by line; null: out of the grid. */
function tabFrom({ row, column }: CellAt, backwards: boolean, size: CellAt): CellAt | null {
  const flat = row * size.column + column + (backwards ? -1 : 1);
  return flat < 0 || flat >= size.row * size.column ? null : { row: Math.floor(flat / size.column), column: flat % size.column };
}

const MODIFIERS = ['Shift', 'Control', 'Alt', 'Meta'];
const LINE_HEIGHT = 32;

/** How many lines a page key goes by. */
function linesSeen(grid: EventTarget & Element): number {
  return Math.max(1, Math.floor(grid.clientHeight / LINE_HEIGHT) - 2);
}

/** Not what is done in a head's menu or dialog, nor in a filter: they stand in the grid, and have keys of their own. */
function isOfCells({ target }: React.SyntheticEvent): boolean {
  return target instanceof Element && target.closest('[data-cell]') !== null;
}
