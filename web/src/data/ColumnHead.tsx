import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { NAME_COLUMN, PARAMETER_TYPES, isParameterName, type ColumnId, type Parameter, type ParameterId } from '@caderno/core/cases';
import { ChevronDown, Funnel } from 'lucide-react';
import { useState } from 'react';
import { Button, Dialog, PARAMETER_TYPE_WORD, TextBox } from '../look/index.ts';
import type { ColumnCheck } from './columnCheck.ts';
import { withColumn, withColumnMoved } from './rowEdits.ts';
import type { EditTable, GridColumn } from './table.ts';
import type { RowView } from './rowView.ts';

interface Props {
  readonly column: GridColumn;
  readonly at: number;
  readonly check: ColumnCheck | undefined;
  readonly view: RowView;
  readonly canEdit: boolean;
  readonly update: EditTable;
  readonly onView: (view: RowView) => void;
  readonly onFilter: () => void;
  readonly onRename: (parameter: Parameter, name: string) => void;
  readonly onRemove: (id: ParameterId) => void;
  readonly onHide: (id: ParameterId) => void;
}

/** A column's head: its name, how rows are looked at by it, and a menu of what can be done with it. */
export function ColumnHead({ column, at, check, view, canEdit, update, onView, onFilter, onRename, onRemove, onHide }: Props) {
  const [renaming, setRenaming] = useState(false);
  const id = columnId(column);
  const parameter = column.kind === 'parameter' ? column.parameter : null;
  const sorted = view.sort !== null && view.sort.by === id ? (view.sort.descending ? 'descending' : 'ascending') : null;
  const isFiltered = view.filters.some((f) => f.id === id && f.text.trim() !== '');
  const name = parameter === null ? (column.kind === 'name' ? 'row' : 'what it is for') : `<${parameter.name}>`;
  const title = [parameter === null ? '' : PARAMETER_TYPE_WORD[parameter.type], parameter?.description ?? '', check === undefined ? '' : `serves ${check.serves}`].filter(Boolean).join(' · ');
  return (
    <span role="columnheader" aria-colindex={at + 2} aria-sort={sorted ?? 'none'} title={title || undefined} className={`flex min-h-[33px] min-w-0 items-center bg-page font-mono text-fine font-medium ${column.kind === 'name' ? 'sticky left-[26px] z-10' : ''}`}>
      {id === null ? (
        <span className="truncate px-2">{name}</span>
      ) : (
        <Menu>
          <MenuButton aria-label={`Column ${parameter?.name ?? name}${isFiltered ? ', filtered' : ''}`} className="flex min-h-7 min-w-0 max-w-full items-center rounded pl-2 pr-0.5 hover:bg-page2 data-open:bg-page2">
            <span className={`min-w-0 truncate ${check === undefined ? '' : 'underline decoration-pine decoration-2 underline-offset-[3px]'}`}>{name}</span>
            {sorted !== null && <span aria-hidden="true">{sorted === 'ascending' ? '↑' : '↓'}</span>}
            {isFiltered && <Funnel size={10} aria-hidden="true" className="shrink-0" />}
            <ChevronDown size={10} aria-hidden="true" className="shrink-0 text-ink2" />
          </MenuButton>
          <MenuItems anchor={{ to: 'bottom start', gap: 2 }} className="z-50 min-w-44 rounded-panel border border-rule2 bg-page py-1 text-sm focus:outline-none">
            <Item word="Order by it, up" onClick={() => onView({ ...view, sort: { by: id, descending: false } })} />
            <Item word="Order by it, down" onClick={() => onView({ ...view, sort: { by: id, descending: true } })} />
            {view.sort !== null && <Item word="Order as kept" onClick={() => onView({ ...view, sort: null })} />}
            <Item word="Filter" onClick={onFilter} />
            {parameter !== null && <Item word="Hide" onClick={() => onHide(parameter.id)} />}
            {parameter !== null && canEdit && (
              <>
                <hr className="my-1 border-rule" />
                <Item word="Rename everywhere" onClick={() => setRenaming(true)} />
                <Item word="Move to the left" onClick={() => update((data) => withColumnMoved(data, parameter.id, -1))} />
                <Item word="Move to the right" onClick={() => update((data) => withColumnMoved(data, parameter.id, 1))} />
                <Item word="Remove" onClick={() => onRemove(parameter.id)} />
                <hr className="my-1 border-rule" />
                {PARAMETER_TYPES.map((type) => (
                  <Item key={type} word={`${type === parameter.type ? '✓' : ' '} ${PARAMETER_TYPE_WORD[type]}`} onClick={() => update((data) => withColumn(data, parameter.id, { type }))} />
                ))}
              </>
            )}
          </MenuItems>
        </Menu>
      )}
      {renaming && parameter !== null && <RenameColumn parameter={parameter} onRename={(to) => onRename(parameter, to)} onClose={() => setRenaming(false)} />}
    </span>
  );
}

/** What rows are ordered and filtered by; what a row is for is neither. */
export function columnId(column: GridColumn): ColumnId | null {
  return column.kind === 'parameter' ? column.parameter.id : column.kind === 'name' ? NAME_COLUMN : null;
}

function Item({ word, onClick }: { readonly word: string; readonly onClick: () => void }) {
  return (
    <MenuItem>
      <button type="button" onClick={onClick} className="block w-full whitespace-pre px-3 py-1 text-left font-sans data-focus:bg-blue-wash">
        {word}
      </button>
    </MenuItem>
  );
}

function RenameColumn({ parameter, onRename, onClose }: { readonly parameter: Parameter; readonly onRename: (name: string) => void; readonly onClose: () => void }) {
  const [name, setName] = useState(parameter.name);
  const isName = isParameterName(name.trim());
  return (
    <Dialog title={`Rename <${parameter.name}>`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onClose();
          if (name.trim() !== parameter.name) onRename(name.trim());
        }}
      >
        <TextBox autoFocus aria-label="New name" value={name} onChange={setName} maxLength={80} className="w-full font-mono" />
        {!isName && <p className="mt-1 text-sm text-brick">A name begins with a letter or a digit and holds no angle brackets.</p>}
        <div className="mt-4 flex gap-3">
          <Button look="accent" type="submit" disabled={!isName}>
            Rename
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
