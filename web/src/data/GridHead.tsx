import type { Parameter, ParameterId } from '@caderno/core/cases';
import { memo, useState } from 'react';
import { ColumnHead } from './ColumnHead.tsx';
import { FilterLine } from './FilterLine.tsx';
import type { ColumnCheck } from './columnCheck.ts';
import type { RowView } from './rowView.ts';
import { NAME, type EditTable } from './table.ts';
import type { ColumnWindow, DrawnColumn } from './useColumnWindow.ts';

interface Props {
  readonly seen: ColumnWindow;
  readonly checks: ReadonlyMap<ParameterId, ColumnCheck>;
  readonly view: RowView;
  readonly canEdit: boolean;
  readonly update: EditTable;
  readonly onView: (view: RowView) => void;
  readonly onRename: (parameter: Parameter, name: string) => void;
  readonly onRemoveColumn: (id: ParameterId) => void;
  readonly onHide: (id: ParameterId) => void;
}

/** The heads of the columns, and below them, when it is asked for, a line of filters. */
export const GridHead = memo(function GridHead({ seen: { drawn, isPart, template }, checks, view, canEdit, update, onView, onRename, onRemoveColumn, onHide }: Props) {
  const [filtering, setFiltering] = useState(false);
  const head = ({ column, at }: DrawnColumn) => (
    <ColumnHead
      key={column.kind === 'parameter' ? column.parameter.id : column.kind}
      column={column}
      at={at}
      check={column.kind === 'parameter' ? checks.get(column.parameter.id) : undefined}
      view={view}
      canEdit={canEdit}
      update={update}
      onView={onView}
      onFilter={() => setFiltering(true)}
      onRename={onRename}
      onRemove={onRemoveColumn}
      onHide={onHide}
    />
  );
  return (
    <>
      <div role="row" aria-rowindex={1} className="sticky top-0 z-20 grid min-w-fit border-b border-ink2 bg-page text-xs text-ink2" style={{ gridTemplateColumns: template }}>
        <span role="columnheader" aria-label="mark" className="sticky left-0 bg-page px-1" />
        {head({ column: NAME, at: 0 })}
        {isPart && <span role="presentation" />}
        {drawn.map(head)}
        {isPart && <span role="presentation" />}
        <span role="columnheader" className="flex items-center px-2 font-mono text-fine font-medium">
          shows
        </span>
      </div>
      {filtering && <FilterLine drawn={drawn} isPart={isPart} template={template} view={view} onView={onView} onClose={() => setFiltering(false)} />}
    </>
  );
});
