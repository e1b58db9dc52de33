import { changedItem, type BaselineNumber, type Frozen, type FrozenChange } from '@caderno/core/baselines';
import type { ArtefactId } from '@caderno/core/artefacts';
import { settingsWords, type BringBack, type FrozenChanges } from '@caderno/contract';
import { skipToken, useQuery } from '@tanstack/react-query';
import { ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { call, download, failureSentence, tellFailure, useVersion } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Choose, SelectMark, STATE_WORD, TextButton, countOf, useSelection, type Selection, locale } from '../look/index.ts';
import { TouchedDialog } from '../suiteMembers/index.ts';
import { Contents, Difference } from '../versions/index.ts';
import { BringBackDialog } from './BringBackDialog.tsx';
import { GROUPINGS, KIND_INK, KIND_WORD, groupsOf, useRequirementsOf, type ChangeGroup, type Grouping } from './groups.ts';

interface Props {
  readonly from: BaselineNumber;
  /** Null: now. */
  readonly to: BaselineNumber | null;
}

/** What changed from a baseline to another or to now, each with its difference. */
export function Changes({ from, to }: Props) {
  const { project } = useFrame();
  const { data, error } = useQuery({
    queryKey: to === null ? [project, 'frozenChanges', from] : [project, 'baselines', from, 'to', to],
    queryFn: () => call('compareBaselines', { params: { project, baseline: from }, query: to === null ? {} : { to } }),
  });
  if (data === undefined) return <p className="mt-3 text-ink2">{error === null ? 'Comparing …' : failureSentence(error)}</p>;
  if (data.total === 0 && data.settings.parts.length === 0) return <p className="mt-3 text-ink2">Nothing changed.</p>;
  return (
    <>
      {data.settings.parts.length > 0 && (
        <p className="mt-2 text-sm">
          <span className="font-semibold text-ochre-ink">Of the settings</span> {settingsWords(data.settings.parts, data.settings.constants)}
        </p>
      )}
      <ChangeGroups data={data} from={from} to={to} />
    </>
  );
}

function ChangeGroups({ data: { changes, total, reached }, from, to }: Props & { readonly data: FrozenChanges }) {
  const { project, canEdit } = useFrame();
  const [by, setBy] = useState<Grouping>('what');
  const requirementsOf = useRequirementsOf(by === 'requirement');
  const groups = useMemo(() => groupsOf(changes, by, requirementsOf), [by, changes, requirementsOf]);
  const ordered = useMemo(() => [...new Set(groups.flatMap((g) => g.changes))], [groups]);
  const selection = useSelection(useMemo(() => ordered.flatMap((c) => (c.kind === 'state' ? [] : [changedItem(c).id])), [ordered]));
  const [touched, setTouched] = useState(false);
  const [back, setBack] = useState<BringBack['of'] | null>(null);
  const mayBringBack = canEdit && to === null && ordered.some((c) => c.kind !== 'state');
  return (
    <>
      {mayBringBack && (
        <div className="mt-2 flex flex-wrap items-center gap-2 text-sm print:hidden">
          <span className="text-ink2">{selection.chosen.length === 0 ? 'Select what is to be again as it was, or' : `${selection.chosen.length.toLocaleString(locale())} selected`}</span>
          {selection.chosen.length > 0 && (
            <Button look="accent" onClick={() => setBack({ ids: [...selection.chosen] })}>
              Bring {selection.chosen.length === 1 ? 'it' : 'them'} back …
            </Button>
          )}
          <Button onClick={() => setBack({ everything: true, withdraw: false })}>Bring everything back …</Button>
          {selection.chosen.length > 0 && <TextButton onClick={selection.clear}>Select none</TextButton>}
        </div>
      )}
      {touched && <TouchedDialog of={{ from, to }} change={`B-${from} until ${to === null ? 'now' : `B-${to}`}`} onClose={() => setTouched(false)} />}
      {back !== null && <BringBackDialog from={from} of={back} onClose={() => setBack(null)} />}
      {total > changes.length && <p className="mt-2 text-sm text-ink2">The first {changes.length.toLocaleString(locale())} of {countOf(total, 'change')}.</p>}
      <div className="mt-2 flex flex-wrap items-center gap-3 text-sm print:hidden">
        {total === 0 ? <span className="text-ink2">No artefact changed.</span> : <Choose label="Group by" showLabel value={by} options={GROUPINGS} onChange={setBy} />}
        <TextButton onClick={() => setTouched(true)}>cases it touches</TextButton>
        <span className="ml-auto flex items-center gap-3 text-ink2">
          save as
          {(['xlsx', 'md'] as const).map((format) => (
            <TextButton key={format} onClick={() => void download('exportComparison', { params: { project, baseline: from }, query: { format, ...(to === null ? {} : { to }) } }).catch(tellFailure)}>
              {format === 'md' ? 'Markdown' : 'XLSX'}
            </TextButton>
          ))}
        </span>
      </div>
      {reached.length > 0 && <ReachedCases reached={reached} />}
      {groups.map((group) => (
        <Group key={group.name} {...group} from={from} to={to} selection={mayBringBack ? selection : null} />
      ))}
    </>
  );
}

/** Null: nothing here can be selected. */
interface Selecting {
  readonly selection: Selection<ArtefactId> | null;
}

function Group({ name, ink, changes, from, to, selection }: Props & Selecting & ChangeGroup) {
  return (
    <section className="mt-3" aria-label={name}>
      <h4 className={`text-sm font-semibold ${ink}`}>
        {name} <span className="font-normal text-ink2">{changes.length.toLocaleString(locale())}</span>
      </h4>
      <ul className="mt-0.5 border-t border-rule">
        {changes.map((change) => (
          <Line key={changedItem(change).id} change={change} from={from} to={to} selection={change.kind === 'state' ? null : selection} named={ink === ''} />
        ))}
      </ul>
    </section>
  );
}

/** What is agreed and runs otherwise now, although nobody changed it. */
function ReachedCases({ reached }: { readonly reached: FrozenChanges['reached'] }) {
  const { project } = useFrame();
  return (
    <section aria-label="Agreed cases that this reaches" className="mt-3 rounded-field bg-ochre-wash px-3 py-2 text-sm">
      <h4 className="font-semibold text-ochre-ink">{countOf(reached.length, 'agreed case uses', 'agreed cases use')} what changed</h4>
      <ul>
        {reached.map(({ id, title, through }) => (
          <li key={id} className="flex flex-wrap gap-x-2 py-0.5">
            <Link className="underline decoration-rule2 underline-offset-2" to={address.artefact(project, id)}>
              <span className="font-mono text-xs">{id}</span> {title}
            </Link>
            <span className="text-ink2">through {through.join(', ')}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Line({ change, from, to, selection, named }: Props & Selecting & { readonly change: FrozenChange; /** Its group does not say what became of it. */ readonly named: boolean }) {
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
          <span className="shrink-0 text-xs text-ink2">
          {named && <span className={KIND_INK[change.kind]}>{KIND_WORD[change.kind].toLowerCase()} </span>}
          {changeWords(change)}
        </span>
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
