import { useMemo } from 'react';
import { Link } from 'react-router';
import { useBaselines, useCoverage } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { Spread, address, useFrame } from '../frame/index.ts';
import { DayBends } from './DayBends.tsx';
import { Days } from './Days.tsx';
import { drawnTrend, type RequirementCounts } from './drawnTrend.ts';
import { TrendChart } from './TrendChart.tsx';
import { TrendChoices } from './TrendChoices.tsx';
import { useTrendView } from './trendView.ts';
import { useRequirementTrend, useTrend } from './useTrend.ts';

/** What the project came to over time as a curve; at the right its days, or what made it bend on one of them. */
export function TrendPage() {
  const { project } = useFrame();
  const { view, setParameters } = useTrendView();
  const { trend, error } = useTrend(project);
  const baselines = useBaselines(project).data;
  const ofRequirement = useRequirementCounts(project, view.requirement, trend?.now.revision ?? 0, trend?.points.length ?? 0);
  const drawn = useMemo(() => (trend === undefined ? undefined : drawnTrend(trend, view, ofRequirement)), [ofRequirement, trend, view]);
  if (trend === undefined || drawn === undefined) return <Loading error={error} />;
  const day = view.at === null ? undefined : drawn.points.find((p) => p.revision === view.at);
  return (
    <Spread
      chapter="trend"
      leftShare={60}
      opened={day === undefined ? null : String(day.revision)}
      leftLabel="Coverage over time"
      rightLabel={day === undefined ? 'Days' : 'What changed'}
      left={
        <div className="px-6 pb-10 pt-5">
          <div className="flex items-baseline justify-between gap-4">
            <h1 className="font-serif text-2xl font-semibold">Coverage over time</h1>
            <Link className="inline-flex min-h-6 items-center text-sm underline decoration-rule2 underline-offset-2 print:hidden" to={address.coverage(project)}>
              Design coverage now
            </Link>
          </div>
          <TrendChoices view={view} setParameters={setParameters} />
          <TrendChart drawn={drawn} view={view} baselines={baselines ?? []} onDay={(revision) => setParameters({ at: String(revision) })} />
          <Counting left={trend.left} days={trend.days} error={error} />
        </div>
      }
      right={day === undefined ? <Days drawn={drawn} view={view} /> : <DayBends key={day.revision} drawn={drawn} view={view} day={day} />}
    />
  );
}

/** How far the past is counted; nothing once it is. */
function Counting({ left, days, error }: { readonly left: number; readonly days: number; readonly error: unknown }) {
  if (error != null) return <p className="mt-3 text-sm text-brick">Some days could not be counted. What is drawn is right; open the page again to go on.</p>;
  if (left === 0) return null;
  return (
    <p role="status" className="mt-3 text-sm text-ink2">
      Counting the past from the journal: {days - left} of {days} days so far. It goes on while this page is open.
    </p>
  );
}

/** By revision: of days that are over as they were counted, of now as it stands. */
function useRequirementCounts(project: string, requirement: Parameters<typeof useRequirementTrend>[1], now: number, counted: number): RequirementCounts {
  const days = useRequirementTrend(project, requirement, counted);
  const report = useCoverage(project).data;
  return useMemo(() => {
    const row = report?.requirements.find((r) => r.id === requirement);
    return new Map([...(days ?? []).map((d) => [d.revision, d.counts] as const), [now, row?.counts ?? null]]);
  }, [days, now, report, requirement]);
}
