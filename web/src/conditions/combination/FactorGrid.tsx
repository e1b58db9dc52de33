import { LIMITS } from '@caderno/contract';
import type { CombinationModel, Factor, FactorValue } from '@caderno/core/conditions';
import { MoreHorizontal, Plus, X } from 'lucide-react';
import { useState } from 'react';
import { goOnInAdded } from '../../focus/index.ts';
import { fieldKeys } from '../../grid/index.ts';
import { Button, Dialog, TextButton, Tick, TextBox, Labelled, IconButton } from '../../look/index.ts';
import { AddButton } from '../AddButton.tsx';
import { addFactor, makeBase, newFactorValue, withFactor, withValue, withoutFactor } from './combinationEdits.ts';

interface Props {
  readonly model: CombinationModel;
  readonly canEdit: boolean;
  readonly onChange: (change: (model: CombinationModel) => CombinationModel) => void;
}

/** Factors as columns of values. Invalid values are struck in brick; the base value is marked where one is varied from. */
export function FactorGrid({ model, canEdit, onChange }: Props) {
  return (
    <div className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(158px,1fr))] gap-x-4 gap-y-4">
      {model.factors.map((factor) => (
        <FactorColumn key={factor.id} factor={factor} isBase={model.strength === 'baseChoice'} canEdit={canEdit} onChange={onChange} />
      ))}
      {canEdit && model.factors.length < LIMITS.factors && (
        <button type="button" onClick={(e) => goOnInAdded(e.currentTarget, () => onChange(addFactor))} className="flex h-9 items-center gap-1 self-start border-b border-dashed border-rule2 text-left text-sm font-medium text-blue hover:underline">
          <Plus size={13} aria-hidden="true" /> Add a factor
        </button>
      )}
    </div>
  );
}

function FactorColumn({ factor, isBase, canEdit, onChange }: { readonly factor: Factor; readonly isBase: boolean; readonly canEdit: boolean; readonly onChange: Props['onChange'] }) {
  const base = factor.values.find((v) => v.base && v.valid) ?? factor.values.find((v) => v.valid);
  const addValue = (): void => onChange(withFactor(factor.id, (f) => ({ ...f, values: [...f.values, newFactorValue(`value ${f.values.length + 1}`)] })));
  const keys = fieldKeys({ onNext: canEdit && factor.values.length < LIMITS.factorValues ? addValue : undefined });
  return (
    <fieldset className="min-w-0">
      <legend className="sr-only">{factor.name}</legend>
      <div className="group flex items-center border-b border-ink2">
        <input aria-label="Name of the factor" value={factor.name} readOnly={!canEdit} maxLength={200} onChange={(e) => onChange(withFactor(factor.id, (f) => ({ ...f, name: e.target.value })))} className="h-8 min-w-0 flex-1 truncate bg-transparent text-sm font-semibold outline-none focus:bg-blue-wash" />
        {canEdit && (
          <button type="button" aria-label={`Remove ${factor.name}`} title="Remove the factor" onClick={() => onChange(withoutFactor(factor.id))} className="grid size-6 place-items-center rounded text-ink2 opacity-0 hover:bg-page2 focus:opacity-100 group-hover:opacity-100">
            <X size={13} aria-hidden="true" />
          </button>
        )}
      </div>
      <ul data-fields onKeyDown={keys}>
        {factor.values.map((value) => (
          <ValueLine key={value.id} factor={factor} value={value} isBase={isBase && value.id === base?.id} offersBase={isBase} canEdit={canEdit} onChange={onChange} />
        ))}
      </ul>
      {canEdit && factor.values.length < LIMITS.factorValues && (
        <AddButton onAdd={addValue}>value</AddButton>
      )}
    </fieldset>
  );
}

interface ValueProps {
  readonly factor: Factor;
  readonly value: FactorValue;
  readonly isBase: boolean;
  readonly offersBase: boolean;
  readonly canEdit: boolean;
  readonly onChange: Props['onChange'];
}

function ValueLine({ factor, value, isBase, offersBase, canEdit, onChange }: ValueProps) {
  const [open, setOpen] = useState(false);
  return (
    <li data-line className="group flex items-center border-b border-rule">
      <input
        aria-label={`Value of ${factor.name}`}
        value={value.value}
        readOnly={!canEdit}
        maxLength={200}
        onChange={(e) => onChange(withValue(factor.id, value.id, { value: e.target.value }))}
        className={`h-[30px] min-w-0 flex-1 truncate bg-transparent text-sm outline-none focus:bg-blue-wash ${value.valid ? '' : 'text-brick line-through decoration-1'}`}
      />
      {!value.valid && <span className="pr-1 text-fine text-brick">invalid</span>}
      {isBase && <span className="pr-1 text-fine text-blue">usual</span>}
      {canEdit && (
        <IconButton label={`More about ${value.value}`} small title="Validity, other spellings, outcome" onClick={() => setOpen(true)} icon={<MoreHorizontal size={13} aria-hidden="true" />} />
      )}
      {open && (
        <Dialog title={`${factor.name}: ${value.value}`} keepsAtOnce onClose={() => setOpen(false)}>
          <div className="space-y-3 text-sm">
            <Tick checked={!value.valid} onChange={(ticked) => onChange(withValue(factor.id, value.id, { valid: !ticked }))}>
              It is an invalid value, to be shown alone among valid ones
            </Tick>
            {!value.valid && (
              <Labelled label="What happens then">
                <TextBox className="w-full" value={value.outcome} maxLength={LIMITS.title} placeholder="what happens" onChange={(text) => onChange(withValue(factor.id, value.id, { outcome: text }))} />
              </Labelled>
            )}
            {offersBase && value.valid && (
              <Tick checked={isBase} onChange={() => onChange(makeBase(factor.id, value.id))}>
                It is the usual value, from which base choice varies
              </Tick>
            )}
            <Labelled label="Also written in rows, commas between">
              <TextBox className="w-full" value={value.aliases.join(', ')} placeholder="other spellings" onChange={(text) => onChange(withValue(factor.id, value.id, { aliases: text === '' ? [] : text.split(/,\s?/) }))} />
            </Labelled>
          </div>
          <div className="mt-5 flex items-center gap-4">
            <Button onClick={() => setOpen(false)}>Done</Button>
            <TextButton className="text-sm text-brick" onClick={() => (onChange(withFactor(factor.id, (f) => ({ ...f, values: f.values.filter((v) => v.id !== value.id) }))), setOpen(false))}>
              remove the value
            </TextButton>
          </div>
        </Dialog>
      )}
    </li>
  );
}
