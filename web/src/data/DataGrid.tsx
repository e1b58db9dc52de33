import type { ColumnFilter, Parameter, ParameterId, Row, RowId } from '@caderno/core/cases';
import type { Constants } from '@caderno/core/shared';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useCallback, useMemo, useRef, useState } from 'react';
import { FindReplace } from './FindReplace.tsx';
import { GridAside } from './GridAside.tsx';
import { GridHead } from './GridHead.tsx';
import { GridRow, ROW_HEIGHT, type RowShows } from './GridRow.tsx';
import { RowTools, rowKeys } from './RowTools.tsx';
import type { ColumnCheck } from './columnCheck.ts';
import { drawnLines, usePrinting } from '../look/index.ts';
import { AS_KEPT } from './rowView.ts';
import { gridColumns, type DataTable, type EditTable } from './table.ts';
import { useColumnWindow } from './useColumnWindow.ts';
import { useFocusCell } from './useFocusCell.ts';
import { useGridInput } from './useGridInput.ts';
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
  const [finding, setFinding] = useState(false);
  const [hidden, setHidden] = useState(NOTHING_HIDDEN);
  const hide = useCallback((id: string) => setHidden((now) => new Set([...now, id])), []);
  const [describing, setDescribing] = useState(false);
  const isDescribed = describing || rows.some((r) => r.description !== '');
  const scroller = useRef<HTMLDivElement>(null);
  const { view, order, isKept, setView } = useRowView(rows, parameters);
  const columns = useMemo(() => gridColumns(parameters, hidden, isDescribed), [hidden, isDescribed, parameters]);
  const { selection, extent, range, edit, size, rowAt, goTo, shift, keyDown, copy, cut, paste, onCell } = useGridInput({ rows, columns, order, canEdit, isWhole: hidden.size === 0, update, onChoose });
  const printing = usePrinting();
  const isTall = size.row <= MOST_OF_MANY_HEIGHTS;
  const virtual = useVirtualizer({ count: size.row, getScrollElement: () => scroller.current, estimateSize: () => ROW_HEIGHT, getItemKey: (i) => rowAt(i)?.id ?? 'next', overscan: 6, useFlushSync: false });
  const seen = useColumnWindow(scroller, columns);
  useFocusCell(scroller, selection, edit, (at) => (virtual.scrollToIndex(at.row), seen.scrollTo(at.column)));

  const tools = range === null || extent === null ? null : { rows, range, first: extent.top, isKept, update, running, runnable, ...(onRun === undefined ? {} : { onRun }), onShift: shift, onFind: () => setFinding(true) };
  const filters = view.filters.filter((f) => f.text.trim() !== '');
  return (
    <>
      {/* What stands below has keys of its own. */}
      <div onKeyDown={(event) => keyDown(event, canEdit && tools !== null ? (e) => rowKeys(e, tools) : null)} onCopy={copy} onCut={cut} onPaste={paste} className="text-sm">
        <div ref={scroller} role="grid" aria-label={label} aria-rowcount={size.row + 1} aria-colcount={size.column + 2} tabIndex={-1} className="overflow-auto outline-none" style={{ maxHeight: LIST_HEIGHT }}>
          <GridHead seen={seen} checks={checks} view={view} canEdit={canEdit} update={update} onView={setView} onRename={onRename} onRemoveColumn={onRemoveColumn} onHide={hide} />
          <div role="rowgroup" data-lines className="relative min-w-fit" style={{ height: virtual.getTotalSize() }}>
            {drawnLines(virtual, printing).map((item) => {
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
                  drawn={seen.drawn}
                  isPart={seen.isPart}
                  template={seen.template}
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
      <GridAside
        isKept={isKept}
        seen={order.length}
        all={rows.length}
        hidden={hidden}
        parameters={parameters}
        canEdit={canEdit}
        onRunFiltered={onRunFilter === undefined || filters.length === 0 ? null : () => onRunFilter(filters)}
        onAsKept={() => setView(AS_KEPT.view)}
        onAgain={() => setView(view)}
        onShow={() => setHidden(NOTHING_HIDDEN)}
        onAddColumn={onAddColumn}
        onDescribe={isDescribed || rows.length === 0 ? null : () => setDescribing(true)}
      />
      {(canEdit || onRun !== undefined) && tools !== null && <RowTools canEdit={canEdit} {...tools} />}
      {finding && <FindReplace rows={rows} columns={columns} update={update} onGo={({ row, column }) => order.includes(row) && goTo({ row: order.indexOf(row), column })} onClose={() => setFinding(false)} />}
    </>
  );
});
