import { fitsType, type CaseContent, type Parameter, type Row, type RowId } from '@caderno/core/cases';
import { MOST_PASTED_CELLS, parsePastedGrid } from '@caderno/core/data';
import type { Standing } from '@caderno/core/coverage';
import { createColumnHelper, flexRender, getCoreRowModel, useReactTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { PARAMETER_TYPE_WORD, StandingShape, countOf } from '../look/index.ts';
import { FindReplace } from './FindReplace.tsx';
import { RowTools, rowKeys } from './RowTools.tsx';
import { extentOf, holds, moved, within, type CellAt, type Selection } from './gridSelection.ts';
import { cellOf, cleared, copied, newRow, withBlock, withoutRows } from './rowEdits.ts';

/** What a row shows, in words, and its mark. */
export interface RowShows {
  readonly standing: Standing | null;
  readonly words: string;
}

interface Props {
  readonly rows: readonly Row[];
  readonly parameters: readonly Parameter[];
  readonly canEdit: boolean;
  readonly update: (change: (content: CaseContent) => CaseContent) => void;
  readonly shows: ReadonlyMap<RowId, RowShows>;
  readonly chosen: RowId | null;
  readonly onChoose: (row: RowId | null) => void;
}

const ROW_HEIGHT = 33;
const LIST_HEIGHT = 420;

/** The grid's own line: where one types the next row. */
interface Line {
  readonly id: RowId | null;
  readonly index: number;
}

const helper = createColumnHelper<Line>();

/** A case's own data rows with the habits of a spreadsheet. The last line is empty: typing there adds a row. */
export const DataGrid = memo(function DataGrid({ rows, parameters, canEdit, update, shows, chosen, onChoose }: Props) {
  const [selection, setSelection] = useState<Selection | null>(null);
  const [edit, setEdit] = useState<string | null>(null);
  const [finding, setFinding] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  const lines = useMemo<Line[]>(() => [...rows.map((r, index) => ({ id: r.id, index })), ...(canEdit ? [{ id: null, index: rows.length }] : [])], [canEdit, rows]);
  const size: CellAt = { row: lines.length, column: parameters.length + 1 };
  const columns = useMemo(() => [helper.display({ id: 'name', header: 'row' }), ...parameters.map((p) => helper.display({ id: p.id, header: `<${p.name}>` }))], [parameters]);
  const table = useReactTable({ data: lines, columns, getCoreRowModel: getCoreRowModel(), getRowId: (line) => line.id ?? 'next' });
  const virtual = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: () => ROW_HEIGHT, getItemKey: (i) => lines[i]?.id ?? 'next', overscan: 10 });
  const extent = selection === null ? null : extentOf(selection);

  useFocusCell(scroller, selection, edit, (row) => virtual.scrollToIndex(row));

  const write = (at: CellAt, block: readonly (readonly string[])[]): void => {
    const spare = block.map((_, i) => newRow(at.column === 0 ? '' : `row ${at.row + i + 1}`));
    update((c) => withBlock(c, at, block, spare));
  };
  const commit = (next: Selection | null): void => {
    if (edit !== null && selection !== null) write(selection.focus, [[edit]]);
    setEdit(null);
    if (next !== null) setSelection(next);
  };
  const beginEdit = (text: string): void => {
    if (canEdit) setEdit(text);
  };
  const select = (focus: CellAt, extend: boolean): void => {
    commit({ anchor: extend && selection !== null ? selection.anchor : focus, focus });
    onChoose(rows[focus.row]?.id ?? null);
  };
  const go = (next: Selection): void => {
    commit(next);
    onChoose(rows[next.focus.row]?.id ?? null);
  };
  const shift = (by: number): void => {
    if (selection === null) return;
    const down = (at: CellAt): CellAt => ({ row: Math.max(0, at.row + by), column: at.column });
    setSelection({ anchor: down(selection.anchor), focus: down(selection.focus) });
  };
  const tools = extent === null ? null : { rows, extent, update, onShift: shift, onFind: () => setFinding(true) };
  const keyDown = (event: React.KeyboardEvent): void => {
    if (selection === null) return;
    if (canEdit && edit === null && tools !== null && rowKeys(event, tools)) return event.preventDefault();
    const at = selection.focus;
    const step = (rowStep: number, columnStep: number): void => {
      const focus = within({ row: at.row + rowStep, column: at.column + columnStep }, size);
      go({ anchor: focus, focus });
    };
    const arrows = edit === null ? moved(selection, event.key, size, event.shiftKey, event.ctrlKey || event.metaKey) : null;
    if (arrows !== null) go(arrows);
    else if (event.key === 'Enter' && edit === null) beginEdit(cellAtLine(rows, parameters, at));
    else if (event.key === 'Enter') step(event.shiftKey ? -1 : 1, 0);
    else if (event.key === 'Tab' && (event.shiftKey ? at.column > 0 || at.row > 0 : at.column < size.column - 1 || at.row < size.row - 1)) {
      const flat = at.row * size.column + at.column + (event.shiftKey ? -1 : 1);
      const focus = { row: Math.floor(flat / size.column), column: flat % size.column };
      go({ anchor: focus, focus });
    } else if (event.key === 'Escape' && edit !== null) setEdit(null);
    else if (event.key === 'F2') beginEdit(cellAtLine(rows, parameters, at));
    else if ((event.key === 'Delete' || event.key === 'Backspace') && edit === null && canEdit && extent !== null) {
      const whole = extent.left === 0 && extent.right === size.column - 1;
      update((c) => (whole ? withoutRows(c, extent) : cleared(c, extent)));
    } else if (edit === null && event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) beginEdit(event.key);
    else return;
    event.preventDefault();
  };
  const copy = (event: React.ClipboardEvent): void => {
    if (edit !== null || extent === null) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', copied(rows, parameters, extent));
  };
  const cut = (event: React.ClipboardEvent): void => {
    copy(event);
    if (edit === null && extent !== null && canEdit) update((c) => cleared(c, extent));
  };
  const paste = (event: React.ClipboardEvent): void => {
    if (edit !== null || extent === null || !canEdit) return;
    event.preventDefault();
    const block = parsePastedGrid(event.clipboardData.getData('text/plain'));
    const cells = block.reduce((n, r) => n + r.length, 0);
    if (cells > MOST_PASTED_CELLS) return void toast.error(`A paste may have ${countOf(MOST_PASTED_CELLS, 'cell')}; this has ${cells.toLocaleString()}. Nothing was pasted.`);
    const room = size.column - extent.left;
    const wide = Math.max(...block.map((r) => r.length)) - room;
    if (wide > 0) toast.warning(`${countOf(wide, 'column')} beyond the last parameter ${wide === 1 ? 'was' : 'were'} left out. Declare the parameters first and paste again.`);
    write({ row: extent.top, column: extent.left }, block.map((r) => r.slice(0, room)));
    const focus = within({ row: extent.top + block.length - 1, column: extent.left + Math.max(...block.map((r) => r.length)) - 1 }, { ...size, row: extent.top + block.length });
    setSelection({ anchor: { row: extent.top, column: extent.left }, focus });
  };
  const template = ['22px', 'minmax(84px,1.1fr)', ...parameters.map(() => 'minmax(80px,1fr)'), 'minmax(112px,1.3fr)'].join(' ');
  return (
    <>
      {/* What stands below has keys of its own. */}
      <div onKeyDown={keyDown} onCopy={copy} onCut={cut} onPaste={paste} className="text-sm">
        <div ref={scroller} role="grid" aria-label="Data rows" aria-rowcount={lines.length + 1} aria-colcount={size.column + 2} tabIndex={-1} className="overflow-auto outline-none" style={{ maxHeight: LIST_HEIGHT }}>
          <div role="row" className="sticky top-0 z-10 grid min-w-fit border-b border-ink2 bg-page text-xs text-ink2" style={{ gridTemplateColumns: template }}>
            <span role="columnheader" aria-label="mark" className="px-1" />
            {table.getFlatHeaders().map((header) => (
              <span key={header.id} role="columnheader" className="truncate px-2 py-1.5 font-mono text-[11px] font-medium">
                {flexRender(header.column.columnDef.header, header.getContext())}
              </span>
            ))}
            <span role="columnheader" className="px-2 py-1.5 font-mono font-medium">
              shows
            </span>
          </div>
          <div role="rowgroup" className="relative min-w-fit" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map((item) => {
              const line = table.getRowModel().rows[item.index]?.original;
              if (line === undefined) return null;
              const row = line.id === null ? undefined : rows[line.index];
              const shown = row === undefined ? undefined : shows.get(row.id);
              return (
                <div
                  key={line.id ?? 'next'}
                  ref={virtual.measureElement}
                  data-index={item.index}
                  role="row"
                  aria-rowindex={line.index + 2}
                  aria-selected={row !== undefined && row.id === chosen}
                  className={`absolute inset-x-0 grid border-b border-rule ${row !== undefined && row.id === chosen ? 'bg-marker-wash' : ''}`}
                  style={{ gridTemplateColumns: template, top: item.start, minHeight: ROW_HEIGHT }}
                >
                  <span role="gridcell" className="grid place-items-center">
                    {shown?.standing != null && <StandingShape standing={shown.standing} />}
                  </span>
                  {Array.from({ length: size.column }, (_, column) => {
                    const at = { row: line.index, column };
                    const focused = selection !== null && selection.focus.row === at.row && selection.focus.column === at.column;
                    const parameter = parameters[column - 1];
                    const text = row === undefined ? '' : cellOf(row, parameters, column);
                    return (
                      <Cell
                        key={column}
                        at={at}
                        label={`${column === 0 ? 'name' : (parameter?.name ?? '')} of ${row?.name ?? 'the next row'}`}
                        text={text}
                        ghost={row === undefined ? (column === 0 ? 'next row' : '') : column > 0 && text === '' ? (parameter?.default ?? '') : ''}
                        mono={column > 0}
                        problem={parameter !== undefined && !fitsType(parameter.type, text) ? `not a ${PARAMETER_TYPE_WORD[parameter.type]}` : null}
                        focused={focused}
                        tabbable={focused || (selection === null && at.row === 0 && column === 0)}
                        selected={extent !== null && holds(extent, at)}
                        edit={focused ? edit : null}
                        onEdit={setEdit}
                        onLeave={() => commit(null)}
                        onSelect={(extend) => select(at, extend)}
                        onOpen={() => beginEdit(text)}
                      />
                    );
                  })}
                  <span role="gridcell" className="line-clamp-2 px-2 py-[7px] text-xs leading-[1.45] text-ink2" title={shown?.words}>
                    {shown?.words}
                  </span>
                </div>
              );
            })}
          </div>
        </div>
      </div>
      {canEdit && tools !== null && <RowTools {...tools} />}
      {finding && <FindReplace rows={rows} parameters={parameters} update={update} onGo={(focus) => go({ anchor: focus, focus })} onClose={() => setFinding(false)} />}
    </>
  );
});

