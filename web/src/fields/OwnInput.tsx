import { choiceOf, ownText, readOwn, type OwnField, type OwnValue } from '@caderno/core/fields';
import { LIMITS } from '@caderno/contract';
import { ExternalLink } from 'lucide-react';
import { useId } from 'react';
import { useMembers } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Choose, TextArea, Tick } from '../look/index.ts';
import { FIELD_WANTS } from './fieldWords.ts';

interface Props {
  readonly field: OwnField;
  readonly value: OwnValue | undefined;
  /** What it is of: `Channel of C-3`. */
  readonly label: string;
  readonly readOnly: boolean;
  /** Null empties it. */
  readonly onChange: (value: OwnValue | null) => void;
}

/** Where a field of the project's own is filled in, as its type wants it. What does not fit is kept as it was typed, and said so. */
export function OwnInput(props: Props) {
  const { field, value } = props;
  const reading = value === undefined ? null : readOwn(field, value);
  return (
    <>
      <Input {...props} text={value === undefined ? '' : ownText(field, value)} fits={reading?.fits ?? true} />
      {reading !== null && !reading.fits && <span className="block text-xs text-brick">{`“${reading.shown.join(', ')}” ${FIELD_WANTS[field.type]}`}</span>}
    </>
  );
}

type InputProps = Props & { readonly text: string; readonly fits: boolean };

function Input(props: InputProps) {
  switch (props.field.type) {
    case 'choice':
    case 'yesNo':
      return <OneOf {...props} />;
    case 'choices':
      return <SomeOf {...props} />;
    case 'longText':
      return <TextArea aria-label={props.label} rows={2} readOnly={props.readOnly} maxLength={LIMITS.text} value={props.text} onChange={(text) => props.onChange(text || null)} className="w-full py-1 leading-5 [field-sizing:content]" />;
    case 'date':
    case 'link':
    case 'number':
    case 'person':
    case 'text':
      return <Line {...props} />;
  }
}

/** An empty value is one more to choose. */
function OneOf({ field, label, value, text, readOnly, onChange }: InputProps) {
  const choices = field.type === 'yesNo' ? [{ value: 'yes', name: 'Yes' }, { value: 'no', name: 'No' }] : field.choices.map(({ id, name }) => ({ value: id, name }));
  const chosen = field.type === 'yesNo' ? text : typeof value === 'string' ? (choiceOf(field, value)?.id ?? value) : (value?.join(', ') ?? '');
  return <Choose label={label} value={chosen} options={[{ value: '', name: '–' }, ...choices]} onChange={(next) => onChange(next === '' ? null : next)} disabled={readOnly} />;
}

function SomeOf({ field, label, value, readOnly, onChange }: InputProps) {
  const held = value === undefined ? [] : typeof value === 'string' ? [value] : value;
  const chosen = new Set(held.map((one) => choiceOf(field, one)?.id ?? one));
  const set = (id: string, on: boolean): void => {
    if (on) chosen.add(id);
    else chosen.delete(id);
    // In the order of the choices; what is none of them any more stays behind them.
    const known = field.choices.map((c) => c.id);
    onChange([...known.filter((c) => chosen.has(c)), ...[...chosen].filter((c) => !known.includes(c))]);
  };
  return (
    <span role="group" aria-label={label} className="grid">
      {field.choices.map(({ id, name }) => (
        <Tick key={id} disabled={readOnly} checked={chosen.has(id)} onChange={(ticked) => set(id, ticked)} className="text-ink">
          {name}
        </Tick>
      ))}
    </span>
  );
}

function Line({ field, label, text, fits, readOnly, onChange }: InputProps) {
  const list = useId();
  const members = useMembers(useFrame().project).data;
  const isLink = field.type === 'link' && /^https?:\/\//i.test(text);
  return (
    <span className="flex items-center gap-1">
      <input
        aria-label={label}
        // What is no day cannot stand in a field for days.
        type={field.type === 'date' && fits ? 'date' : 'text'}
        inputMode={field.type === 'number' ? 'decimal' : 'text'}
        list={field.type === 'person' ? list : undefined}
        aria-invalid={!fits}
        readOnly={readOnly}
        maxLength={LIMITS.line}
        value={text}
        onChange={(event) => onChange(event.target.value || null)}
        onBlur={() => text.trim() !== text && onChange(text.trim() || null)}
        className="field-boxed w-full min-w-0"
      />
      {isLink && fits && (
        <a href={text} target="_blank" rel="noreferrer" aria-label={`Open ${text}`} title={text} className="grid size-6 shrink-0 place-items-center rounded text-ink2 hover:bg-page2">
          <ExternalLink size={13} aria-hidden="true" />
        </a>
      )}
      {field.type === 'person' && (
        <datalist id={list}>
          {members?.map(({ name }) => (
            <option key={name} value={name} />
          ))}
        </datalist>
      )}
    </span>
  );
}
