import { changedItem, type BaselineNumber, type Frozen, type FrozenChange } from '@caderno/core/baselines';
import type { ArtefactId } from '@caderno/core/artefacts';
import type { BringBack } from '@caderno/contract';
import { skipToken, useQuery } from '@tanstack/react-query';
import { ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import { call, failureSentence, useVersion } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, SelectMark, STATE_WORD, TextButton, countOf, useSelection, type Selection } from '../look/index.ts';
import { Contents, Difference } from '../versions/index.ts';
import { BringBackDialog } from './BringBackDialog.tsx';

interface Props {
  readonly from: BaselineNumber;
  /** Null: now. */
  readonly to: BaselineNumber | null;
}

const KIND_WORD: Record<FrozenChange['kind'], string> = { added: 'Added', changed: 'Changed', state: 'The same, but stands otherwise', gone: 'Withdrawn or gone' };
const KIND_INK: Record<FrozenChange['kind'], string> = { added: 'text-pine', changed: 'text-ochre-ink', state: 'text-ink2', gone: 'text-brick' };
const ORDER: readonly FrozenChange['kind'][] = ['changed', 'added', 'gone', 'state'];

/** What changed from a baseline to another or to now, each with its difference. */
export function Changes({ from, to }: Props) {
  const { project } = useFrame();
  const { data, error } = useQuery({
    queryKey: to === null ? [project, 'frozenChanges', from] : [project, 'baselines', from, 'to', to],
    queryFn: () => call('compareBaselines', { params: { project, baseline: from }, query: to === null ? {} : { to } }),
  });
  if (data === undefined) return <p className="mt-3 text-ink2">{error === null ? 'Comparing …' : failureSentence(error)}</p>;
  if (data.total === 0) return <p className="mt-3 text-ink2">Nothing changed.</p>;
  return <ChangeGroups changes={data.changes} total={data.total} from={from} to={to} />;
}

function ChangeGroups({ changes, total, from, to }: Props & { readonly changes: readonly FrozenChange[]; readonly total: number }) {
  const { canEdit } = useFrame();
  const ordered = useMemo(() => ORDER.flatMap((kind) => changes.filter((c) => c.kind === kind)), [changes]);
  const selection = useSelection(useMemo(() => ordered.flatMap((c) => (c.kind === 'state' ? [] : [changedItem(c).id])), [ordered]));
  const [back, setBack] = useState<BringBack['of'] | null>(null);
  const mayBringBack = canEdit && to === null && ordered.some((c) => c.kind !== 'state');
  return (
    <>
      {mayBringBack && (
        <div className="mt-2 flex flex-wrap items-center gap-2 text-sm print:hidden">
          <span className="text-ink2">{selection.chosen.length === 0 ? 'Select what is to be again as it was, or' : `${selection.chosen.length.toLocaleString()} selected`}</span>
          {selection.chosen.length > 0 && (
            <Button look="accent" onClick={() => setBack({ ids: [...selection.chosen] })}>
              Bring {selection.chosen.length === 1 ? 'it' : 'them'} back …
            </Button>
          )}
          <Button onClick={() => setBack({ everything: true, withdraw: false })}>Bring everything back …</Button>
          {selection.chosen.length > 0 && <TextButton onClick={selection.clear}>Select none</TextButton>}
        </div>
      )}
      {back !== null && <BringBackDialog from={from} of={back} onClose={() => setBack(null)} />}
      {total > changes.length && <p className="mt-2 text-sm text-ink2">The first {changes.length.toLocaleString()} of {countOf(total, 'change')}.</p>}
      {ORDER.map((kind) => {
        const some = ordered.filter((c) => c.kind === kind);
        return some.length === 0 ? null : <Group key={kind} kind={kind} changes={some} from={from} to={to} selection={mayBringBack && kind !== 'state' ? selection : null} />;
      })}
    </>
  );
}

