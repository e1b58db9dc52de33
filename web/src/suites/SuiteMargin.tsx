import { parseScenarioId, type CoveringId, type SuiteId } from '@caderno/core/artefacts';
import { RISKS } from '@caderno/core/basis';
import { percentDown, shownRatio, type AskedItems } from '@caderno/core/coverage';
import { countsInSuite, ownerOf, type SuiteContent, type SuiteEntry, type SuiteFigures } from '@caderno/core/suites';
import { useState } from 'react';
import { Link } from 'react-router';
import { Margin, MarginNote, Ticks } from '../artefacts/index.ts';
import { OwnFields } from '../fields/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { RISK_WORD, TextButton, countOf, locale } from '../look/index.ts';
import { Remarks } from '../remarks/index.ts';
import type { EditableArtefact, Editing } from '../versions/index.ts';
import { AdditionsDialog } from './AdditionsDialog.tsx';
import { AlsoIn } from './AlsoIn.tsx';
import { OrderDialog } from './OrderDialog.tsx';
import { SmallerDialog } from './SmallerDialog.tsx';

interface Props {
  readonly id: SuiteId;
  readonly artefact: EditableArtefact<'suite'>;
  readonly content: SuiteContent;
  readonly figures: SuiteFigures | undefined;
  readonly canEdit: boolean;
  /** Nothing is written that is not saved. */
  readonly isSaved: boolean;
  readonly update: Editing<SuiteContent>['update'];
  readonly onAdd: (members: readonly CoveringId[]) => void;
  readonly onRemove: (members: readonly CoveringId[]) => void;
  readonly edit: (change: (entries: readonly SuiteEntry[]) => readonly SuiteEntry[]) => void;
}

/** What a suite shows and misses, and what of it wants a look. */
export function SuiteMargin({ id, artefact, content, figures, canEdit, isSaved, update, onAdd, onRemove, edit }: Props) {
  const { project } = useFrame();
  const [missed, setMissed] = useState<AskedItems | null>(null);
  const [smaller, setSmaller] = useState(false);
  const [ordering, setOrdering] = useState(false);
  return (
    <Margin>
      <Remarks id={id} version={artefact.summary.version} content={content} />
      {figures !== undefined && figures.members.length > 0 && (
        <>
          <Wall figures={figures} />
          <Misses figures={figures} onAsk={canEdit ? setMissed : null} />
          <AddsNothing figures={figures} onSmaller={canEdit ? () => setSmaller(true) : null} />
          {canEdit && figures.members.length > 1 && figures.counts.shown > 0 && (
            <MarginNote title="Order and time">
              <p>How soon it shows what it shows, and what of it fits in an hour.</p>
              <TextButton onClick={() => setOrdering(true)}>order and time</TextButton>
            </MarginNote>
          )}
          {canEdit && (
            <MarginNote title="Hand-off">
              <p>{isSaved ? 'Give it to those who execute it, each with their part.' : 'It is handed off as it was saved last: save what you changed before.'}</p>
              <Link className="inline-block min-h-6 underline decoration-rule2 underline-offset-2" to={address.newHandOff(project, { suite: id })}>
                Hand it off
              </Link>
            </MarginNote>
          )}
          <Broken figures={figures} onAdd={canEdit ? onAdd : null} />
          <Newer figures={figures} />
          <AlsoIn id={id} figures={figures} />
        </>
      )}
      <OwnFields place="margin" id={id} kind="suite" own={content.own} canEdit={canEdit} onChange={(own) => update((c) => ({ ...c, own }))} />
      {smaller && <SmallerDialog suite={content} onRemove={onRemove} onClose={() => setSmaller(false)} />}
      {ordering && <OrderDialog suite={content} edit={edit} onRemove={onRemove} onClose={() => setOrdering(false)} />}
      {missed !== null && <AdditionsDialog suite={content} missed={missed} onAdd={onAdd} onClose={() => setMissed(null)} />}
    </Margin>
  );
}

const MOST_REQUIREMENTS = 12;

/** The wall of the suite alone: requirements that something in it covers. */
function Wall({ figures: { requirements } }: { readonly figures: SuiteFigures }) {
  const { project } = useFrame();
  const [all, setAll] = useState(false);
  const shown = all ? requirements : requirements.slice(0, MOST_REQUIREMENTS);
  return (
    <MarginNote title="What it shows">
      {requirements.length === 0 && <p>None of its members covers a condition.</p>}
      <ul>
        {shown.map((r) => (
          <li key={r.id} className="py-[3px]">
            <Link to={address.conditions(project, r.id)} className="block truncate leading-4 text-ink hover:underline" title={`${r.id} ${r.title}: ${percentDown(shownRatio(r.counts)) ?? 0} % shown by this suite`}>
              {r.title}
            </Link>
            <Ticks conditions={r.conditions} most={30} />
          </li>
        ))}
      </ul>
      {requirements.length > shown.length && <TextButton onClick={() => setAll(true)}>{`${requirements.length - shown.length} more requirements`}</TextButton>}
    </MarginNote>
  );
}

