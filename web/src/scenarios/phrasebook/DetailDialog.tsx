import type { SharedId } from '@caderno/core/artefacts';
import { parameterId, type Parameter, type ParameterId } from '@caderno/core/cases';
import { holesOf, withPhraseDetailed, withValues, withoutPhraseDetailed, type PhraseKey } from '@caderno/core/scenarios';
import { EMPTY_SHARED, type DetailedPhrase, type SharedContent } from '@caderno/core/shared';
import type { Write } from '@caderno/contract';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useArtefact, useSummaries } from '../../api/index.ts';
import { PickArtefact, useWrite } from '../../artefacts/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Button, Choose, Dialog, TextButton } from '../../look/index.ts';
import type { ShownPhrase } from '../usePhrases.ts';
import { useWording } from '../../phrases/index.ts';
import { PhraseText } from './PhraseText.tsx';

interface Props {
  readonly phrase: ShownPhrase;
  readonly onClose: () => void;
}

interface WithPicker {
  /** Chooses other shared steps; null: there are none. */
  readonly picker: ReactNode;
}

/** What a phrase says in full: shared steps that are there or new ones, and which of their parameters take its values. */
export function DetailDialog({ phrase, onClose }: Props) {
  const { project } = useFrame();
  const detail = useWording(project).details.get(phrase.key);
  const shared = useSummaries(project, 'shared').data ?? [];
  const [picked, setPicked] = useState<SharedId | null>(null);
  const chosen = picked ?? detail?.shared ?? null;
  const others = shared.filter((s) => s.state !== 'withdrawn' && s.id !== chosen);
  // Behind what it belongs to, also while that is being read: a list that opens by itself would lie over it.
  const picker = others.length === 0 ? null : (
    <div className="mt-5 border-t border-rule pt-3">
      <PickArtefact
        label="The shared steps that say it in full"
        placeholder={chosen === null ? 'or choose shared steps that are there …' : 'or choose other shared steps …'}
        offered={others.map((s) => ({ id: s.id, title: s.title, aside: s.parameters.map((p) => `<${p}>`).join(' ') }))}
        onPick={setPicked}
      />
    </div>
  );
  return (
    <Dialog title="What it says in full" onClose={onClose}>
      <p className="text-sm">
        <PhraseText phrase={phrase} />
      </p>
      <p className="mt-2 text-sm text-ink2">Whoever reads a scenario through is told the steps of these shared steps below the phrase, and what they expect counts.</p>
      {chosen === null ? <WriteNew phrase={phrase} onClose={onClose} picker={picker} /> : <TakingValues key={chosen} phrase={phrase} id={chosen} before={detail?.shared ?? null} onClose={onClose} picker={picker} />}
    </Dialog>
  );
}

/** New shared steps with a parameter for each value, to be written on their page. */
function WriteNew({ phrase, onClose, picker }: Props & WithPicker) {
  const { project } = useFrame();
  const write = useWrite(project);
  const navigate = useNavigate();
  const run = async (): Promise<void> => {
    const content = withPhraseDetailed({ ...EMPTY_SHARED, title: titleOf(phrase.key), parameters: parametersFor(phrase.key) }, phrase.key, newId());
    const [id] = (await write({ made: [{ kind: 'shared', content, under: null }], detail: `Steps for “${phrase.shown}”`.slice(0, 300) })) ?? [];
    if (id === undefined) return;
    onClose();
    await navigate(address.artefact(project, id));
  };
  return (
    <>
      <p className="mt-4 flex items-center gap-3">
        <Button data-first look="accent" onClick={() => void run()}>
          Write new shared steps
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </p>
      {picker}
    </>
  );
}

function newId(): string {
  return crypto.randomUUID().slice(0, 8);
}

function parametersFor(key: PhraseKey): Parameter[] {
  return Array.from({ length: holesOf(key) }, (_, i) => ({ id: parameterId(newId()), name: holesOf(key) === 1 ? 'value' : `value ${i + 1}`, type: 'text', default: '', description: '' }));
}

/** The words of a phrase, with a gap where a value stands. */
function titleOf(key: PhraseKey): string {
  const words = withValues(key, Array.from({ length: holesOf(key) }, () => '…'));
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function TakingValues({ phrase, id, before, onClose, picker }: Props & WithPicker & { readonly id: SharedId; readonly before: SharedId | null }) {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, 'shared', id);
  const from = useArtefact(project, 'shared', before ?? id);
  if (data === undefined || from.data === undefined) return <p className="mt-3 text-sm text-ink2">{error === null && from.error === null ? `Reading ${id} …` : `${id} cannot be read.`}</p>;
  const there = { id, version: data.summary.version, content: data.content };
  const elsewhere = before === null || before === id ? null : { id: before, version: from.data.summary.version, content: from.data.content };
  return (
    <>
      <Mapping phrase={phrase} there={there} elsewhere={elsewhere} isDetail={before === id} onClose={onClose} />
      {picker}
    </>
  );
}

