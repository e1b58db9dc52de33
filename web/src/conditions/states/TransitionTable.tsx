import { transitionId, type StateTransitionsModel, type Transition, type TransitionId } from '@caderno/core/conditions';
import type { Standing } from '@caderno/core/coverage';
import { useId, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { fieldKeys } from '../../grid/index.ts';
import { STANDING_WORD, StandingShape, TextButton, locale } from '../../look/index.ts';
import { newPartId } from '../newPartId.ts';
import { removeTransition, textOf, writeTransition, type TransitionText } from './stateEdits.ts';

interface Props {
  readonly model: StateTransitionsModel;
  readonly canEdit: boolean;
  readonly standingOf: (transition: TransitionId) => Standing | null;
  readonly marked: TransitionId | null;
  readonly onMark: (transition: TransitionId) => void;
  readonly onChange: (change: (model: StateTransitionsModel) => StateTransitionsModel) => void;
}

const COLUMNS = [
  { field: 'from', name: 'from' },
  { field: 'event', name: 'event' },
  { field: 'guard', name: 'only if' },
  { field: 'to', name: 'to' },
  { field: 'action', name: 'and then' },
] as const;
/** How many lines are drawn at once. */
const MOST_DRAWN = 120;
const EMPTY: TransitionText = { from: '', event: '', guard: '', to: '', action: '' };

/**
 * The transitions as a table to type in: Enter goes to the next line, Ctrl Backspace removes a line, arrows up and down
 * go to the neighbours. A state or event of a new name is made; the last line is where the next transition is typed.
 */
export function TransitionTable({ model, canEdit, standingOf, marked, onMark, onChange }: Props) {
  const lists = useId();
  const body = useRef<HTMLTableSectionElement>(null);
  const [drawn, setDrawn] = useState(MOST_DRAWN);
  const until = Math.max(drawn, model.transitions.findIndex((t) => t.id === marked) + 1);
  const focus = (line: number, column: number): void => {
    body.current?.rows[line]?.querySelectorAll('input')[column]?.focus();
  };
  const keys = fieldKeys({
    onRemove: (line) => {
      const transition = model.transitions[line];
      if (transition !== undefined && canEdit) onChange(removeTransition(transition.id));
    },
  });
  return (
    <>
      <datalist id={`${lists}states`}>
        {model.states.map((s) => (
          <option key={s.id} value={s.name} />
        ))}
      </datalist>
      <datalist id={`${lists}events`}>
        {model.events.map((e) => (
          <option key={e.id} value={e.name} />
        ))}
      </datalist>
      <table className="w-full table-fixed text-left text-sm" aria-label="Transitions">
        <colgroup>
          <col className="w-6" />
          <col className="w-[19%]" />
          <col className="w-[23%]" />
          <col />
          <col className="w-[19%]" />
          <col />
        </colgroup>
        <thead className="border-b border-ink2 text-xs text-ink2">
          <tr>
            <th aria-label="standing" />
            {COLUMNS.map((c) => (
              <th key={c.field} className="py-1 font-medium">
                {c.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody ref={body} data-fields onKeyDown={keys}>
          {model.transitions.slice(0, until).map((t, line) => (
            <TransitionRow key={t.id} model={model} transition={t} line={line} lists={lists} canEdit={canEdit} marked={marked === t.id} standing={standingOf(t.id)} onFocus={focus} onMark={() => onMark(t.id)} onChange={onChange} />
          ))}
          {canEdit && <TransitionRow key={`next ${model.transitions.length}`} model={model} transition={null} line={Math.min(until, model.transitions.length)} lists={lists} canEdit marked={false} standing={null} onFocus={focus} onMark={() => undefined} onWritten={onMark} onChange={onChange} />}
        </tbody>
      </table>
      {model.transitions.length > until && (
        <TextButton className="mt-1 text-sm" onClick={() => setDrawn(until + MOST_DRAWN)}>
          show more of {(model.transitions.length - until).toLocaleString(locale())} transitions
        </TextButton>
      )}
    </>
  );
}

interface RowProps {
  readonly model: StateTransitionsModel;
  readonly transition: Transition | null;
  readonly line: number;
  readonly lists: string;
  readonly canEdit: boolean;
  readonly marked: boolean;
  readonly standing: Standing | null;
  readonly onMark: () => void;
  readonly onFocus: (line: number, column: number) => void;
  /** A new transition was written: it is marked, and so in view. */
  readonly onWritten?: (transition: TransitionId) => void;
  readonly onChange: Props['onChange'];
}

/** Cells are written when one leaves them, so that half a name makes no state. A new line is written once it leads somewhere. */
function TransitionRow({ model, transition, line, lists, canEdit, marked, standing, onMark, onFocus, onWritten, onChange }: RowProps) {
  const [typed, setTyped] = useState<Partial<TransitionText>>({});
  const isWritten = useRef(false);
  const text = { ...(transition === null ? EMPTY : textOf(model, transition)), ...typed };
  const write = (): void => {
    if (isWritten.current) return;
    const whole = text.from.trim() !== '' && text.to.trim() !== '' && text.event.trim() !== '';
    if (!whole || Object.keys(typed).length === 0) return;
    const trimmed: TransitionText = { from: text.from.trim(), event: text.event.trim(), guard: text.guard.trim(), to: text.to.trim(), action: text.action.trim() };
    const id = transition?.id ?? transitionId(newPartId());
    onChange(writeTransition(id, trimmed, transition === null ? model.transitions.length : line));
    if (transition === null) {
      // A new line takes its place; its fields lose the focus once more on their way.
      isWritten.current = true;
      onWritten?.(id);
    }
    setTyped({});
  };
  /** The line that is typed last is written and the next one begun; what it lacks is asked for first. With nothing in it, Tab leads out. */
  const next = (event: React.KeyboardEvent, column: number): void => {
    const lacking = COLUMNS.findIndex(({ field }) => (field === 'from' || field === 'event' || field === 'to') && text[field].trim() === '');
    const isEmpty = Object.values(typed).every((t) => t.trim() === '');
    if (isEmpty && (event.key === 'Tab' || column === 0)) return;
    event.preventDefault();
    // Drawn at once: the next key may come before the next frame.
    if (lacking < 0) flushSync(write);
    onFocus(lacking < 0 ? line + 1 : line, Math.max(0, lacking));
  };
  return (
    <tr data-line className={`border-b border-rule ${marked ? 'bg-blue-wash' : ''}`} onFocus={onMark}>
      <td className="pl-0.5" title={standing === null ? undefined : STANDING_WORD[standing]}>
        {standing !== null && <StandingShape standing={standing} />}
      </td>
      {COLUMNS.map(({ field, name }, column) => (
        <td key={field}>
          <input
            aria-label={transition === null ? `${name} of the next transition` : `${name} of transition ${line + 1}`}
            list={field === 'from' || field === 'to' ? `${lists}states` : field === 'event' ? `${lists}events` : undefined}
            value={text[field]}
            readOnly={!canEdit}
            maxLength={200}
            placeholder={transition === null ? (field === 'from' ? 'next …' : '') : field === 'guard' ? 'always' : ''}
            onChange={(e) => setTyped({ ...typed, [field]: e.target.value })}
            onBlur={(e) => (transition === null && e.relatedTarget instanceof HTMLElement && e.currentTarget.closest('tr')?.contains(e.relatedTarget) ? undefined : write())}
            onKeyDown={(e) => transition === null && endsLine(e, column) && next(e, column)}
            className="h-8 w-full truncate bg-transparent pr-1.5 outline-none placeholder:text-ink3 focus:bg-blue-wash"
          />
        </td>
      ))}
    </tr>
  );
}

/** Enter anywhere, Tab in the last column. */
function endsLine(event: React.KeyboardEvent, column: number): boolean {
  return event.key === 'Enter' || (event.key === 'Tab' && !event.shiftKey && column === COLUMNS.length - 1);
}
