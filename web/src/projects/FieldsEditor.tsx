import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { LONGEST_FIELD_NAME, OWN_FIELD_TYPES, isSameOwnName, ownFieldId, ownQueryName, type OwnField } from '@caderno/core/fields';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import { FIELD_TYPE_WORD, OwnInput } from '../fields/index.ts';
import { goOnInAdded } from '../focus/index.ts';
import { Choose, IconButton, KIND_NAME, TextButton, options, TextBox, Tick } from '../look/index.ts';
import { ChoicesEditor } from './ChoicesEditor.tsx';
import { FieldUse } from './FieldUse.tsx';

interface Props {
  readonly fields: readonly OwnField[];
  /** As they are saved: what a change of type does to what is filled in is held against these. */
  readonly saved: readonly OwnField[];
  readonly canEdit: boolean;
  readonly onChange: (fields: readonly OwnField[]) => void;
}

/** The fields that the project makes for itself: their names, kinds of artefact, types and order. */
export function FieldsEditor({ fields, saved, canEdit, onChange }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  const there = fields.filter((f) => !f.removed);
  const gone = fields.filter((f) => f.removed);
  const set = (id: string, part: Partial<OwnField>): void => onChange(fields.map((f) => (f.id === id ? { ...f, ...part } : f)));
  const move = (index: number, by: -1 | 1): void => {
    const next = [...there];
    next.splice(index + by, 0, ...next.splice(index, 1));
    onChange([...next, ...gone]);
  };
  const add = (): void => {
    const id = ownFieldId(crypto.randomUUID().slice(0, 8));
    onChange([...there, { id, name: freeName(there), of: ['case'], type: 'text', choices: [], required: false, begins: null, help: '', removed: false }, ...gone]);
    setOpen(id);
  };
  return (
    <div className="mt-2 text-sm">
      <ul aria-label="Fields of the project's own">
        {there.map((field, index) => (
          <li key={field.id} className="border-t border-rule py-1.5">
            <div className="flex flex-wrap items-center gap-2">
              <Name field={field} others={there} canEdit={canEdit} onName={(name) => set(field.id, { name })} />
              <Choose label={`Type of ${field.name}`} value={field.type} options={options(FIELD_TYPE_WORD).filter((o) => OWN_FIELD_TYPES.includes(o.value))} onChange={(type) => set(field.id, { type })} disabled={!canEdit} />
              <span className="min-w-0 flex-1 truncate text-xs text-ink2">{field.of.map((kind) => KIND_NAME[kind][1]).join(', ')}{field.required ? ' · required' : ''}</span>
              <button type="button" aria-expanded={open === field.id} className="rounded-field px-1.5 text-xs text-ink2 underline decoration-rule2 hover:bg-page2" onClick={() => setOpen(open === field.id ? null : field.id)}>
                {open === field.id ? 'Less' : 'More'}
              </button>
              {canEdit && (
                <span className="flex">
                  <IconButton label={`Move ${field.name} up`} disabled={index === 0} onClick={() => move(index, -1)} icon={<ArrowUp size={13} aria-hidden="true" />} />
                  <IconButton label={`Move ${field.name} down`} disabled={index === there.length - 1} onClick={() => move(index, 1)} icon={<ArrowDown size={13} aria-hidden="true" />} />
                  <IconButton label={`Remove the field ${field.name}`} onClick={() => set(field.id, { removed: true })} icon={<X size={13} aria-hidden="true" />} />
                </span>
              )}
            </div>
            <FieldUse field={field} saved={saved.find((f) => f.id === field.id)} />
            {open === field.id && <Details field={field} canEdit={canEdit} onSet={(part) => set(field.id, part)} />}
          </li>
        ))}
      </ul>
      {there.length === 0 && <p className="text-ink2">None yet. A field appears on the pages, in lists and their queries, and when many are changed.</p>}
      {canEdit && (
        <TextButton className="mt-1 text-xs" onClick={(e) => goOnInAdded(e.currentTarget, add)}>
          add a field
        </TextButton>
      )}
      {gone.length > 0 && (
        <p className="mt-2 text-xs text-ink2">
          Removed, with what is filled in kept:{' '}
          {gone.map((field) => (
            <span key={field.id} className="mr-3">
              {field.name} {canEdit && <TextButton onClick={() => set(field.id, { removed: false, name: there.some((f) => isSameOwnName(f.name, field.name)) ? `${field.name} (again)` : field.name })}>bring back</TextButton>}
            </span>
          ))}
        </p>
      )}
    </div>
  );
}

/** A name is taken over when it is one: while it is typed it may be none. */
function Name({ field, others, canEdit, onName }: { readonly field: OwnField; readonly others: readonly OwnField[]; readonly canEdit: boolean; readonly onName: (name: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const name = (typed ?? field.name).trim();
  const problem = ownQueryName(name) === '' ? 'A name has a letter or a digit.' : others.some((f) => f.id !== field.id && isSameOwnName(f.name, name)) ? 'Another field is called so.' : null;
  const leave = (): void => {
    if (typed !== null && problem === null) onName(name);
    setTyped(null);
  };
  return (
    <span>
      <TextBox aria-label={`Name of the field ${field.name}`} aria-invalid={problem !== null} readOnly={!canEdit} value={typed ?? field.name} maxLength={LONGEST_FIELD_NAME} onChange={setTyped} onBlur={leave} className="w-52" />
      {problem !== null && <span className="block text-xs text-brick">{problem}</span>}
    </span>
  );
}

function Details({ field, canEdit, onSet }: { readonly field: OwnField; readonly canEdit: boolean; readonly onSet: (part: Partial<OwnField>) => void }) {
  const { name, of } = field;
  return (
    <div className="mt-1.5 grid grid-cols-[7rem_1fr] items-baseline gap-x-3 gap-y-2 rounded-panel bg-page2 px-3 py-2">
      <span className="text-xs text-ink2">In</span>
      <span className="flex flex-wrap gap-x-4">
        {ARTEFACT_KINDS.map((kind) => (
          <Tick key={kind} checked={of.includes(kind)} disabled={!canEdit || (of.length === 1 && of[0] === kind)} onChange={(ticked) => onSet({ of: ARTEFACT_KINDS.filter((k) => (k === kind ? ticked : of.includes(k))) })}>
            {KIND_NAME[kind][1]}
          </Tick>
        ))}
      </span>
      {(field.type === 'choice' || field.type === 'choices') && (
        <>
          <span className="text-xs text-ink2">Choices</span>
          <ChoicesEditor field={field} canEdit={canEdit} onChange={(choices) => onSet({ choices })} />
        </>
      )}
      <span className="text-xs text-ink2">Begins with</span>
      <span>
        <OwnInput field={field} value={field.begins ?? undefined} label={`What ${name} begins with`} readOnly={!canEdit} onChange={(begins) => onSet({ begins })} />
      </span>
      <span className="text-xs text-ink2">Help</span>
      <TextBox aria-label={`Help for ${name}`} placeholder="what to fill in" readOnly={!canEdit} value={field.help} maxLength={500} onChange={(text) => onSet({ help: text })} className="w-full" />
      <span />
      <Tick checked={field.required} disabled={!canEdit} onChange={(required) => onSet({ required })}>
        Required: pages say where it is missing, and -has:{ownQueryName(name)} finds them
      </Tick>
    </div>
  );
}

function freeName(fields: readonly OwnField[]): string {
  let at = fields.length + 1;
  while (fields.some((f) => isSameOwnName(f.name, `Field ${at}`))) at += 1;
  return `Field ${at}`;
}
