import type { SuiteId } from '@caderno/core/artefacts';
import { percentDown, shownRatio } from '@caderno/core/coverage';
import type { SuiteLine } from '@caderno/contract';
import { useMemo, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useListed } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { ListPage, type LineLook, type Listing } from '../listing/index.ts';
import { STATE_WORD, TextButton, countOf } from '../look/index.ts';
import { OutsideDialog } from './OutsideDialog.tsx';
import { SmallestDialog } from './SmallestDialog.tsx';
import { effortWords } from './effortWords.ts';
import { useSuiteLines } from './suiteQueries.ts';
import { useOutside } from './useOutside.ts';

interface Props {
  readonly listing: Listing<'suite'>;
  readonly current: SuiteId | null;
  readonly onNew: () => void;
}

/** The index of suites: each with its size, and how much of all items it shows. */
export function SuiteIndex({ listing, current, onNew }: Props) {
  const lines = useSuiteLines().data;
  const byId = useMemo(() => new Map(lines?.map((line) => [line.id, line])), [lines]);
  const look = useMemo<LineLook<'suite'>>(
    () => ({
      notes: ({ head }) => {
        const line = byId.get(head.id);
        return [
          ...(line === undefined ? [] : effortWords(line)),
          ...(head.rules > 0 ? [head.members === 0 ? 'kept by a rule' : 'partly by a rule'] : []),
          ...(head.state === 'draft' ? [] : [STATE_WORD[head.state].toLowerCase()]),
        ];
      },
      mark: ({ head }) => <Share line={byId.get(head.id)} />,
    }),
    [byId],
  );
  const heading = <h1 className="font-serif text-xl font-semibold">Suites</h1>;
  return (
    <ListPage kind="suite" listing={listing} current={current} heading={heading} look={look} onNew={onNew}>
      {lines !== undefined && <Loose lines={lines} />}
      <Smallest />
      <HandOffs />
    </ListPage>
  );
}

/** How much of all items a suite shows, as a number and as a bar. */
function Share({ line }: { readonly line: SuiteLine | undefined }) {
  const percent = line === undefined ? null : percentDown(shownRatio(line.counts));
  if (percent === null) return null;
  return (
    <span className="w-14 shrink-0 pt-0.5 text-right" title={`${percent} % of all coverage items are shown by this suite`}>
      <span className="block font-mono text-xs">{percent} %</span>
      <span aria-hidden="true" className="mt-1 flex h-[7px] overflow-hidden rounded-[2px] border border-rule2 bg-page">
        <span className="bg-pine" style={{ width: `${percent}%` }} />
      </span>
    </span>
  );
}

/** Works out the smallest suite for a purpose. */
function Smallest() {
  const [open, setOpen] = useState(false);
  return (
    <p className="shrink-0 border-t border-rule px-5 py-2 text-xs print:hidden">
      <TextButton onClick={() => setOpen(true)}>Smallest suite</TextButton> <span className="text-ink2">that shows everything of a risk, a depth or some requirements</span>
      {open && <SmallestDialog onClose={() => setOpen(false)} />}
    </p>
  );
}

/** Leads to what was given to those who execute. */
function HandOffs() {
  const { project } = useFrame();
  return (
    <p className="shrink-0 border-t border-rule px-5 py-2 text-xs print:hidden">
      <Link className="inline-block min-h-6 leading-6 underline decoration-rule2" to={address.handOffs(project)}>
        Hand-offs
      </Link>{' '}
      <span className="text-ink2">what was given to those who execute</span>
    </p>
  );
}

/** What nobody has taken care of: what is in no suite, and what belongs to nobody or was never agreed. */
function Loose({ lines }: { readonly lines: readonly SuiteLine[] }) {
  const { project } = useFrame();
  const outside = useOutside(lines);
  const [open, setOpen] = useState(false);
  const nobody = useListed(project, 'case', '-has:owner').data?.length ?? 0;
  const never = useListed(project, 'case', '-has:agreed').data?.length ?? 0;
  if (outside === null || (outside.length === 0 && nobody === 0 && never === 0)) return null;
  const cases = outside.filter((o) => o.id.startsWith('C')).length;
  const words = [...(cases > 0 ? [countOf(cases, 'case')] : []), ...(outside.length > cases ? [countOf(outside.length - cases, 'scenario')] : [])].join(', ');
  return (
    <dl className="shrink-0 space-y-1.5 border-t border-rule px-5 py-3 text-xs text-ink2 print:hidden">
      {outside.length > 0 && (
        <Line title="In no suite">
          {words} <TextButton onClick={() => setOpen(true)}>look</TextButton>
        </Line>
      )}
      {nobody > 0 && (
        <Line title="Without an owner">
          {countOf(nobody, 'case')} <Link className="underline decoration-rule2" to={`${address.list(project, 'case')}?query=-has%3Aowner`}>Look</Link>
        </Line>
      )}
      {never > 0 && (
        <Line title="Never agreed">
          {countOf(never, 'case')} <Link className="underline decoration-rule2" to={`${address.list(project, 'case')}?query=-has%3Aagreed`}>Look</Link>
        </Line>
      )}
      {open && <OutsideDialog outside={outside} onClose={() => setOpen(false)} />}
    </dl>
  );
}

function Line({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-2">
      <dt className="font-semibold text-ink">{title}</dt>
      <dd>{children}</dd>
    </div>
  );
}
