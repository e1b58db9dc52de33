import { MOST_TABLE_VALUES, type DecisionTableModel, type TableCondition } from '@caderno/core/conditions';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Dialog, Button } from '../../look/index.ts';
import { NamedValues } from '../NamedValues.tsx';
import { withAction, withCondition, withoutLine } from './tableEdits.ts';

interface Props {
  readonly model: DecisionTableModel;
  readonly row: number;
  readonly canEdit: boolean;
  readonly onChange: (change: (model: DecisionTableModel) => DecisionTableModel) => void;
}

/** What a line of the table is called: a condition with its values, an action, or the line of impossible rules. */
export function TableLineName({ model, row, canEdit, onChange }: Props) {
  const [open, setOpen] = useState(false);
  const condition = model.conditions[row];
  const action = model.actions[row - model.conditions.length];
  if (condition === undefined && action === undefined) return <span className="block px-2 pt-2.5 text-xs text-ink2">cannot occur</span>;
  const line = condition ?? action;
  const rename = (name: string): void => onChange(condition === undefined ? withAction(action?.id ?? '', name) : withCondition(condition.id, { name }));
  return (
    <div className="group flex h-full items-center pr-1">
      <div className="min-w-0 flex-1">
        <input
          aria-label={condition === undefined ? 'Name of the action' : 'Name of the condition'}
          value={line?.name ?? ''}
          readOnly={!canEdit}
          maxLength={200}
          onChange={(e) => rename(e.target.value)}
          className={`block h-6 w-full truncate bg-transparent px-2 text-sm font-medium outline-none focus:bg-blue-wash ${condition === undefined ? 'text-pine' : ''}`}
        />
        {condition !== undefined && (
          <button type="button" aria-label={`Values of ${condition.name}`} onClick={() => setOpen(true)} className="block h-6 w-full truncate px-2 text-left text-fine leading-5 text-ink2 hover:underline">
            {condition.values.map((v) => v.value).join(' · ') || 'no values'}
          </button>
        )}
      </div>
      {canEdit && (
        <button type="button" aria-label={`Remove ${line?.name ?? ''}`} title="Remove the line" onClick={() => onChange(withoutLine(line?.id ?? ''))} className="hidden size-6 shrink-0 place-items-center rounded text-ink2 hover:bg-page2 group-focus-within:grid group-hover:grid">
          <X size={13} aria-hidden="true" />
        </button>
      )}
      {open && condition !== undefined && <ValuesDialog condition={condition} canEdit={canEdit} onChange={(part) => onChange(withCondition(condition.id, part))} onClose={() => setOpen(false)} />}
    </div>
  );
}

function ValuesDialog({ condition, canEdit, onChange, onClose }: { readonly condition: TableCondition; readonly canEdit: boolean; readonly onChange: (part: Partial<TableCondition>) => void; readonly onClose: () => void }) {
  return (
    <Dialog title={`Values of ${condition.name}`} keepsAtOnce onClose={onClose}>
      <NamedValues values={condition.values} most={MOST_TABLE_VALUES} canEdit={canEdit} onChange={(values) => onChange({ values })} />
      <Button className="mt-5" onClick={onClose}>
        Done
      </Button>
    </Dialog>
  );
}
