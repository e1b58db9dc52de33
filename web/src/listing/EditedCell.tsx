import type { ArtefactKind } from '@caderno/core/artefacts';
import { choiceOf, ownText, type OwnField } from '@caderno/core/fields';
import { fieldOfColumn, isOwnColumn, ownColumn, type BuiltInColumn, type ListColumn } from '@caderno/core/listing';
import { LIMITS } from '@caderno/contract';
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import { useOwnFields, type ListedHead } from '../api/index.ts';
import { useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { changeOf, changedFieldsOf, choicesOf, type ChangedField } from './changes.ts';
import { columnWord, KIND_NAME } from './listWords.ts';
import { useKnownValues } from './useKnownValues.ts';

/** The columns whose cells are changed where they stand, and what is changed then. */
const FIELD_OF: Readonly<Partial<Record<BuiltInColumn, ChangedField>>> = {
  state: 'state', module: 'module', owner: 'owner', priority: 'priority', risk: 'risk', type: 'type', caseKind: 'caseKind', execution: 'execution', minutes: 'minutes',
};

/** What a cell of a column changes; null: it is only read. */
export function editedField(kind: ArtefactKind, column: ListColumn, fields: readonly OwnField[]): ChangedField | null {
  // A long text is written on its page.
  if (isOwnColumn(column)) return fieldOfColumn(column, fields)?.type === 'longText' ? null : column;
  const field = FIELD_OF[column];
  return field !== undefined && changedFieldsOf(kind, fields).includes(field) ? field : null;
}

interface Props {
  readonly kind: ArtefactKind;
  readonly column: ListColumn;
  readonly field: ChangedField;
  readonly listed: ListedHead;
  readonly text: string;
  /** Whether Tab leads here. */
  readonly isActive: boolean;
}

/** A cell that is changed where it stands: a choice among a few, or a text. Each change is an entry of the journal. */
export function EditedCell(props: Props) {
  const { kind, column, field, listed } = props;
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const changeMany = useChangeMany(project);
  const label = `${columnWord(column, fields)} of ${listed.id}`;
  const change = (value: string): void => {
    const made = changeOf({ field, value, condition: null, empties: true }, fields);
    if (made === null) toast.error(`${label} cannot be “${value}”. It is what it was.`);
    else void changeMany({ of: { ids: [listed.id] }, done: made.done, detail: `1 ${KIND_NAME[kind][0]} ${made.what}` });
  };
  const choices = choicesOf(field, fields);
  return choices === null ? <TextCell {...props} fields={fields} label={label} onChange={change} /> : <ChoiceCell {...props} fields={fields} label={label} choices={choices} onChange={change} />;
}

interface CellProps extends Props {
  readonly fields: readonly OwnField[];
  readonly label: string;
  readonly onChange: (value: string) => void;
}

const CELL = 'block h-7 w-full truncate rounded-[4px] hover:bg-page2 hover:outline hover:outline-rule2';

interface ChoiceProps extends CellProps {
  readonly choices: readonly { readonly value: string; readonly name: string }[];
}

/** A list of choices is made when it is asked for: hundreds of them would make a table slow. */
function ChoiceCell(props: ChoiceProps) {
  const { text, label, isActive } = props;
  const [open, setOpen] = useState(false);
  if (open) return <Choices {...props} />;
  return (
    <button type="button" aria-haspopup="listbox" aria-label={`${label}: ${text || 'none'}`} tabIndex={isActive ? 0 : -1} className={`${CELL} text-left`} onClick={() => setOpen(true)}>
      {text || ' '}
    </button>
  );
}

function Choices({ fields, text, listed, field, label, choices, isActive, onChange }: ChoiceProps) {
  const button = useRef<HTMLButtonElement>(null);
  // Whoever pressed the cell wants to see the choices.
  useEffect(() => {
    button.current?.focus();
    button.current?.click();
  }, []);
  const value = currentOf(field, listed, fields);
  return (
    <Listbox value={value} onChange={(next) => next !== value && onChange(next)}>
      <ListboxButton ref={button} aria-label={`${label}: ${text || 'none'}`} tabIndex={isActive ? 0 : -1} className={`${CELL} text-left`}>
        {text || ' '}
      </ListboxButton>
      <ListboxOptions anchor={{ to: 'bottom start', gap: 2 }} className="z-50 min-w-32 rounded-[6px] border border-rule2 bg-page py-1 text-sm focus:outline-none">
        {choices.map((choice) => (
          <ListboxOption key={choice.value} value={choice.value} className="cursor-pointer px-3 py-1.5 data-focus:bg-blue-wash data-selected:font-semibold">
            {choice.name}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}

function TextCell({ fields, kind, text, listed, field, label, isActive, onChange }: CellProps) {
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null) {
    return (
      <button type="button" aria-label={`${label}: ${text || 'none'}`} tabIndex={isActive ? 0 : -1} className={`${CELL} ${field === 'minutes' ? 'text-right' : 'text-left'}`} onClick={() => setTyped(currentOf(field, listed, fields))}>
        {text || ' '}
      </button>
    );
  }
  const leave = (keep: boolean): void => {
    if (keep && typed !== currentOf(field, listed, fields)) onChange(typed);
    setTyped(null);
  };
  return <TextEditor kind={kind} field={field} label={label} typed={typed} onType={setTyped} onLeave={leave} />;
}

interface EditorProps {
  readonly kind: ArtefactKind;
  readonly field: ChangedField;
  readonly label: string;
  readonly typed: string;
  readonly onType: (text: string) => void;
  /** `keep`: what was typed is meant. */
  readonly onLeave: (keep: boolean) => void;
}

/** Enter and leaving keep what was typed, Escape does not. */
function TextEditor({ kind, field, label, typed, onType, onLeave }: EditorProps) {
  const { project } = useFrame();
  const known = useKnownValues(project, kind, field);
  const list = useId();
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.key === 'Enter') onLeave(true);
    else if (event.key === 'Escape') onLeave(false);
    // The arrows of the list stay out of a text.
    event.stopPropagation();
  };
  return (
    <>
      <input autoFocus aria-label={label} value={typed} list={list} maxLength={LIMITS.name} onChange={(event) => onType(event.target.value)} onFocus={(event) => event.target.select()} onBlur={() => onLeave(true)} onKeyDown={onKeyDown} className="h-7 w-full rounded-[4px] border border-blue bg-page px-1" />
      <datalist id={list}>
        {known.map((value) => (
          <option key={value} value={value} />
        ))}
      </datalist>
    </>
  );
}

/** What an artefact has in a field now, as one writes it. */
function currentOf(field: ChangedField, { head }: ListedHead, fields: readonly OwnField[]): string {
  const own = fields.find((f) => ownColumn(f.id) === field);
  const value = own === undefined ? undefined : head.own[own.id];
  if (own !== undefined) return value === undefined ? '' : own.type === 'choice' ? (choiceOf(own, ownText(own, value))?.id ?? '') : ownText(own, value);
  switch (field) {
    case 'state':
      return head.state;
    case 'module':
      return head.module;
    case 'owner':
      return head.kind === 'question' ? head.asked : 'owner' in head ? head.owner : '';
    case 'priority':
      return 'priority' in head ? head.priority : '';
    case 'risk':
      return 'risk' in head ? (head.risk ?? '') : '';
    case 'type':
      return 'type' in head ? head.type : '';
    case 'caseKind':
      return 'caseKind' in head ? head.caseKind : '';
    case 'execution':
      return 'execution' in head ? head.execution : '';
    case 'minutes':
      return 'estimate' in head && head.estimate !== null ? String(head.estimate) : '';
    default:
      return '';
  }
}
