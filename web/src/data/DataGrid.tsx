import { MOST_PASTED_CELLS, parsePastedGrid } from '@caderno/core/data';
import type { ColumnFilter, Parameter, ParameterId, Row, RowId } from '@caderno/core/cases';
import type { Constants } from '@caderno/core/shared';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { countOf } from '../look/index.ts';
import { ColumnHead } from './ColumnHead.tsx';
import { FindReplace } from './FindReplace.tsx';
import { FilterLine } from './FilterLine.tsx';
import { GridAside } from './GridAside.tsx';
import { GridRow, ROW_HEIGHT, type RowShows } from './GridRow.tsx';
import { RowTools, rowKeys } from './RowTools.tsx';
import type { ColumnCheck } from './columnCheck.ts';
import { extentOf, moved, within, type CellAt, type Selection } from './gridSelection.ts';
import { cleared, copied, withBlock, withoutRows, type CellRange } from './rowEdits.ts';
import { cellOf, freshRow, gridColumns, type DataTable, type EditTable, type GridColumn } from './table.ts';
import { useColumnWindow } from './useColumnWindow.ts';
import { useFocusCell } from './useFocusCell.ts';
import { useLatest } from './useLatest.ts';
import { useRowView } from './useRowView.ts';

interface Props extends DataTable {
  readonly label: string;
  readonly canEdit: boolean;
  readonly update: EditTable;
  readonly shows: ReadonlyMap<RowId, RowShows>;
  readonly chosen: RowId | null;
  readonly onChoose: (row: RowId | null) => void;
  /** The rows that run; null: all but those put aside. */
  readonly running: ReadonlySet<RowId> | null;
  /** All rows of what runs, of which those here may be a part. */
  readonly runnable: readonly Row[];
  /** Makes rows run, and no others; absent: that is not decided here. */
  readonly onRun?: (rows: readonly RowId[]) => void;
  /** Makes the rows run that pass filters; absent: that is not decided here. */
  readonly onRunFilter?: (filters: readonly ColumnFilter[]) => void;
  readonly constants: Constants;
  /** What a condition knows of a column. */
  readonly checks: ReadonlyMap<ParameterId, ColumnCheck>;
  readonly onRename: (parameter: Parameter, name: string) => void;
  readonly onRemoveColumn: (id: ParameterId) => void;
  readonly onAddColumn: (name: string) => void;
}

const LIST_HEIGHT = 420;
/** In longer tables every row is one line high: rows of many heights are slow to scroll. */
const MOST_OF_MANY_HEIGHTS = 400;
const NOTHING_HIDDEN: ReadonlySet<string> = new Set();

