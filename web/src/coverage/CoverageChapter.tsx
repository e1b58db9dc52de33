import type { ArtefactId, RequirementId } from '@caderno/core/artefacts';
import { TECHNIQUES, type Technique } from '@caderno/core/conditions';
import { STANDINGS, itemsToShow, linkedRatio, percentDown, shownRatio, type CoverageReport, type Standing, type StandingCounts } from '@caderno/core/coverage';
import type { ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useCoverage, useReadMatrixAhead, useScenarioEffort } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { Spread, address, useFrame, useSeeAgreed } from '../frame/index.ts';
import { STANDING_WORD, StandingShape, TECHNIQUE_WORD, TextButton, countOf, durationOf, locale } from '../look/index.ts';
import { FirstSteps } from '../overview/index.ts';
import { Bars } from './Bars.tsx';
import { ItemsBehind, WorstGaps, type Behind } from './ItemsBehind.tsx';
import { Wall } from './Wall.tsx';

/** The wall at the left; at the right the worst gaps and the shares, or the list behind the number one clicked. */
export function CoverageChapter() {
  const [search] = useSearchParams();
  const { project } = useFrame();
  const { data: report, error } = useCoverage(project);
  if (report === undefined) return <Loading error={error} />;
  const behind = readBehind(search);
  return (
    <Spread
      chapter="coverage"
      leftShare={59}
      opened={behind === null ? null : search.toString()}
      leftLabel="Design coverage"
      rightLabel={behind === null ? 'Not yet shown' : 'Items'}
      left={
        <div className="flex h-full flex-col">
          <Numbers report={report} />
          <BrokenOnes ids={report.broken} />
          <Legend counts={report.counts} />
          <Wall report={report} />
        </div>
      }
      right={behind === null ? <Overview report={report} /> : <ItemsBehind behind={behind} />}
    />
  );
}

function Numbers({ report }: { readonly report: CoverageReport }) {
  const { project, isPast } = useFrame();
  const scenarios = useScenarioEffort(project);
  const readMatrixAhead = useReadMatrixAhead(project);
  const { counts, weighted } = report;
  return (
    <header className="px-6 pb-4 pt-5">
      <div className="flex items-baseline justify-between gap-4">
        <h1 className="font-serif text-2xl font-semibold">Design coverage</h1>
        <span className="inline-flex items-baseline gap-5 text-sm print:hidden">
          {isPast ? (
            <Link className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={address.specification(project)}>
              Specification
            </Link>
          ) : (
            <>
              <Link className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={address.report(project)}>
                Report
              </Link>
              <Link className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={address.trend(project)}>
                Over time
              </Link>
            </>
          )}
          <Link className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={address.matrix(project)} onPointerEnter={readMatrixAhead} onFocus={readMatrixAhead}>
            Matrix
          </Link>
          <Link className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={address.counts(project)}>
            Counts
          </Link>
          <OnlyAgreed />
        </span>
      </div>
      <ul className="mt-2 grid grid-cols-[repeat(5,auto)] justify-between gap-x-4">
        <Figure to="?standing=shown" value={percentWords(percentDown(shownRatio(counts)))} words="shown by rows and expected results" />
        <Figure to="?list=unanalysed" value={`${report.unanalysed.length.toLocaleString(locale())}\u00a0of\u00a0${report.requirements.length.toLocaleString(locale())}`} words="requirements not analysed yet" />
        <Figure to="?standing=shown,linked" value={percentWords(percentDown(linkedRatio(counts)))} words="including items only linked" />
        <Figure to="?standing=gap,linked,waiting,suspect" value={percentWords(percentDown(shownRatio(weighted)))} words="shown, weighed by risk" />
        <Figure to="?standing=shown,linked,waiting,suspect,gap" value={itemsToShow(counts).toLocaleString(locale())} words={`coverage items in ${countOf(report.instances + scenarios.instances, 'instance')}, ${durationOf(report.minutes + scenarios.minutes)}`} />
      </ul>
    </header>
  );
}

/** Leads to the coverage of what people agreed to. */
function OnlyAgreed() {
  const see = useSeeAgreed(useFrame().project);
  return see === null ? null : <TextButton className="text-sm print:hidden" onClick={see}>only what is agreed</TextButton>;
}

/** What is not counted because it cannot be read. */
function BrokenOnes({ ids }: { readonly ids: readonly ArtefactId[] }) {
  const { project } = useFrame();
  if (ids.length === 0) return null;
  return (
    <p role="status" className="bg-brick-wash px-6 py-1.5 text-sm text-brick">
      {countOf(ids.length, 'artefact')} cannot be read; what stands in {ids.length === 1 ? 'it' : 'them'} is not counted:{' '}
      {ids.slice(0, 12).map((id, i) => (
        <span key={id}>
          {i > 0 && ', '}
          <Link to={address.artefact(project, id)} className="font-mono text-xs underline">
            {id}
          </Link>
        </span>
      ))}
      {ids.length > 12 && ' …'}
    </p>
  );
}

function Figure({ value, words, to }: { readonly value: string; readonly words: string; readonly to: string }) {
  return (
    <li>
      <Link to={to} className="group block max-w-[8.2rem]">
        <span className="block whitespace-nowrap font-serif text-3xl font-bold leading-9 group-hover:underline">{value}</span>
        <span className="block text-xs leading-4 text-ink2">{words}</span>
      </Link>
    </li>
  );
}

function Legend({ counts }: { readonly counts: StandingCounts }) {
  const order: readonly Standing[] = ['shown', 'linked', 'gap', 'waiting', 'suspect', 'leftOut'];
  return (
    <ul className="flex flex-wrap gap-x-5 gap-y-1 border-y border-rule bg-page2 px-6 py-2 text-xs" aria-label="Standings">
      {order
        .filter((s) => STANDINGS.includes(s))
        .map((standing) => (
          <li key={standing}>
            <Link to={`?standing=${standing}`} className="inline-flex min-h-6 items-center gap-1.5 text-ink2 hover:underline">
              <StandingShape standing={standing} /> {STANDING_WORD[standing]} <span className="font-mono">{counts[standing]}</span>
            </Link>
          </li>
        ))}
    </ul>
  );
}

function Overview({ report }: { readonly report: CoverageReport }): ReactNode {
  return (
    <div className="px-6 pb-12 pt-1">
      <FirstSteps />
      <WorstGaps report={report} />
      <Bars title="By technique" bars={TECHNIQUES.map((t) => ({ name: TECHNIQUE_WORD[t], counts: report.byTechnique[t], to: `?technique=${t}` }))} />
      <Bars title="By module" bars={report.byModule.map((m) => ({ name: m.module || 'No module', counts: m.counts, to: `?module=${encodeURIComponent(m.module)}` }))} />
    </div>
  );
}

function readBehind(search: URLSearchParams): Behind | null {
  if (search.get('list') === 'unanalysed') return { kind: 'unanalysed' };
  const standings = (search.get('standing') ?? '').split(',').filter((s): s is Standing => STANDINGS.some((known) => known === s));
  const technique = TECHNIQUES.find((t): t is Technique => t === search.get('technique')) ?? null;
  const module = search.get('module');
  const requirement = search.get('requirement') as RequirementId | null;
  if (standings.length === 0 && technique === null && module === null && requirement === null) return null;
  return { kind: 'items', standings, technique, module, requirement };
}

function percentWords(percent: number | null): string {
  return percent === null ? '–' : `${percent} %`;
}
