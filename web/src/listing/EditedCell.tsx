import type { ArtefactKind } from '@caderno/core/artefacts';
import { choiceOf, ownText, type OwnField } from '@caderno/core/fields';
import { fieldOfColumn, isOwnColumn, ownColumn, type BuiltInColumn, type ListColumn, type ListProject } from '@caderno/core/listing';
import { LIMITS } from '@caderno/contract';
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { useEffect, useId, useRef, useState, type ClipboardEvent, type KeyboardEvent, type ReactNode } from 'react';
import { toast } from 'sonner';
import type { ListedHead } from '../api/index.ts';
import type { useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { KIND_NAME, useLatest, locale } from '../look/index.ts';
import { changeOf, changedFieldsOf, choicesOf, type ChangedField } from './changes.ts';
import { columnWord } from './listWords.ts';
import { useKnownValues } from './useKnownValues.ts';

/** The columns whose cells are changed where they stand, and what is changed then. */
const FIELD_OF: Readonly<Partial<Record<BuiltInColumn, ChangedField>>> = {
  title: 'title', state: 'state', module: 'module', owner: 'owner', priority: 'priority', risk: 'risk', type: 'type', caseKind: 'caseKind', execution: 'execution', minutes: 'minutes',
};

/** What a cell of a column changes; null: it is only read. */
export function editedField(kind: ArtefactKind, column: ListColumn, fields: readonly OwnField[]): ChangedField | null {
  // A long text is written on its page.
  if (isOwnColumn(column)) return fieldOfColumn(column, fields)?.type === 'longText' ? null : column;
  const field = FIELD_OF[column];
  return field !== undefined && (field === 'title' || changedFieldsOf(kind, fields).includes(field)) ? field : null;
}

/** What cells need of their table, which asks for it once. */
export interface CellRules {
  readonly rules: ListProject;
  readonly changeMany: ReturnType<typeof useChangeMany>;
}

interface Props {
  readonly table: CellRules;
  readonly kind: ArtefactKind;
  readonly column: ListColumn;
  /** Its place among the columns: the arrows stay in it. */
  readonly place: number;
  readonly field: ChangedField;
  readonly listed: ListedHead;
  readonly text: string;
  /** Whether Tab leads here. */
  readonly isActive: boolean;
  /** All that are selected; what is pasted or filled into one of several is meant for all of them. */
  readonly selected: readonly ListedHead[];
  /** The artefact on the line above. */
  readonly above: ListedHead | undefined;
  /** How the cell looks while it is only read; absent: as its text. */
  readonly children?: (idle: IdleCell) => ReactNode;
}

/** What a cell needs to be read, reached by keys, and changed. */
interface IdleCell {
  readonly props: { readonly 'data-cell': number; readonly tabIndex: number; readonly onKeyDown: (event: KeyboardEvent) => void; readonly onCopy: (event: ClipboardEvent) => void; readonly onPaste: (event: ClipboardEvent) => void };
  readonly begin: () => void;
}

/** A cell that is changed where it stands: a choice among a few, or a text. Each change is an entry of the journal. */
export function EditedCell(props: Props) {
  const { table, kind, column, field, listed, selected } = props;
  const { rules, changeMany } = table;
  const { fields } = rules;
  const label = `${columnWord(column, fields)} of ${listed.id}`;
  const change = (value: string, of: readonly ListedHead[] = [listed]): void => {
    const made = changeOf({ field, value, picked: null, empties: true }, rules);
    if (made === null) toast.error(`${label} cannot be “${value}”. It is what it was.`);
    else void changeMany({ of: { ids: of.map((l) => l.id) }, done: made.done, detail: `${of.length.toLocaleString(locale())} ${KIND_NAME[kind][of.length === 1 ? 0 : 1]} ${made.what}` });
  };
  // What is put into one of several that are selected is meant for all of them; a title is each one's own.
  const meant = field !== 'title' && selected.length > 1 && selected.some((s) => s.id === listed.id) ? selected : [listed];
  const put = (value: string): void => change(value, meant);
  const choices = choicesOf(field, rules);
  return choices === null ? <TextCell {...props} fields={fields} label={label} onChange={change} onPut={put} /> : <ChoiceCell {...props} fields={fields} label={label} choices={choices} onChange={change} onPut={put} />;
}

interface CellProps extends Props {
  readonly fields: readonly OwnField[];
  readonly label: string;
  readonly onChange: (value: string) => void;
  /** Pasted or filled in: into all that are selected. */
  readonly onPut: (value: string) => void;
}

const CELL = 'block h-7 w-full truncate rounded-[4px] hover:bg-page2 hover:outline hover:outline-rule2';

interface Keys {
  readonly begin: (typed?: string) => void;
  /** What of a text on the clipboard is meant, as the field has it. */
  readonly read: (text: string) => string;
  /** Whether a letter begins to write. */
  readonly writes: boolean;
}

/** The keys of a spreadsheet on a cell that is only read: F2 and letters write, Delete empties, Ctrl C, V and D copy, paste and fill from above. */
function idleCell({ text, field, fields, place, isActive, above, onChange, onPut }: CellProps, { begin, read, writes }: Keys): IdleCell {
  const onKeyDown = (event: KeyboardEvent): void => {
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    if (event.key === 'F2') begin();
    else if ((event.key === 'Delete' || event.key === 'Backspace') && plain && text !== '') onChange('');
    else if (event.key.toLowerCase() === 'd' && (event.ctrlKey || event.metaKey) && above !== undefined) onPut(currentOf(field, above, fields));
    else if (writes && plain && event.key.length === 1 && event.key !== ' ') begin(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return {
    begin: () => begin(),
    props: {
      'data-cell': place,
      tabIndex: isActive ? 0 : -1,
      onKeyDown,
      onCopy: (event) => {
        // Whoever has marked words of it means these.
        if (document.getSelection()?.isCollapsed === false) return;
        event.preventDefault();
        event.clipboardData.setData('text/plain', text);
      },
      onPaste: (event) => {
        event.preventDefault();
        // Of several cells on the clipboard the first is meant: a cell holds one value. A picture, or nothing, empties none.
        const pasted = event.clipboardData.getData('text/plain').split(/[\t\r\n]/)[0]?.trim() ?? '';
        if (pasted !== '') onPut(read(pasted));
      },
    },
  };
}

interface ChoiceProps extends CellProps {
  readonly choices: readonly { readonly value: string; readonly name: string }[];
}

/** A list of choices is made when it is asked for: hundreds of them would make a table slow. */
function ChoiceCell(props: ChoiceProps) {
  const { text, label, choices } = props;
  const [open, setOpen] = useState(false);
  const read = (pasted: string): string => choices.find((c) => c.name.toLowerCase() === pasted.toLowerCase())?.value ?? pasted;
  const { props: idle } = idleCell(props, { begin: () => setOpen(true), read, writes: false });
  if (open) return <Choices {...props} onClosed={() => setOpen(false)} />;
  return (
    <button {...idle} type="button" aria-haspopup="listbox" aria-label={`${label}: ${text || 'none'}`} className={`${CELL} text-left`} onClick={() => setOpen(true)}>
      {text || ' '}
    </button>
  );
}

function Choices({ fields, text, listed, field, label, choices, place, isActive, onChange, onClosed }: ChoiceProps & { readonly onClosed: () => void }) {
  const button = useRef<HTMLButtonElement>(null);
  // Whoever pressed the cell wants to see the choices.
  useEffect(() => {
    button.current?.focus();
    button.current?.click();
  }, []);
  const value = currentOf(field, listed, fields);
  // The arrows are the table's again once nothing is chosen any more.
  const close = (): void => {
    const cell = button.current?.closest('[role="cell"]') ?? null;
    onClosed();
    requestAnimationFrame(() => goOn(cell, 'stay'));
  };
  return (
    <Listbox value={value} onChange={(next) => next !== value && onChange(next)}>
      {({ open }) => (
        <>
          <OnClosed open={open} onClosed={close} />
          <ListboxButton ref={button} data-cell={place} aria-label={`${label}: ${text || 'none'}`} tabIndex={isActive ? 0 : -1} className={`${CELL} text-left`}>
            {text || ' '}
          </ListboxButton>
          <ListboxOptions anchor={{ to: 'bottom start', gap: 2 }} className="z-50 min-w-32 rounded-panel border border-rule2 bg-page py-1 text-sm focus:outline-none">
            {choices.map((choice) => (
              <ListboxOption key={choice.value} value={choice.value} className="cursor-pointer px-3 py-1.5 data-focus:bg-blue-wash data-selected:font-semibold">
                {choice.name}
              </ListboxOption>
            ))}
          </ListboxOptions>
        </>
      )}
    </Listbox>
  );
}

/** Tells when what was open is closed. */
function OnClosed({ open, onClosed }: { readonly open: boolean; readonly onClosed: () => void }) {
  const wasOpen = useRef(false);
  const told = useLatest(onClosed);
  useEffect(() => {
    if (!open && wasOpen.current) told.current();
    wasOpen.current = open;
  }, [open, told]);
  return null;
}

/** What is written, and whether it took the place of what was there: then no letter of it is selected. */
interface Typed {
  readonly text: string;
  readonly fresh: boolean;
}

function TextCell(props: CellProps) {
  const { fields, kind, text, listed, field, label, onChange, children } = props;
  const [typed, setTyped] = useState<Typed | null>(null);
  const begin = (letter?: string): void => setTyped(letter === undefined ? { text: currentOf(field, listed, fields), fresh: false } : { text: letter, fresh: true });
  const idle = idleCell(props, { begin, read: (pasted) => pasted, writes: field !== 'title' });
  if (typed === null) {
    if (children !== undefined) return children(idle);
    return (
      <button {...idle.props} type="button" data-on-paper aria-label={`${label}: ${text || 'none'}`} className={`${CELL} ${field === 'minutes' ? 'text-right' : 'text-left'}`} onClick={() => begin()}>
        {text || ' '}
      </button>
    );
  }
  const leave = (keep: boolean, key: LeaveKey | null, editor: Element): void => {
    const cell = editor.closest('[role="cell"]');
    if (key !== null) requestAnimationFrame(() => goOn(cell, key));
    if (keep && typed.text !== currentOf(field, listed, fields)) onChange(typed.text);
    setTyped(null);
  };
  return <TextEditor kind={kind} field={field} label={label} typed={typed} onType={(next) => setTyped({ ...typed, text: next })} onLeave={leave} />;
}

/** Where one goes on after a text: to the next cell by an arrow, or one stays. */
type LeaveKey = 'ArrowDown' | 'ArrowLeft' | 'ArrowRight' | 'stay';

/** Once the cell is only read again: as if the key were pressed on it. */
function goOn(cell: Element | null, key: LeaveKey): void {
  const idle = cell?.querySelector<HTMLElement>('[data-cell]');
  idle?.focus();
  if (key !== 'stay') idle?.dispatchEvent(new window.KeyboardEvent('keydown', { key, bubbles: true }));
}

interface EditorProps {
  readonly kind: ArtefactKind;
  readonly field: ChangedField;
  readonly label: string;
  readonly typed: Typed;
  readonly onType: (text: string) => void;
  /** `keep`: what was typed is meant. `key`: where the keys lead; null: it was left by the pointer. */
  readonly onLeave: (keep: boolean, key: LeaveKey | null, editor: Element) => void;
}

/** Enter leads down and Tab along the line, both keep what was typed as leaving does; Escape does not. */
function TextEditor({ kind, field, label, typed, onType, onLeave }: EditorProps) {
  const { project } = useFrame();
  const known = useKnownValues(project, kind, field);
  const list = useId();
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.key === 'Enter') onLeave(true, 'ArrowDown', event.currentTarget);
    else if (event.key === 'Escape') onLeave(false, 'stay', event.currentTarget);
    else if (event.key === 'Tab') onLeave(true, event.shiftKey ? 'ArrowLeft' : 'ArrowRight', event.currentTarget);
    if (event.key === 'Enter' || event.key === 'Tab') event.preventDefault();
    // The arrows of the list stay out of a text.
    event.stopPropagation();
  };
  return (
    <>
      <input autoFocus aria-label={label} value={typed.text} list={list} maxLength={field === 'title' ? LIMITS.title : LIMITS.name} onChange={(event) => onType(event.target.value)} onFocus={(event) => !typed.fresh && event.target.select()} onBlur={(event) => onLeave(true, null, event.currentTarget)} onKeyDown={onKeyDown} className="h-7 w-full rounded-[4px] border border-blue bg-page px-1" />
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
    case 'title':
      return head.title;
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
