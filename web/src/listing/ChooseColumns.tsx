import type { ArtefactKind } from '@caderno/core/artefacts';
import { columnsOf, type ListColumn } from '@caderno/core/listing';
import type { ListView } from '@caderno/contract';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { ArrowDown, ArrowUp, ChevronDown } from 'lucide-react';
import { useOwnFields } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { IconButton, TextButton } from '../look/index.ts';
import { columnWord } from './listWords.ts';
import { firstView, type ListViewing } from './useListView.ts';

/** The columns of a table: which, and in which order. */
export function ChooseColumns({ kind, view: { columns, setColumns } }: { readonly kind: ArtefactKind; readonly view: Pick<ListViewing, 'columns' | 'setColumns'> }) {
  const fields = useOwnFields(useFrame().project);
  const known = columnsOf(kind, fields);
  const shown = columns.filter((c) => known.includes(c.column));
  const others = known.filter((column) => !columns.some((c) => c.column === column));
  /** The line goes elsewhere; the focus goes with it. */
  const choose = (column: ListColumn, next: ListView['columns']): void => {
    setColumns(next);
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`input[data-column="${column}"]`)?.focus());
  };
  const move = (index: number, by: -1 | 1): void => setColumns(swapped(shown, index, index + by));
  return (
    <Popover>
      <PopoverButton className="chip-button">
        Columns
        <ChevronDown size={12} aria-hidden="true" />
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom end', gap: 4 }} className="z-50 max-h-96 w-64 overflow-y-auto rounded-panel border border-rule2 bg-page p-2 text-sm">
        <ul aria-label="Columns">
          {shown.map(({ column }, index) => (
            <li key={column} className="flex items-center">
              <label className="flex min-h-7 flex-1 items-center gap-2">
                <input type="checkbox" data-column={column} checked disabled={column === 'title'} onChange={() => choose(column, columns.filter((c) => c.column !== column))} />
                {columnWord(column, fields)}
              </label>
              <IconButton label={`Move ${columnWord(column, fields)} to the left`} disabled={index === 0} onClick={() => move(index, -1)} icon={<ArrowUp size={13} aria-hidden="true" />} />
              <IconButton label={`Move ${columnWord(column, fields)} to the right`} disabled={index === shown.length - 1} onClick={() => move(index, 1)} icon={<ArrowDown size={13} aria-hidden="true" />} />
            </li>
          ))}
          {others.map((column) => (
            <li key={column}>
              <label className="flex min-h-7 items-center gap-2 text-ink2">
                <input type="checkbox" data-column={column} checked={false} onChange={() => choose(column, [...columns, { column, width: null }])} />
                {columnWord(column, fields)}
              </label>
            </li>
          ))}
        </ul>
        <TextButton className="mt-1 text-ink2" onClick={() => setColumns(firstView(kind, fields).columns)}>
          As they were at first
        </TextButton>
      </PopoverPanel>
    </Popover>
  );
}

function swapped(columns: ListView['columns'], a: number, b: number): ListView['columns'] {
  const next = [...columns];
  const [one, other] = [next[a], next[b]];
  if (one === undefined || other === undefined) return columns;
  next[a] = other;
  next[b] = one;
  return next;
}
