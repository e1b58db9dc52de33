import { OwnKinds, isOwnKindName, isOwnKindPattern, ownKindId, type OwnValueKind } from '@caderno/core/scenarios';
import { LIMITS } from '@caderno/contract';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import { useLocation } from 'react-router';
import { Button, IconButton, TextBox, Labelled } from '../look/index.ts';

interface Props {
  readonly kinds: readonly OwnValueKind[];
  readonly canEdit: boolean;
  readonly onChange: (kinds: readonly OwnValueKind[]) => void;
}

/** Whoever comes from the phrasebook is shown them. */
const HASH = '#values';

/** What are values in steps of scenarios besides numbers and texts in quotation marks; where two kinds meet, the upper one is meant. */
export function ValueKindsEditor({ kinds, canEdit, onChange }: Props) {
  const move = (index: number, by: -1 | 1): void => {
    const next = [...kinds];
    next.splice(index + by, 0, ...next.splice(index, 1));
    onChange(next);
  };
  const { hash } = useLocation();
  return (
    <div ref={(place) => (hash === HASH ? place?.scrollIntoView({ block: 'center' }) : undefined)} className="mt-4 text-sm">
      <h3 className="font-semibold">Own kinds of values</h3>
      <p className="text-ink2">
        Numbers and texts in quotation marks are values in a step. Other words can be too: with a kind <span className="font-mono">season</span>, “the dry season” and “the wet season” are one phrase, “the <span className="font-mono">{'{season}'}</span> season”.
      </p>
      <ul aria-label="Own kinds of values">
        {kinds.map((kind, index) => (
          <li key={kind.id} className="flex items-center gap-2 border-b border-rule py-1.5">
            <KindFields kind={kind} others={kinds.filter((k) => k !== kind)} canEdit={canEdit} onChange={(changed) => onChange(kinds.map((k) => (k === kind ? changed : k)))} />
            {canEdit && (
              <span className="flex">
                <IconButton label={`Move ${kind.name} up`} disabled={index === 0} onClick={() => move(index, -1)} icon={<ArrowUp size={13} aria-hidden="true" />} />
                <IconButton label={`Move ${kind.name} down`} disabled={index === kinds.length - 1} onClick={() => move(index, 1)} icon={<ArrowDown size={13} aria-hidden="true" />} />
                <IconButton label={`Remove ${kind.name}: its values are words again`} onClick={() => onChange(kinds.filter((k) => k !== kind))} icon={<X size={13} aria-hidden="true" />} />
              </span>
            )}
          </li>
        ))}
      </ul>
      {canEdit && <AddKind kinds={kinds} onAdd={(kind) => onChange([...kinds, kind])} />}
    </div>
  );
}

interface FieldsProps {
  readonly kind: OwnValueKind;
  readonly others: readonly OwnValueKind[];
  readonly canEdit: boolean;
  readonly onChange: (kind: OwnValueKind) => void;
}

/** What is half written is not the project's yet: it is taken when the field is left, if it can be. */
function KindFields({ kind, others, canEdit, onChange }: FieldsProps) {
  const [name, setName] = useState<string | null>(null);
  const [pattern, setPattern] = useState<string | null>(null);
  const wrong = wrongIn({ name: name ?? kind.name, pattern: pattern ?? kind.pattern }, others);
  const leave = (): void => {
    if (wrong !== null) return;
    onChange({ ...kind, name: (name ?? kind.name).trim(), pattern: (pattern ?? kind.pattern).trim() });
    setName(null);
    setPattern(null);
  };
  return (
    <>
      <TextBox aria-label={`Name of the kind ${kind.name}`} readOnly={!canEdit} maxLength={60} value={name ?? kind.name} onChange={setName} onBlur={leave} className="w-36 font-mono" />
      <TextBox aria-label={`What values of ${kind.name} look like`} readOnly={!canEdit} maxLength={LIMITS.title} value={pattern ?? kind.pattern} onChange={setPattern} onBlur={leave} className="min-w-0 flex-1 font-mono" />
      {wrong !== null && <span role="status" className="text-xs text-brick">{WRONG_WORDS[wrong]}</span>}
    </>
  );
}

type Wrong = 'name' | 'taken' | 'pattern';

function wrongIn({ name, pattern }: Pick<OwnValueKind, 'name' | 'pattern'>, others: readonly OwnValueKind[]): Wrong | null {
  if (!isOwnKindName(name.trim())) return 'name';
  if (others.some((k) => k.name.toLowerCase() === name.trim().toLowerCase())) return 'taken';
  return isOwnKindPattern(pattern.trim()) ? null : 'pattern';
}

const WRONG_WORDS: Record<Wrong, string> = {
  name: 'One word; string, int, float and word are taken.',
  taken: 'There is one of that name.',
  pattern: 'Words with | between them, or a pattern that is not empty.',
};

function AddKind({ kinds, onAdd }: { readonly kinds: readonly OwnValueKind[]; readonly onAdd: (kind: OwnValueKind) => void }) {
  const [kind, setKind] = useState({ name: '', pattern: '' });
  const [tried, setTried] = useState('');
  const wrong = wrongIn(kind, kinds);
  const said = kind.name.trim() === '' || (wrong === 'pattern' && kind.pattern.trim() === '') ? null : wrong;
  const found = wrong === null && tried !== '' ? new OwnKinds([{ ...kind, id: ownKindId('tried') }]).foundIn(tried).map((v) => `“${v.text}”`) : [];
  const isFull = kinds.length >= LIMITS.valueKinds;
  return (
    <form
      className="mt-2 space-y-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        onAdd({ id: ownKindId(crypto.randomUUID().slice(0, 8)), name: kind.name.trim(), pattern: kind.pattern.trim() });
        setKind({ name: '', pattern: '' });
      }}
    >
      <p className="flex flex-wrap items-end gap-2">
        <Labelled label="Name" pale>
          <TextBox aria-label="Another kind of values" placeholder="season" value={kind.name} maxLength={60} disabled={isFull} onChange={(text) => setKind({ ...kind, name: text })} className="w-36 font-mono" />
        </Labelled>
        <Labelled label="What its values look like: words with | between them, or a pattern" pale className="min-w-0 flex-1">
          <TextBox aria-label="What its values look like" placeholder="wet|dry  or  M-\d{4}" value={kind.pattern} maxLength={LIMITS.title} disabled={isFull} onChange={(text) => setKind({ ...kind, pattern: text })} className="w-full font-mono" />
        </Labelled>
        <Button type="submit" disabled={wrong !== null || isFull}>Add</Button>
      </p>
      {said !== null && <p role="status" className="text-xs text-ochre-ink">{WRONG_WORDS[said]}</p>}
      {wrong === null && (
        <p className="flex flex-wrap items-center gap-2 text-xs text-ink2">
          Try it:
          <TextBox aria-label="A step to try it on" placeholder="a step" value={tried} onChange={setTried} className="w-72" />
          {tried !== '' && <span role="status">{found.length === 0 ? 'no value in it' : `its values: ${found.join(', ')}`}</span>}
        </p>
      )}
    </form>
  );
}