/** By risk, what the suite does not show and something else does: each leads to what would show it. */
function Misses({ figures: { byRisk }, onAsk }: { readonly figures: SuiteFigures; readonly onAsk: ((missed: AskedItems) => void) | null }) {
  const risks = RISKS.filter((risk) => byRisk[risk].items > 0);
  if (risks.length === 0) return null;
  return (
    <MarginNote title="What it misses">
      <ul>
        {risks.map((risk) => {
          const { items, shown, elsewhere } = byRisk[risk];
          const nowhere = items - shown - elsewhere;
          return (
            <li key={risk} className="py-1">
              <b className="font-semibold text-ink">{RISK_WORD[risk]}</b>: {shown.toLocaleString(locale())} of {items.toLocaleString(locale())} shown
              {elsewhere > 0 && (
                <span className="block">
                  {countOf(elsewhere, 'item')} shown by other cases{onAsk === null ? '' : ': '}
                  {onAsk !== null && <TextButton onClick={() => onAsk({ risk })}>add what is missing</TextButton>}
                </span>
              )}
              {nowhere > 0 && <span className="block">{countOf(nowhere, 'item')} shown by nothing yet</span>}
            </li>
          );
        })}
      </ul>
    </MarginNote>
  );
}

const MOST_NAMED = 12;

/** Members without which the suite would show the same; each of them by itself. */
function AddsNothing({ figures: { members, requirements }, onSmaller }: { readonly figures: SuiteFigures; readonly onSmaller: (() => void) | null }) {
  const idle = members.filter((m) => countsInSuite(m) && m.alone === 0);
  // Where the suite shows nothing at all, nobody is spare for it.
  if (idle.length === 0 || requirements.length === 0) return null;
  return (
    <MarginNote title="Add nothing of their own">
      <p>Without any one of these it would show the same:</p>
      <Ids ids={idle.map((m) => m.of)} />
      {onSmaller !== null && <TextButton onClick={onSmaller}>make it smaller</TextButton>}
    </MarginNote>
  );
}

function Ids({ ids }: { readonly ids: readonly CoveringId[] }) {
  const { project } = useFrame();
  return (
    <p className="flex flex-wrap gap-x-2">
      {ids.slice(0, MOST_NAMED).map((of) => (
        <Link key={of} to={address.covering(project, of)} className="font-mono leading-6 underline decoration-rule2">
          {of}
        </Link>
      ))}
      {ids.length > MOST_NAMED && <span className="leading-6">and {(ids.length - MOST_NAMED).toLocaleString(locale())} more</span>}
    </p>
  );
}

/** What members depend on and the suite does not have before them. */
function Broken({ figures: { broken }, onAdd }: { readonly figures: SuiteFigures; readonly onAdd: ((members: readonly CoveringId[]) => void) | null }) {
  if (broken.length === 0) return null;
  const absent = [...new Set(broken.flatMap((b) => (b.why === 'absent' ? [b.on] : [])))];
  return (
    <MarginNote title="Dependencies">
      <ul>
        {broken.slice(0, MOST_NAMED).map(({ of, on, why }) => (
          <li key={`${of} ${on}`}>
            <span className="font-mono text-ink">{of}</span> needs <span className="font-mono text-ink">{on}</span>, {why === 'absent' ? 'which is not in it' : 'which comes later'}
          </li>
        ))}
      </ul>
      {absent.length > 0 && onAdd !== null && <TextButton onClick={() => onAdd(absent)}>add {absent.join(', ')}</TextButton>}
    </MarginNote>
  );
}

/** Members of which there is a newer version than the one that is meant. */
function Newer({ figures: { members } }: { readonly figures: SuiteFigures }) {
  const { project } = useFrame();
  const behind = members.filter((m) => m.facts !== null && m.facts.version < m.facts.head);
  if (behind.length === 0) return null;
  return (
    <MarginNote title="Newer than meant here">
      <ul>
        {behind.slice(0, MOST_NAMED).map(({ of, facts }) => (
          <li key={of}>
            <span className="font-mono text-ink">{of}</span> v{facts?.version} → v{facts?.head}{' '}
            <Link className="underline decoration-rule2" to={`${address.versions(project, ownerOf(of))}?from=${facts?.version}&to=${facts?.head}`}>
              {parseScenarioId(of) === null ? 'difference' : 'difference of its feature'}
            </Link>
          </li>
        ))}
      </ul>
      {behind.length > MOST_NAMED && <p>and {(behind.length - MOST_NAMED).toLocaleString(locale())} more</p>}
    </MarginNote>
  );
}