/** Data rows with the habits of a spreadsheet. The last line is empty: typing there adds a row. */
export const DataGrid = memo(function DataGrid({ label, rows, parameters, canEdit, update, shows, chosen, onChoose, running, runnable, onRun, onRunFilter, constants, checks, onRename, onRemoveColumn, onAddColumn }: Props) {
  const [selection, setSelection] = useState<Selection | null>(null);
  const [edit, setEdit] = useState<string | null>(null);
  const [finding, setFinding] = useState(false);
  const [filtering, setFiltering] = useState(false);
  const [hidden, setHidden] = useState(NOTHING_HIDDEN);
  const [describing, setDescribing] = useState(false);
  const isDescribed = describing || rows.some((r) => r.description !== '');
  const scroller = useRef<HTMLDivElement>(null);
  const { view, order, isKept, setView } = useRowView(rows, parameters);
  const columns = useMemo(() => gridColumns(parameters, hidden, isDescribed), [hidden, isDescribed, parameters]);
  const lineCount = order.length + (canEdit ? 1 : 0);
  const size: CellAt = { row: lineCount, column: columns.length };
  const isTall = lineCount <= MOST_OF_MANY_HEIGHTS;
  const virtual = useVirtualizer({ count: lineCount, getScrollElement: () => scroller.current, estimateSize: () => ROW_HEIGHT, getItemKey: (i) => rows[order[i] ?? -1]?.id ?? 'next', overscan: 6, useFlushSync: false });
  const { drawn, isPart, template, scrollTo } = useColumnWindow(scroller, columns);
  const extent = selection === null ? null : extentOf(selection);
  /** The places of lines in the table; a line beyond the last is a row to come. */
  const placeOf = (line: number): number => order[line] ?? rows.length + line - order.length;
  const range: CellRange | null = extent === null ? null : { rows: Array.from({ length: extent.bottom - extent.top + 1 }, (_, i) => placeOf(extent.top + i)), columns: columns.slice(extent.left, extent.right + 1) };
  const rowAt = (line: number): Row | undefined => rows[order[line] ?? -1];
  useFocusCell(scroller, selection, edit, (at) => (virtual.scrollToIndex(at.row), scrollTo(at.column)));

  const write = (at: CellAt, block: readonly (readonly string[])[]): void => {
    const places = block.map((_, i) => placeOf(at.row + i));
    const spare = places.flatMap((place) => (place < rows.length ? [] : [freshRow(at.column === 0 ? '' : `row ${place + 1}`)]));
    update((data) => withBlock(data, { rows: places, columns: columns.slice(at.column) }, block, spare));
  };
  const commit = (next: Selection | null): void => {
    if (edit !== null && selection !== null) write(selection.focus, [[edit]]);
    setEdit(null);
    if (next !== null) setSelection(next);
  };
  const beginEdit = (text: string): void => {
    if (canEdit) setEdit(text);
  };
  const go = (next: Selection): void => {
    commit(next);
    onChoose(rowAt(next.focus.row)?.id ?? null);
  };
  const select = (focus: CellAt, extend: boolean): void => go({ anchor: extend && selection !== null ? selection.anchor : focus, focus });
  const textAt = (at: CellAt): string => {
    const [row, column] = [rowAt(at.row), columns[at.column]];
    return row === undefined || column === undefined ? '' : cellOf(row, column);
  };
  const shift = (by: number): void => {
    if (selection === null) return;
    const down = (at: CellAt): CellAt => ({ row: Math.max(0, at.row + by), column: at.column });
    setSelection({ anchor: down(selection.anchor), focus: down(selection.focus) });
  };
  const tools = range === null || extent === null ? null : { rows, range, first: extent.top, isKept, update, running, runnable, ...(onRun === undefined ? {} : { onRun }), onShift: shift, onFind: () => setFinding(true) };
  const keyDown = (event: React.KeyboardEvent): void => {
    if (selection === null || !isOfCells(event)) return;
    if (canEdit && edit === null && tools !== null && rowKeys(event, tools)) return event.preventDefault();
    const at = selection.focus;
    const step = (rowStep: number): void => {
      const focus = within({ row: at.row + rowStep, column: at.column }, size);
      go({ anchor: focus, focus });
    };
    const arrows = edit === null ? moved(selection, event.key, size, event.shiftKey, event.ctrlKey || event.metaKey) : null;
    if (arrows !== null) go(arrows);
    else if (event.key === 'Enter' && edit === null) beginEdit(textAt(at));
    else if (event.key === 'Enter') step(event.shiftKey ? -1 : 1);
    else if (event.key === 'Tab' && (event.shiftKey ? at.column > 0 || at.row > 0 : at.column < size.column - 1 || at.row < size.row - 1)) {
      const flat = at.row * size.column + at.column + (event.shiftKey ? -1 : 1);
      const focus = { row: Math.floor(flat / size.column), column: flat % size.column };
      go({ anchor: focus, focus });
    } else if (event.key === 'Escape' && edit !== null) setEdit(null);
    else if (event.key === 'F2') beginEdit(textAt(at));
    else if ((event.key === 'Delete' || event.key === 'Backspace') && edit === null && canEdit && range !== null) {
      const whole = range.columns.length === columns.length;
      update((data) => (whole ? withoutRows(data, range.rows) : cleared(data, range)));
    } else if (edit === null && event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) beginEdit(event.key);
    else return;
    event.preventDefault();
  };
  const copy = (event: React.ClipboardEvent): void => {
    if (edit !== null || range === null || !isOfCells(event)) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', copied(rows, range));
  };
  const cut = (event: React.ClipboardEvent): void => {
    copy(event);
    if (isOfCells(event) && edit === null && range !== null && canEdit) update((data) => cleared(data, range));
  };
  const paste = (event: React.ClipboardEvent): void => {
    if (edit !== null || extent === null || !canEdit || !isOfCells(event)) return;
    event.preventDefault();
    const block = parsePastedGrid(event.clipboardData.getData('text/plain'));
    const cells = block.reduce((n, r) => n + r.length, 0);
    if (cells > MOST_PASTED_CELLS) return void toast.error(`A paste may have ${countOf(MOST_PASTED_CELLS, 'cell')}; this has ${cells.toLocaleString()}. Nothing was pasted.`);
    const room = size.column - extent.left;
    const widest = block.reduce((most, r) => Math.max(most, r.length), 0);
    if (widest > room) toast.warning(`${countOf(widest - room, 'column')} beyond the last ${widest - room === 1 ? 'was' : 'were'} left out. Add the columns first and paste again.`);
    write({ row: extent.top, column: extent.left }, block.map((r) => r.slice(0, room)));
    const end = within({ row: extent.top + block.length - 1, column: extent.left + widest - 1 }, { ...size, row: extent.top + block.length });
    // The view stays where one pasted.
    setSelection({ anchor: end, focus: { row: extent.top, column: extent.left } });
  };
  const latest = useLatest({ select, commit, beginEdit, textAt });
  const onCell = useMemo(
    () => ({
      select: (at: CellAt, extend: boolean) => latest.current.select(at, extend),
      open: (at: CellAt) => latest.current.beginEdit(latest.current.textAt(at)),
      edit: setEdit,
      leave: () => latest.current.commit(null),
    }),
    [latest],
  );
  const head = (column: GridColumn, at: number) => (
    <ColumnHead
      key={column.kind === 'parameter' ? column.parameter.id : column.kind}
      column={column}
      at={at}
      check={column.kind === 'parameter' ? checks.get(column.parameter.id) : undefined}
      view={view}
      canEdit={canEdit}
      update={update}
      onView={setView}
      onFilter={() => setFiltering(true)}
      onRename={onRename}
      onRemove={onRemoveColumn}
      onHide={(id) => setHidden((now) => new Set([...now, id]))}
    />
  );
  return (
    <>
      {/* What stands below has keys of its own. */}
      <div onKeyDown={keyDown} onCopy={copy} onCut={cut} onPaste={paste} className="text-sm">
        <div ref={scroller} role="grid" aria-label={label} aria-rowcount={lineCount + 1} aria-colcount={size.column + 2} tabIndex={-1} className="overflow-auto outline-none" style={{ maxHeight: LIST_HEIGHT }}>
          <div role="row" aria-rowindex={1} className="sticky top-0 z-20 grid min-w-fit border-b border-ink2 bg-page text-xs text-ink2" style={{ gridTemplateColumns: template }}>
            <span role="columnheader" aria-label="mark" className="sticky left-0 bg-page px-1" />
            {columns.slice(0, 1).map(head)}
            {isPart && <span role="presentation" />}
            {drawn.map(({ column, at }) => head(column, at))}
            {isPart && <span role="presentation" />}
            <span role="columnheader" className="flex items-center px-2 font-mono text-[11px] font-medium">
              shows
            </span>
          </div>
          {filtering && <FilterLine columns={columns} drawn={drawn} isPart={isPart} template={template} view={view} onView={setView} onClose={() => setFiltering(false)} />}
          <div role="rowgroup" className="relative min-w-fit" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map((item) => {
              const row = rowAt(item.index);
              const focus = selection !== null && selection.focus.row === item.index ? selection.focus.column : null;
              const isSelected = extent !== null && item.index >= extent.top && item.index <= extent.bottom;
              return (
                <GridRow
                  key={row?.id ?? 'next'}
                  measure={isTall ? virtual.measureElement : null}
                  line={item.index}
                  start={item.start}
                  row={row}
                  drawn={drawn}
                  isPart={isPart}
                  template={template}
                  shown={row === undefined ? undefined : shows.get(row.id)}
                  constants={constants}
                  checks={checks}
                  runs={row === undefined || (running === null ? !row.aside : running.has(row.id))}
                  isChosen={row !== undefined && row.id === chosen}
                  focus={focus}
                  tabStop={focus ?? (selection === null && item.index === 0 ? 0 : null)}
                  from={isSelected ? extent.left : null}
                  to={isSelected ? extent.right : null}
                  edit={focus === null ? null : edit}
                  onCell={onCell}
                />
              );
            })}
          </div>
        </div>
        {[...checks].map(([id, check]) => (
          <datalist key={id} id={`values-${id}`}>
            {check.values.map((value) => (
              <option key={value} value={value} />
            ))}
          </datalist>
        ))}
      </div>
      <GridAside isKept={isKept} seen={order.length} all={rows.length} hidden={hidden} parameters={parameters} canEdit={canEdit} onRunFiltered={onRunFilter === undefined || view.filters.every((f) => f.text.trim() === '') ? null : () => onRunFilter(view.filters.filter((f) => f.text.trim() !== ''))} onAsKept={() => (setView({ sort: null, filters: [] }), setFiltering(false))} onAgain={() => setView(view)} onShow={() => setHidden(NOTHING_HIDDEN)} onAddColumn={onAddColumn} onDescribe={isDescribed || rows.length === 0 ? null : () => setDescribing(true)} />
      {(canEdit || onRun !== undefined) && tools !== null && <RowTools canEdit={canEdit} {...tools} />}
      {finding && <FindReplace rows={rows} columns={columns} update={update} onGo={({ row, column }) => { const line = order.indexOf(row); if (line >= 0) go({ anchor: { row: line, column }, focus: { row: line, column } }); }} onClose={() => setFinding(false)} />}
    </>
  );
});

/** Not what is done in a head's menu or dialog, nor in a filter: they stand in the grid, and have keys of their own. */
function isOfCells({ target }: React.SyntheticEvent): boolean {
  return target instanceof Element && target.closest('[data-cell]') !== null;
}
