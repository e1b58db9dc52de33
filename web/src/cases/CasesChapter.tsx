import { EMPTY_CASE } from '@caderno/core/cases';
import { caseIdSchema } from '@caderno/contract';
import { useCallback } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useMakeAndOpen } from '../artefacts/index.ts';
import { KeptModule, Spread, address, useFrame, useModuleBeside } from '../frame/index.ts';
import { ChapterOverview } from '../overview/index.ts';
import { countOf, TextButton } from '../look/index.ts';
import { useListCommands, useListing } from '../listing/index.ts';
import { SharedIndex } from '../reuse/index.ts';
import { UseDragging } from '../steps/index.ts';
import { CaseList } from './CaseList.tsx';
import { CasePage } from './CasePage.tsx';

const TITLES = { next: 'Open the next case', before: 'Open the case before', make: 'New case' };

/** The index of cases at the left, the case that is open at the right. */
export function CasesChapter() {
  const { project, canEdit } = useFrame();
  const parsed = caseIdSchema.safeParse(useParams().case);
  const current = parsed.success ? parsed.data : null;
  const [search, setSearch] = useSearchParams();
  const left = search.get('left') === 'shared' ? 'shared' : 'cases';
  const shared = useListing('shared', 'beside');
  const listing = useListing('case');
  const { list, ids } = listing;
  const moduleBeside = useModuleBeside();
  const makeAndOpen = useMakeAndOpen(project);
  const make = useCallback(() => {
    void makeAndOpen({ kind: 'case', content: { ...EMPTY_CASE, title: 'New case', module: moduleBeside(list?.find((c) => c.id === current)?.head.module) } });
  }, [current, list, makeAndOpen, moduleBeside]);
  useListCommands(ids, current, make, TITLES);
  const heading = (
    <LeftHeading shared={left === 'shared'} cases={list?.length} onShared={(on) => setSearch((now) => withLeft(now, on), { replace: true })} />
  );
  return (
    <UseDragging>
      <Spread
        chapter="cases"
        leftShare={30}
        leftLabel={left === 'shared' ? 'Shared steps' : 'Index of cases'}
        rightLabel="Case"
        left={
          left === 'shared' ? (
            <SharedIndex listing={shared} current={null} heading={heading} />
          ) : (
            <CaseList listing={listing} current={current} onNew={make} heading={heading} />
          )
        }
        right={
          current === null ? (
            <ChapterOverview kinds={['case']}>
              Open a case at the left{canEdit && <>, <TextButton className="first-letter:normal-case!" onClick={make}>write a new one</TextButton>, or <Link className="underline decoration-rule2 underline-offset-2" to={address.importingCases(project)}>bring some in from a spreadsheet</Link></>}. A case is one page: its purpose, its steps with parameters, its data, and what it shows.
            </ChapterOverview>
          ) : (
            <KeptModule id={current}>
              <CasePage id={current} />
            </KeptModule>
          )
        }
      />
    </UseDragging>
  );
}

/** The left page is the index of cases, or the shared steps, to be dragged into the case that is open. */
function LeftHeading({ shared, cases, onShared }: { readonly shared: boolean; readonly cases: number | undefined; readonly onShared: (on: boolean) => void }) {
  const look = (on: boolean): string => `font-serif ${on ? 'text-xl font-semibold' : 'text-base text-ink2 underline decoration-rule2 underline-offset-4'}`;
  return (
    <h1 className="flex items-baseline gap-4">
      <button type="button" aria-pressed={!shared} className={look(!shared)} onClick={() => onShared(false)}>
        Cases
      </button>
      {!shared && <span className="-ml-2 text-xs text-ink2">{cases === undefined ? '' : countOf(cases, 'case')}</span>}
      <button type="button" aria-pressed={shared} title="Shared steps at the left, to be dragged into the case" className={look(shared)} onClick={() => onShared(true)}>
        Shared steps
      </button>
    </h1>
  );
}

function withLeft(search: URLSearchParams, shared: boolean): URLSearchParams {
  const next = new URLSearchParams(search);
  if (shared) next.set('left', 'shared');
  else next.delete('left');
  return next;
}