function cellAtLine(rows: readonly Row[], parameters: readonly Parameter[], at: CellAt): string {
  const row = rows[at.row];
  return row === undefined ? '' : cellOf(row, parameters, at.column);
}

/** The focus follows the selected cell, or the field while one edits. */
function useFocusCell(scroller: React.RefObject<HTMLDivElement | null>, selection: Selection | null, edit: string | null, scrollTo: (row: number) => void): void {
  const editing = edit !== null;
  const [row, column] = selection === null ? [null, null] : [selection.focus.row, selection.focus.column];
  const scroll = useRef(scrollTo);
  useEffect(() => {
    scroll.current = scrollTo;
  });
  useEffect(() => {
    if (row === null) return;
    scroll.current(row);
    const cell = scroller.current?.querySelector<HTMLElement>(`[data-cell="${row}/${column}"]`);
    if (editing) cell?.querySelector('input')?.focus();
    else cell?.focus({ preventScroll: true });
  }, [column, editing, row, scroller]);
}

interface CellProps {
  readonly at: CellAt;
  readonly label: string;
  readonly text: string;
  /** The default that applies to an empty cell. */
  readonly ghost: string;
  readonly mono: boolean;
  readonly problem: string | null;
  readonly focused: boolean;
  readonly tabbable: boolean;
  readonly selected: boolean;
  readonly edit: string | null;
  readonly onEdit: (text: string) => void;
  readonly onLeave: () => void;
  readonly onSelect: (extend: boolean) => void;
  readonly onOpen: () => void;
}

