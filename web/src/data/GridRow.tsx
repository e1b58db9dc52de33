import type { ParameterId, Row } from '@caderno/core/cases';
import type { Standing } from '@caderno/core/coverage';
import type { Constants } from '@caderno/core/shared';
import { memo, type ReactNode } from 'react';
import { StandingShape } from '../look/index.ts';
import { GridCell, type OnCell } from './GridCell.tsx';
import type { ColumnCheck } from './columnCheck.ts';
import { NAME } from './table.ts';
import type { DrawnColumn } from './useColumnWindow.ts';

export const ROW_HEIGHT = 33;

/** What a row shows, in words, and its mark. */
export interface RowShows {
  readonly standing: Standing | null;
  readonly words: string;
  /** Why it shows nothing that others do not; empty: it does, or nobody knows. */
  readonly redundant: string;
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
    <GridCell
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
      data-place={row === undefined ? undefined : `rows/${row.id}`}
      role="row"
      aria-rowindex={line + 2}
      aria-selected={isChosen}
      className={`absolute inset-x-0 grid border-b border-rule ${ground} ${row === undefined ? 'print:hidden' : ''}`}
      style={{ gridTemplateColumns: template, top: start, ...(measure === null ? { height: ROW_HEIGHT } : { minHeight: ROW_HEIGHT }) }}
    >
      <span role="gridcell" className={`sticky left-0 z-10 grid place-items-center ${ground}`}>
        {shown?.standing != null && runs && <StandingShape standing={shown.standing} />}
      </span>
      {cell({ column: NAME, at: 0 })}
      {isPart && <span role="presentation" />}
      {drawn.map(cell)}
      {isPart && <span role="presentation" />}
      <span role="gridcell" className="min-w-0 px-2 py-[7px] text-xs leading-[17px] text-ink2" title={[row?.aside === true ? 'set aside' : '', shown?.words ?? '', shown?.redundant ?? ''].filter(Boolean).join(' · ') || undefined}>
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
  if (row.aside) return <span className="italic">set aside</span>;
  if (!runs) return <span className="italic">does not run</span>;
  return (
    <>
      {row.mark !== null && <span role="img" aria-label={`marked ${row.mark}`} title={`marked ${row.mark}`} className={`mr-1 ${row.mark === 'valid' ? 'text-pine' : 'text-brick'}`}>{row.mark === 'valid' ? '✓' : '✗'}</span>}
      {shown?.redundant ? <span className="text-ochre-ink">{shown.redundant} </span> : null}
      {shown?.words}
    </>
  );
}
