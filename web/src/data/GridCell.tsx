import { fitsType, type Row } from '@caderno/core/cases';
import { withConstants, type Constants } from '@caderno/core/shared';
import { memo } from 'react';
import { PARAMETER_TYPE_WORD } from '../look/index.ts';
import type { ColumnCheck } from './columnCheck.ts';
import type { CellAt } from '../grid/index.ts';
import { cellOf, columnName, type GridColumn } from './table.ts';

/** What a person does with a cell. */
export interface OnCell {
  readonly select: (at: CellAt, extend: boolean) => void;
  readonly open: (at: CellAt) => void;
  readonly edit: (text: string) => void;
  readonly leave: () => void;
}

interface Props {
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

/** A cell: its text, or the field one types in. */
export const GridCell = memo(function GridCell({ line, at: place, row, column, check, constants, isOneLine, ground, runs, focused, tabbable, selected, edit, onCell }: Props) {
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
      data-place={row !== undefined && column.kind === 'parameter' ? `rows/${row.id}/cells/${column.parameter.id}` : undefined}
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
          defaultValue={edit}
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
