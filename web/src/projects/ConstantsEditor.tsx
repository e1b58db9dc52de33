import { isParameterName } from '@caderno/core/cases';
import type { Constant } from '@caderno/core/shared';
import { X } from 'lucide-react';
import { TextButton } from '../look/index.ts';

interface Props {
  readonly constants: readonly Constant[];
  readonly canEdit: boolean;
  readonly onChange: (constants: readonly Constant[]) => void;
}

const GRID = 'grid grid-cols-[minmax(8rem,1fr)_minmax(10rem,1.4fr)_5rem_minmax(10rem,1.6fr)_1.75rem] items-center gap-2';

/** The project's constants; the value of a secret one is typed and never shown again. */
export function ConstantsEditor({ constants, canEdit, onChange }: Props) {
  const set = (id: string, part: Partial<Constant>): void => onChange(constants.map((c) => (c.id === id ? { ...c, ...part } : c)));
  const isWrong = ({ id, name }: Constant): boolean => !isParameterName(name) || constants.some((c) => c.id !== id && c.name === name);
  return (
    <div className="mt-2 text-sm">
      {constants.length > 0 && (
        <div className={`${GRID} pb-0.5 text-xs text-ink2`} aria-hidden="true">
          <span>name</span>
          <span>value</span>
          <span>secret</span>
          <span>description</span>
        </div>
      )}
      {constants.map((constant) => (
        <div key={constant.id} className={`${GRID} border-t border-rule py-1`}>
          <input aria-label={`Name of the constant ${constant.name}`} aria-invalid={isWrong(constant)} title={isWrong(constant) ? 'A name begins with a letter or digit, has no brackets, and stands once' : undefined} readOnly={!canEdit} value={constant.name} maxLength={80} onChange={(e) => set(constant.id, { name: e.target.value })} className="field-boxed w-full font-mono text-xs aria-invalid:border-brick" />
          <input aria-label={`Value of ${constant.name}`} type={constant.secret ? 'password' : 'text'} autoComplete="off" readOnly={!canEdit} value={constant.value} maxLength={2_000} onChange={(e) => set(constant.id, { value: e.target.value })} className="field-boxed w-full font-mono text-xs" />
          <input aria-label={`${constant.name} is secret`} type="checkbox" disabled={!canEdit} checked={constant.secret} onChange={(e) => set(constant.id, { secret: e.target.checked })} className="justify-self-center" />
          <input aria-label={`Description of ${constant.name}`} readOnly={!canEdit} value={constant.description} maxLength={300} placeholder="what it is for" onChange={(e) => set(constant.id, { description: e.target.value })} className="field-boxed w-full" />
          {canEdit && (
            <button type="button" aria-label={`Remove the constant ${constant.name}`} title="Remove" onClick={() => onChange(constants.filter((c) => c.id !== constant.id))} className="grid size-7 place-items-center rounded text-ink2 hover:bg-page2">
              <X size={13} aria-hidden="true" />
            </button>
          )}
        </div>
      ))}
      {canEdit && (
        <TextButton className="mt-1 text-xs" onClick={() => onChange([...constants, { id: crypto.randomUUID().slice(0, 8), name: `constant ${constants.length + 1}`, value: '', secret: false, description: '' }])}>
          add a constant
        </TextButton>
      )}
    </div>
  );
}
