import { X } from 'lucide-react';
import { columnId } from './ColumnHead.tsx';
import { NAME, columnName, type GridColumn } from './table.ts';
import type { DrawnColumn } from './useColumnWindow.ts';
import type { RowView } from './rowView.ts';
import { TextBox } from '../look/index.ts';

interface Props {
  readonly drawn: readonly DrawnColumn[];
  readonly isPart: boolean;
  readonly template: string;
  readonly view: RowView;
  readonly onView: (view: RowView) => void;
  readonly onClose: () => void;
}

const HOW = 'Words the cell holds, or = != < <= > >= before a value; = alone: nothing is given';

/** A field below each head for what rows must have there. */
export function FilterLine({ drawn, isPart, template, view, onView, onClose }: Props) {
  const field = (column: GridColumn, at: number) => {
    const id = columnId(column);
    return (
      <span key={id ?? column.kind} role="gridcell" className={`min-w-0 p-0.5 ${at === 0 ? 'sticky left-[26px] z-10 bg-page2' : ''}`}>
        {id !== null && (
          <TextBox
            aria-label={`Filter by ${columnName(column)}`}
            title={HOW}
            autoFocus={at === 0}
            placeholder={at === 0 ? 'filter …' : ''}
            maxLength={200}
            value={view.filters.find((f) => f.id === id)?.text ?? ''}
            onChange={(typed) => onView({ ...view, filters: [...view.filters.filter((f) => f.id !== id), ...(typed === '' ? [] : [{ id, text: typed }])] })}
            className="h-chip w-full min-w-0 font-mono text-xs"
          />
        )}
      </span>
    );
  };
  return (
    // Keys typed here are not the grid's.
    <div role="row" onKeyDown={(e) => (e.stopPropagation(), e.key === 'Escape' && onClose())} onCopy={(e) => e.stopPropagation()} onPaste={(e) => e.stopPropagation()} onCut={(e) => e.stopPropagation()} className="sticky top-[33px] z-20 grid min-w-fit border-b border-rule bg-page2" style={{ gridTemplateColumns: template }}>
      <span role="gridcell" className="sticky left-0 z-10 grid place-items-center bg-page2">
        <button type="button" aria-label="Close the filters" className="grid size-6 place-items-center rounded text-ink2 hover:bg-page" onClick={() => (onView({ ...view, filters: [] }), onClose())}>
          <X size={12} aria-hidden="true" />
        </button>
      </span>
      {field(NAME, 0)}
      {isPart && <span role="presentation" />}
      {drawn.map(({ column, at }) => field(column, at))}
      {isPart && <span role="presentation" />}
      <span role="gridcell" />
    </div>
  );
}