/** Null: nothing here can be selected. */
interface Selecting {
  readonly selection: Selection<ArtefactId> | null;
}

function Group({ kind, changes, from, to, selection }: Props & Selecting & { readonly kind: FrozenChange['kind']; readonly changes: readonly FrozenChange[] }) {
  return (
    <section className="mt-3" aria-label={KIND_WORD[kind]}>
      <h4 className={`text-sm font-semibold ${KIND_INK[kind]}`}>
        {KIND_WORD[kind]} <span className="font-normal text-ink2">{changes.length.toLocaleString()}</span>
      </h4>
      <ul className="mt-0.5 border-t border-rule">
        {changes.map((change) => (
          <Line key={changedItem(change).id} change={change} from={from} to={to} selection={selection} />
        ))}
      </ul>
    </section>
  );
}

function Line({ change, from, to, selection }: Props & Selecting & { readonly change: FrozenChange }) {
  const [open, setOpen] = useState(false);
  const { id, title, module } = changedItem(change);
  return (
    <li className="border-b border-rule">
      <div className="group flex items-center">
        {selection !== null && <SelectMark shown name={id} selected={selection.has(id)} onSelect={(_, through) => selection.toggle(id, through)} className="print:hidden" />}
        <button type="button" aria-expanded={open} data-on-paper onClick={() => setOpen(!open)} className="flex min-w-0 flex-1 items-baseline gap-2 py-1.5 text-left hover:bg-page2">
          <ChevronRight size={12} aria-hidden="true" className={`shrink-0 self-center print:hidden ${open ? 'rotate-90' : ''}`} />
          <span className="w-11 shrink-0 font-mono text-xs text-ink2">{id}</span>
          <span className="min-w-0 flex-1">
            {title} {module !== '' && <span className="text-xs text-ink2">{module}</span>}
          </span>
          <span className="shrink-0 text-xs text-ink2">{changeWords(change)}</span>
        </button>
      </div>
      {open && (
        <div className="mb-3 ml-5 border-l-2 border-rule2 pl-4">
          <Opened change={change} id={id} from={from} to={to} />
        </div>
      )}
    </li>
  );
}

function changeWords(change: FrozenChange): string {
  switch (change.kind) {
    case 'added':
      return `v${change.to.version}`;
    case 'gone':
      return `was v${change.from.version}`;
    case 'changed':
      return `v${change.from.version} → v${change.to.version}${change.meant ? '' : ', means the same'}`;
    case 'state':
      return `${stateWord(change.from)} → ${stateWord(change.to)}`;
  }
}

const stateWord = ({ state }: Frozen): string => STATE_WORD[state].toLowerCase();

/** The difference, or all that is new or gone. */
function Opened({ change, id, from, to }: Props & { readonly change: FrozenChange; readonly id: ArtefactId }) {
  const before = useFrozen(change.kind === 'added' ? null : from, id);
  const frozen = useFrozen(change.kind === 'gone' ? null : to, id);
  const { project } = useFrame();
  const present = useVersion(project, id, change.kind !== 'gone' && to === null ? change.to.version : null).data;
  const after = to === null ? present : frozen;
  if (change.kind === 'added' || change.kind === 'state') return after === undefined ? <p className="text-ink2">Reading …</p> : <Contents content={after.content} />;
  if (before === undefined || (change.kind === 'changed' && after === undefined)) return <p className="text-ink2">Reading …</p>;
  return change.kind === 'gone' || after === undefined ? <Contents content={before.content} /> : <Difference from={before.content} to={after.content} />;
}

/** An artefact as a baseline holds it, which never changes; null asks for none. */
function useFrozen(baseline: BaselineNumber | null, id: ArtefactId) {
  const { project } = useFrame();
  return useQuery({
    queryKey: [project, 'baselines', baseline, 'item', id],
    queryFn: baseline === null ? skipToken : () => call('readFrozen', { params: { project, baseline, id } }),
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
}