function Cell({ at, label, text, ghost, mono, problem, focused, tabbable, selected, edit, onEdit, onLeave, onSelect, onOpen }: CellProps): ReactNode {
  const look = `${mono ? 'font-mono text-xs' : ''} ${selected ? 'bg-blue-wash' : ''} ${focused ? 'shadow-[inset_0_0_0_2px_var(--color-blue)]' : ''}`;
  return (
    <div
      role="gridcell"
      aria-label={edit === null ? `${label}: ${text || ghost || 'empty'}` : undefined}
      aria-invalid={problem !== null}
      aria-colindex={at.column + 2}
      data-cell={`${at.row}/${at.column}`}
      tabIndex={tabbable ? 0 : -1}
      title={problem ?? (text.length > 12 ? text : undefined)}
      className={`min-w-0 outline-none ${look}`}
      onMouseDown={(event) => {
        if (edit === null) onSelect(event.shiftKey);
      }}
      onFocus={() => {
        if (!focused && edit === null && tabbable) onSelect(false);
      }}
      onDoubleClick={onOpen}
    >
      {edit !== null ? (
        <input aria-label={label} value={edit} onChange={(e) => onEdit(e.target.value)} onBlur={onLeave} className="h-full w-full bg-page px-2 shadow-[inset_0_0_0_2px_var(--color-blue)] outline-none" />
      ) : (
        <span className={`line-clamp-2 min-h-8 break-words px-2 py-[7px] leading-[1.4] ${problem === null ? '' : 'text-brick underline decoration-wavy decoration-1'}`}>
          {text === '' ? <span className="italic text-ink2">{ghost}</span> : text === '""' ? '“”' : text}
        </span>
      )}
    </div>
  );
}
