import { isOwnColumn, type BuiltInColumn, type ListColumn } from '@caderno/core/listing';
import type { ListView } from '@caderno/contract';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useOwnFields } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { usePrinting } from '../look/index.ts';
import { columnWord } from './listWords.ts';
import type { ListViewing } from './useListView.ts';

/** How wide columns are made, in pixels. */
const WIDTH: Readonly<Partial<Record<BuiltInColumn, number>>> = { id: 64, title: 280, module: 130, requirement: 100, standing: 130, coverage: 116, risk: 100, steps: 68, rows: 64, instances: 86, minutes: 80, version: 78, priority: 84, state: 88, tags: 150, depths: 120, owner: 110, author: 110, updated: 130, covers: 130, technique: 122, execution: 110 };
const OTHERS = 92;
const OWN = 120;
const NARROWEST = 40;
const WIDEST = 2_000;
/** By a key. */
const STEP = 16;

/** Columns of numbers, which stand at the right. */
export const NUMBERS: ReadonlySet<ListColumn> = new Set(['steps', 'rows', 'instances', 'minutes', 'heldUp', 'version', 'coverage']);

export function widthOf({ column, width }: ListView['columns'][number]): number {
  return width ?? (isOwnColumn(column) ? OWN : (WIDTH[column] ?? OTHERS));
}

interface Props {
  readonly column: ListView['columns'][number];
  readonly view: Pick<ListViewing, 'sort' | 'setSort' | 'columns' | 'setColumns'>;
}

/** The head of a column: pressed it sorts, up and down and not; its edge is pulled, or moved by arrows, to size it. */
export function ColumnHead({ column, view }: Props) {
  const { sort } = view;
  const printing = usePrinting();
  const isSorted = sort?.column === column.column;
  const name = columnWord(column.column, useOwnFields(useFrame().project));
  const next = !isSorted ? { column: column.column, descending: false } : sort.descending ? null : { column: column.column, descending: true };
  const Arrow = isSorted && sort.descending ? ArrowDown : ArrowUp;
  // Buttons are not put on paper.
  if (printing) return <span role="columnheader" className="min-w-0 break-words px-1">{name}</span>;
  return (
    <span role="columnheader" aria-sort={!isSorted ? 'none' : sort.descending ? 'descending' : 'ascending'} className="relative flex min-w-0 items-stretch">
      <button type="button" className={`flex h-8 min-w-0 flex-1 items-center gap-1 px-2 hover:bg-page2 ${NUMBERS.has(column.column) ? 'justify-end' : ''}`} onClick={() => view.setSort(next)}>
        <span className="truncate">{name}</span>
        {isSorted && <Arrow size={12} aria-hidden="true" className="shrink-0" />}
      </button>
      <Edge name={name} width={widthOf(column)} onWidth={(width) => view.setColumns(view.columns.map((c) => (c.column === column.column ? { ...c, width } : c)))} />
    </span>
  );
}

function Edge({ name, width, onWidth }: { readonly name: string; readonly width: number; readonly onWidth: (width: number) => void }) {
  const [from, setFrom] = useState<{ readonly x: number; readonly width: number } | null>(null);
  const set = (wanted: number): void => onWidth(Math.round(Math.min(WIDEST, Math.max(NARROWEST, wanted))));
  const begin = (event: PointerEvent<HTMLElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    setFrom({ x: event.clientX, width });
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
    event.preventDefault();
    set(width + (event.key === 'ArrowLeft' ? -STEP : STEP));
  };
  return (
    <span
      role="separator"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label={`Width of ${name}`}
      aria-valuenow={width}
      aria-valuemin={NARROWEST}
      aria-valuemax={WIDEST}
      className="absolute inset-y-0 right-0 w-1.5 cursor-col-resize touch-none border-r border-rule hover:bg-rule2"
      onPointerDown={begin}
      onPointerMove={(event) => from !== null && set(from.width + event.clientX - from.x)}
      onPointerUp={() => setFrom(null)}
      onKeyDown={onKeyDown}
    />
  );
}
