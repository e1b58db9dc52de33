import { fitsType, type ParameterId, type Row } from '@caderno/core/cases';
import type { Standing } from '@caderno/core/coverage';
import { withConstants, type Constants } from '@caderno/core/shared';
import { memo, type ReactNode } from 'react';
import { PARAMETER_TYPE_WORD, StandingShape } from '../look/index.ts';
import type { ColumnCheck } from './columnCheck.ts';
import type { CellAt } from './gridSelection.ts';
import type { DrawnColumn } from './useColumnWindow.ts';
import { NAME, cellOf, columnName, type GridColumn } from './table.ts';

export const ROW_HEIGHT = 33;

/** What a row shows, in words, and its mark. */
export interface RowShows {
  readonly standing: Standing | null;
  readonly words: string;
  /** Why it shows nothing that others do not; empty: it does, or nobody knows. */
  readonly redundant: string;
}

export interface OnCell {
  readonly select: (at: CellAt, extend: boolean) => void;
  readonly open: (at: CellAt) => void;
  readonly edit: (text: string) => void;
  readonly leave: () => void;
}

interface Props {
  /** Null: all rows are of one height. */
  readonly measure: ((element: Element | null) => void) | null;
  /** Its place among the lines that are seen. */
  readonly line: number;
  readonly start: number;
  /** Undefined: the line where one types the next row. */
  readonly row: Row | undefined;
  readonly drawn: readonly DrawnColumn[];
  /** Whether room stands for columns that are not drawn. */
  readonly isPart: boolean;
  readonly template: string;
  readonly shown: RowShows | undefined;
  readonly constants: Constants;
  readonly checks: ReadonlyMap<ParameterId, ColumnCheck>;
  readonly runs: boolean;
  readonly isChosen: boolean;
  /** The column of the focused cell, and of the one that the tab key reaches. */
  readonly focus: number | null;
  readonly tabStop: number | null;
  readonly from: number | null;
  readonly to: number | null;
  readonly edit: string | null;
  readonly onCell: OnCell;
}

/** A line of the grid. Drawn again only when something of its own changed. */
export const GridRow = memo(function GridRow({ measure, line, start, row, drawn, isPart, template, shown, constants, checks, runs, isChosen, focus, tabStop, from, to, edit, onCell }: Props) {
  const cell = ({ column, at }: DrawnColumn): ReactNode => (
    <Cell
      key={column.kind === 'parameter' ? column.parameter.id : column.kind}
      line={line}
      at={at}
      row={row}
      column={column}
      check={column.kind === 'parameter' ? checks.get(column.parameter.id) : undefined}
      constants={constants}
      isOneLine={measure === null}
      ground={ground}
      runs={runs}
      focused={focus === at}
      tabbable={tabStop === at}
      selected={from !== null && to !== null && at >= from && at <= to}
      edit={focus === at ? edit : null}
      onCell={onCell}
    />
  );
  const ground = isChosen ? 'bg-marker-wash' : 'bg-page';
  return (
    <div
      ref={measure}
      data-index={line}
      role="row"
      aria-rowindex={line + 2}
      aria-selected={isChosen}
      className={`absolute inset-x-0 grid border-b border-rule ${ground}`}
      style={{ gridTemplateColumns: template, top: start, ...(measure === null ? { height: ROW_HEIGHT } : { minHeight: ROW_HEIGHT }) }}
    >
      <span role="gridcell" className={`sticky left-0 z-10 grid place-items-center ${ground}`}>
        {shown?.standing != null && runs && <StandingShape standing={shown.standing} />}
      </span>
      {cell({ column: NAME, at: 0 })}
      {isPart && <span role="presentation" />}
      {drawn.map(cell)}
      {isPart && <span role="presentation" />}
      <span role="gridcell" className="min-w-0 px-2 py-[7px] text-xs leading-[17px] text-ink2" title={[row?.aside === true ? 'put aside' : '', shown?.words ?? '', shown?.redundant ?? ''].filter(Boolean).join(' · ') || undefined}>
        {row !== undefined && (
          <span className={measure === null ? 'block truncate' : 'line-clamp-2'}>
            <Shown row={row} runs={runs} shown={shown} />
          </span>
        )}
      </span>
    </div>
  );
});

function Shown({ row, runs, shown }: { readonly row: Row; readonly runs: boolean; readonly shown: RowShows | undefined }) {
  if (row.aside) return <span className="italic">put aside</span>;
  if (!runs) return <span className="italic">does not run</span>;
  return (
    <>
      {row.mark !== null && <span role="img" aria-label={`marked ${row.mark}`} title={`marked ${row.mark}`} className={`mr-1 ${row.mark === 'valid' ? 'text-pine' : 'text-brick'}`}>{row.mark === 'valid' ? '✓' : '✗'}</span>}
      {shown?.redundant ? <span className="text-ochre-ink">{shown.redundant} </span> : null}
      {shown?.words}
    </>
  );
}

