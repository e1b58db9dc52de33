import { RISKS, type Risk } from '@caderno/core/basis';
import { EMPTY_SUITE, smallerProblem, withMembers, type SmallerBy } from '@caderno/core/suites';
import type { BodyOf, ResponseOf } from '@caderno/contract';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { failureSentence, useListed, useSettings } from '../api/index.ts';
import { useWrite } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { QueryLine } from '../listing/index.ts';
import { Busy, Button, Choose, Dialog, RISK_WORD, TextButton, countOf } from '../look/index.ts';
import { newEntryId, useMemberTitle } from '../suiteMembers/index.ts';
import { BY, SmallestSaid } from './SmallestSaid.tsx';
import { useCandidates } from './suiteQueries.ts';
import { useWorkedOut } from './useWorkedOut.ts';

/** Of what everything is to be shown. */
type Scope = 'everything' | Risk | `depth:${string}` | 'requirements';

/** How long is looked for something smaller before what was found is taken. */
const SECONDS = 60;
/** Members named at once. */
const MOST_NAMED = 200;

/** The smallest suite that shows everything of the project, a risk, a depth or some requirements, worked out of all cases and scenarios. */
export function SmallestDialog({ onClose }: { readonly onClose: () => void }) {
  const { project } = useFrame();
  const depths = useSettings(project).data?.settings.depths ?? [];
  const [scope, setScope] = useState<Scope>('everything');
  const [query, setQuery] = useState('');
  const [by, setBy] = useState<SmallerBy>('cases');
  const asked = useAsked(scope, query);
  const { data, error } = useCandidates(asked);
  const scopes: { readonly value: Scope; readonly name: string }[] = [
    { value: 'everything', name: 'everything' },
    ...RISKS.map((risk) => ({ value: risk, name: `everything of ${RISK_WORD[risk].toLowerCase()}` })),
    ...depths.map((depth) => ({ value: `depth:${depth}` as const, name: `everything of the depth ${depth}` })),
    { value: 'requirements', name: 'everything of some requirements' },
  ];
  const name = scopes.find((s) => s.value === scope)?.name ?? '';
  return (
    <Dialog title="Smallest suite" onClose={onClose} wide>
      <p className="mb-2 flex flex-wrap items-center gap-3 text-sm">
        <Choose label="It is to show" showLabel value={scope} options={scopes} onChange={setScope} />
        <Choose label="As small as possible" showLabel value={by} options={BY} onChange={setBy} />
      </p>
      {scope === 'requirements' && (
        <div className="mb-2 flex">
          <QueryLine kind="requirement" query={query} onQuery={setQuery} />
        </div>
      )}
      {asked === null ? (
        <p className="text-sm text-ink2">Say which requirements, as in their list: module:readings, risk:high, or some words.</p>
      ) : data === undefined ? (
        <p className="text-sm text-ink2">{error === null ? 'Reading …' : failureSentence(error)}</p>
      ) : (
        <Found key={by} showing={data} by={by} title={scope === 'requirements' ? `everything of ${query.trim()}` : name} onClose={onClose} />
      )}
      {(asked === null || data === undefined) && (
        <p className="mt-4 text-right">
          <Button onClick={onClose}>Cancel</Button>
        </p>
      )}
    </Dialog>
  );
}

/** Null: which requirements is not said yet, or none is found. */
function useAsked(scope: Scope, query: string): BodyOf<'readCandidates'> | null {
  const { project } = useFrame();
  const found = useListed(project, 'requirement', scope === 'requirements' ? query : '').data;
  return useMemo(() => {
    if (scope === 'everything') return {};
    if (scope === 'high' || scope === 'medium' || scope === 'low') return { risk: scope };
    if (scope !== 'requirements') return { depth: scope.slice('depth:'.length) };
    return query.trim() === '' || found === undefined || found.length === 0 ? null : { requirements: found.map((f) => f.head.id) };
  }, [found, query, scope]);
}

interface FoundProps {
  readonly showing: ResponseOf<'readCandidates'>;
  readonly by: SmallerBy;
  /** What the suite is called. */
  readonly title: string;
  readonly onClose: () => void;
}

function Found({ showing, by, title, onClose }: FoundProps) {
  const { project, canEdit } = useFrame();
  const titleOf = useMemberTitle(project);
  const write = useWrite(project);
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const smallest = useWorkedOut(useMemo(() => ({ kind: 'smallest' as const, problem: smallerProblem(showing, by), seconds: SECONDS }), [by, showing]));
  const chosen = (smallest.found?.chosen ?? []).flatMap((place) => showing.members[place]?.of ?? []);
  const make = async (): Promise<void> => {
    setBusy(true);
    const entries = withMembers([], chosen, null, newEntryId);
    const made = await write({ made: [{ kind: 'suite', content: { ...EMPTY_SUITE, title: title.charAt(0).toUpperCase() + title.slice(1), entries }, under: null }], detail: `the smallest suite for ${title}` });
    setBusy(false);
    const [id] = made ?? [];
    if (id === undefined) return;
    onClose();
    await navigate(address.artefact(project, id));
  };
  return (
    <>
      {showing.members.length === 0 ? <p className="text-sm">No case or scenario shows any of it.</p> : <SmallestSaid smallest={smallest} showing={showing} by={by} what="all of it that is shown" />}
      {showing.shownByNothing > 0 && <p className="mt-1 text-sm text-ink2">{countOf(showing.shownByNothing, 'item')} of it {showing.shownByNothing === 1 ? 'is' : 'are'} shown by nothing yet: no suite can.</p>}
      {chosen.length > 0 && (
        <ol aria-label="Members of the smallest suite" className="mt-3 max-h-[40vh] overflow-y-auto border-t border-rule text-sm" tabIndex={0}>
          {chosen.slice(0, MOST_NAMED).map((of) => (
            <li key={of} className="flex gap-3 border-b border-rule py-1">
              <span className="w-14 shrink-0 font-mono text-xs leading-5 text-ink2">{of}</span>
              <span className="min-w-0 flex-1">{titleOf(of)}</span>
            </li>
          ))}
          {chosen.length > MOST_NAMED && <li className="py-1 text-ink2">and {countOf(chosen.length - MOST_NAMED, 'more member')}</li>}
        </ol>
      )}
      <p className="mt-4 flex items-center justify-end gap-2">
        {smallest.state === 'working' && showing.members.length > 0 && (
          <span className="mr-auto flex items-center gap-3 text-sm">
            <Busy>Looking for something smaller …</Busy>
            <TextButton onClick={smallest.stop}>stop</TextButton>
          </span>
        )}
        <Button onClick={onClose}>{canEdit ? 'Cancel' : 'Close'}</Button>
        {canEdit && (
          <Button look="accent" disabled={busy || chosen.length === 0} onClick={() => void make()}>
            Make a suite of {countOf(chosen.length, 'member')}
          </Button>
        )}
      </p>
    </>
  );
}