interface StoredShared {
  readonly id: SharedId;
  readonly version: number;
  readonly content: SharedContent;
}

interface MappingProps extends Props {
  readonly there: StoredShared;
  /** The shared steps that are its detail until now, where they are others. */
  readonly elsewhere: StoredShared | null;
  readonly isDetail: boolean;
}

function Mapping({ phrase, there, elsewhere, isDetail, onClose }: MappingProps) {
  const { project } = useFrame();
  const write = useWrite(project);
  const { own } = useWording(project);
  const [content, setContent] = useState(() => withPhraseDetailed(there.content, phrase.key, newId(), own));
  const detailed = content.phrases.find((p) => p.phrase === phrase.key);
  const save = async (changed: Write['changed'], detail: string, said: string): Promise<void> => {
    if ((await write({ changed, detail: detail.slice(0, 300) })) === null) return;
    toast.success(said);
    onClose();
  };
  const without = (stored: StoredShared): Write['changed'][number] => ({ kind: 'shared', id: stored.id, version: stored.version, content: withoutPhraseDetailed(stored.content, phrase.key, own) });
  const keep = (): Promise<void> => save([{ kind: 'shared', id: there.id, version: there.version, content }, ...(elsewhere === null ? [] : [without(elsewhere)])], `“${phrase.shown}” is said in full by ${there.id}`, `${there.id} says it in full now.`);
  return (
    <div className="mt-3 text-sm">
      <p>
        <Link className="font-mono text-xs underline decoration-rule2" to={address.shared(project, there.id)}>
          {there.id}
        </Link>{' '}
        <strong>{there.content.title}</strong>
      </p>
      {detailed !== undefined && <Values detailed={detailed} phrase={phrase} parameters={content.parameters} onChange={(values) => setContent({ ...content, phrases: content.phrases.map((p) => (p === detailed ? { ...p, values } : p)) })} />}
      <p className="mt-4 flex items-center gap-3">
        <Button look="accent" disabled={content === there.content} onClick={() => void keep()}>
          {isDetail ? 'Save' : `Let ${there.id} say it in full`}
        </Button>
        <Button data-first onClick={onClose}>Cancel</Button>
        {isDetail && (
          <TextButton className="ml-auto" onClick={() => void save([without(there)], `“${phrase.shown}” is said in full by nothing`, 'The phrase stands for itself again.')}>
            Take it away
          </TextButton>
        )}
      </p>
    </div>
  );
}

interface ValuesProps {
  readonly detailed: DetailedPhrase;
  readonly phrase: ShownPhrase;
  readonly parameters: readonly Parameter[];
  readonly onChange: (values: readonly (ParameterId | null)[]) => void;
}

const NONE = '';

/** Which parameter takes which value of the phrase. */
function Values({ detailed, phrase, parameters, onChange }: ValuesProps) {
  const holes = detailed.values.length;
  if (holes === 0) return <p className="mt-2 text-ink2">The phrase has no values.</p>;
  if (parameters.length === 0) return <p className="mt-2 text-ochre-ink">These shared steps have no parameters: the values of the phrase reach none of their steps.</p>;
  const options = [{ value: NONE, name: 'no parameter' }, ...parameters.map((p) => ({ value: p.id as string, name: `<${p.name}>` }))];
  const given = parameters.filter((p) => !detailed.values.includes(p.id));
  return (
    <>
      <ul className="mt-2 space-y-1.5">
        {detailed.values.map((value, i) => (
          <li key={i} className="flex items-center gap-2">
            <span className="w-36 shrink-0 text-ink2">{holes === 1 ? 'Its value goes to' : `Its value ${i + 1} goes to`}</span>
            <Choose label={`Parameter for value ${i + 1} of ${phrase.shown}`} value={value ?? NONE} options={options} onChange={(to) => onChange(detailed.values.map((v, at) => (at === i ? (to === NONE ? null : parameterId(to)) : v)))} />
          </li>
        ))}
      </ul>
      {given.length > 0 && <p className="mt-2 text-xs text-ink2">{given.map((p) => `<${p.name}>`).join(', ')} {given.length === 1 ? 'keeps' : 'keep'} what {given.length === 1 ? 'its' : 'their'} default says.</p>}
    </>
  );
}