interface CellProps {
  readonly line: number;
  /** Its place among the columns. */
  readonly at: number;
  readonly row: Row | undefined;
  readonly column: GridColumn;
  readonly check: ColumnCheck | undefined;
  readonly constants: Constants;
  readonly isOneLine: boolean;
  readonly ground: string;
  readonly runs: boolean;
  readonly focused: boolean;
  readonly tabbable: boolean;
  readonly selected: boolean;
  readonly edit: string | null;
  readonly onCell: OnCell;
}

const Cell = memo(function Cell({ line, at: place, row, column, check, constants, isOneLine, ground, runs, focused, tabbable, selected, edit, onCell }: CellProps) {
  const at: CellAt = { row: line, column: place };
  const text = row === undefined ? '' : cellOf(row, column);
  const ghost = ghostOf(row, column, text);
  const problem = problemOf(column, check, text);
  const label = `${columnName(column)} of ${row?.name ?? 'the next row'}`;
  const look = column.kind === 'name' ? `sticky left-[26px] z-10 ${selected ? 'bg-blue-wash' : ground}` : selected ? 'bg-blue-wash' : '';
  return (
    <div
      role="gridcell"
      aria-label={edit === null ? `${label}: ${text || ghost || 'empty'}` : undefined}
      aria-invalid={problem !== null}
      aria-colindex={at.column + 2}
      data-cell={`${at.row}/${at.column}`}
      tabIndex={tabbable ? 0 : -1}
      title={problem ?? constantsIn(column, text, constants) ?? (text.length > 12 ? text : undefined)}
      className={`min-w-0 outline-none ${column.kind === 'parameter' ? 'font-mono text-xs' : ''} ${look} ${runs ? '' : 'text-ink2'} ${focused ? 'shadow-[inset_0_0_0_2px_var(--color-blue)]' : ''}`}
      onMouseDown={(event) => {
        if (edit === null) onCell.select(at, event.shiftKey);
      }}
      onFocus={() => {
        if (!focused && edit === null && tabbable) onCell.select(at, false);
      }}
      onDoubleClick={() => onCell.open(at)}
    >
      {edit !== null ? (
        <input
          aria-label={label}
          list={check !== undefined && column.kind === 'parameter' ? `values-${column.parameter.id}` : undefined}
          value={edit}
          onChange={(e) => onCell.edit(e.target.value)}
          onBlur={onCell.leave}
          className="h-full w-full bg-page px-2 shadow-[inset_0_0_0_2px_var(--color-blue)] outline-none"
        />
      ) : (
        <CellText isOneLine={isOneLine} look={`${column.kind === 'description' ? 'text-xs' : ''} ${text === '' ? 'italic text-ink2' : ''} ${problem === null ? '' : 'text-brick underline decoration-wavy decoration-1'}`}>
          {text === '' ? ghost : text === '""' ? '“”' : text}
        </CellText>
      )}
    </div>
  );
});

/** Two lines need a box of their own inside the padding; one line does without, which many cells thank. */
function CellText({ isOneLine, look, children }: { readonly isOneLine: boolean; readonly look: string; readonly children: string }) {
  if (isOneLine) return <span className={`block truncate px-2 py-[7px] leading-[18px] ${look}`}>{children}</span>;
  return (
    <span className={`block min-h-8 px-2 py-[7px] leading-[18px] ${look}`}>
      <span className="line-clamp-2 break-words">{children}</span>
    </span>
  );
}

/** What a cell comes to with the constants in it; null: there are none. */
function constantsIn(column: GridColumn, text: string, constants: Constants): string | null {
  if (column.kind !== 'parameter' || !text.includes('<')) return null;
  const put = withConstants(text, constants);
  return put === text ? null : `${text} = ${put}`;
}

/** The default that applies to an empty cell; where the next row is typed, that one may. */
function ghostOf(row: Row | undefined, column: GridColumn, text: string): string {
  if (row === undefined) return column.kind === 'name' ? 'next row' : '';
  return column.kind === 'parameter' && text === '' ? column.parameter.default : '';
}

function problemOf(column: GridColumn, check: ColumnCheck | undefined, text: string): string | null {
  if (column.kind !== 'parameter') return null;
  // A constant stands for a value that the cell does not tell.
  if (text.includes('<')) return null;
  // A condition may want what is no value of the type, as letters for a number: it knows better.
  if (check !== undefined) return text === '' ? null : check.problem(text);
  return fitsType(column.parameter.type, text) ? null : `not a ${PARAMETER_TYPE_WORD[column.parameter.type]}`;
}
