import type { Observation } from '@caderno/core/basis';
import { useState } from 'react';
import { useFrame } from '../frame/index.ts';
import { Button, Section, TextButton, ago, TextArea, Labelled } from '../look/index.ts';

interface Props {
  readonly observations: readonly Observation[];
  readonly canEdit: boolean;
  readonly onChange: (observations: readonly Observation[]) => void;
}

/** What the document says beside what the real thing did. */
export function Observations({ observations, canEdit, onChange }: Props) {
  const { person } = useFrame();
  const [adding, setAdding] = useState(false);
  const add = (texts: Texts): void => {
    onChange([...observations, { id: crypto.randomUUID(), ...texts, by: person.name, at: new Date().toISOString() }]);
    setAdding(false);
  };
  return (
    <Section title="Observations" aside="what was seen when it was tried" actions={canEdit && !adding && <TextButton onClick={() => setAdding(true)}>Add one</TextButton>}>
      {observations.length === 0 && !adding && <p className="mt-2 text-sm text-ink2">None yet. Try the real thing, and note it beside what the document says.</p>}
      <ol>
        {observations.map((o) => (
          <li key={o.id} className="grid grid-cols-3 gap-x-4 border-b border-rule py-2 text-sm">
            <Told head="The document says" text={o.documented} />
            <Told head="Done" text={o.done} />
            <Told head="Came back" text={o.seen} />
            <p className="col-span-3 mt-1 text-xs text-ink2">
              {o.by}, {ago(o.at)}
              {canEdit && (
                <>
                  {' '}
                  · <TextButton onClick={() => onChange(observations.filter((x) => x.id !== o.id))}>take away</TextButton>
                </>
              )}
            </p>
          </li>
        ))}
      </ol>
      {adding && <NewObservation onAdd={add} onCancel={() => setAdding(false)} />}
    </Section>
  );
}

function Told({ head, text }: { readonly head: string; readonly text: string }) {
  return (
    <div>
      <div className="text-xs text-ink2">{head}</div>
      <div className="whitespace-pre-wrap break-words">{text}</div>
    </div>
  );
}

type Texts = Pick<Observation, 'documented' | 'done' | 'seen'>;
const FIELDS = [['documented', 'What the document says'], ['done', 'What was done'], ['seen', 'What came back']] as const;

function NewObservation({ onAdd, onCancel }: { readonly onAdd: (texts: Texts) => void; readonly onCancel: () => void }) {
  const [texts, setTexts] = useState<Texts>({ documented: '', done: '', seen: '' });
  return (
    <form
      className="mt-2 grid grid-cols-3 gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        onAdd(texts);
      }}
    >
      {FIELDS.map(([field, label], i) => (
        <Labelled key={field} label={label} pale>
          <TextArea autoFocus={i === 0} rows={3} maxLength={5000} value={texts[field]} onChange={(text) => setTexts((t) => ({ ...t, [field]: text }))} className="w-full text-sm" />
        </Labelled>
      ))}
      <div className="col-span-3 flex gap-2">
        <Button type="submit" disabled={texts.seen.trim() === ''}>
          Note it
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
    </form>
  );
}
