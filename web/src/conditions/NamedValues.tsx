import type { NamedValue } from '@caderno/core/conditions';
import { Plus, X } from 'lucide-react';
import { goOnInAdded } from '../focus/index.ts';
import { newPartId } from './newPartId.ts';

interface Props {
  readonly values: readonly NamedValue[];
  readonly most: number;
  readonly canEdit: boolean;
  readonly onChange: (values: readonly NamedValue[]) => void;
}

/** Named values with the other spellings that rows may use for them. */
export function NamedValues({ values, most, canEdit, onChange }: Props) {
  const set = (id: string, part: Partial<NamedValue>): void => onChange(values.map((v) => (v.id === id ? { ...v, ...part } : v)));
  return (
    <>
      <div className="grid grid-cols-[1fr_1.4fr_1.75rem] gap-2 pb-1 text-xs text-ink2" aria-hidden="true">
        <span>value</span>
        <span>also written in rows, commas between</span>
      </div>
      <div className="space-y-1">
        {values.map((v) => (
          <div key={v.id} className="grid grid-cols-[1fr_1.4fr_1.75rem] items-center gap-2">
            <input aria-label="Value" className="field-boxed w-full text-sm" value={v.value} readOnly={!canEdit} maxLength={200} onChange={(e) => set(v.id, { value: e.target.value })} />
            <input aria-label={`Other spellings of ${v.value}`} className="field-boxed w-full text-sm" placeholder="other spellings, commas between" value={v.aliases.join(', ')} readOnly={!canEdit} onChange={(e) => set(v.id, { aliases: e.target.value === '' ? [] : e.target.value.split(/,\s?/) })} />
            {canEdit && (
              <button type="button" aria-label={`Remove ${v.value}`} title="Remove" onClick={() => onChange(values.filter((x) => x.id !== v.id))} className="grid size-7 place-items-center rounded text-ink2 hover:bg-page2">
                <X size={14} aria-hidden="true" />
              </button>
            )}
          </div>
        ))}
      </div>
      {canEdit && values.length < most && (
        <button type="button" onClick={(e) => goOnInAdded(e.currentTarget, () => onChange([...values, { id: newPartId(), value: `value ${values.length + 1}`, aliases: [] }]))} className="mt-2 inline-flex min-h-6 items-center gap-1 text-xs font-medium text-blue hover:underline">
          <Plus size={12} aria-hidden="true" /> Add a value
        </button>
      )}
    </>
  );
}
