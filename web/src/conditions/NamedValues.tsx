import type { NamedValue } from '@caderno/core/conditions';
import { X } from 'lucide-react';
import { AddButton } from './AddButton.tsx';
import { newPartId } from './newPartId.ts';
import { TextBox, IconButton } from '../look/index.ts';

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
            <TextBox aria-label="Value" className="w-full text-sm" value={v.value} readOnly={!canEdit} maxLength={200} onChange={(text) => set(v.id, { value: text })} />
            <TextBox aria-label={`Other spellings of ${v.value}`} className="w-full text-sm" placeholder="other spellings, commas between" value={v.aliases.join(', ')} readOnly={!canEdit} onChange={(text) => set(v.id, { aliases: text === '' ? [] : text.split(/,\s?/) })} />
            {canEdit && (
              <IconButton label={`Remove ${v.value}`} title="Remove" onClick={() => onChange(values.filter((x) => x.id !== v.id))} icon={<X size={14} aria-hidden="true" />} />
            )}
          </div>
        ))}
      </div>
      {canEdit && values.length < most && (
        <AddButton onAdd={() => onChange([...values, { id: newPartId(), value: `value ${values.length + 1}`, aliases: [] }])}>Add a value</AddButton>
      )}
    </>
  );
}
