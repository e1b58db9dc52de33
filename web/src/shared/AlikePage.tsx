import type { CaseSummary } from '@caderno/contract';
import { Link } from 'react-router';
import { useAlike, useSummaries } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Empty, Section, countOf } from '../look/index.ts';

const MOST_PLACES = 6;

/** Runs of steps that stand in several places, and cases that are nearly the same: what is written twice. */
export function AlikePage() {
  const { project } = useFrame();
  const { data, error } = useAlike(project);
  const cases = new Map((useSummaries(project, 'case').data ?? []).map((c) => [c.id, c]));
  if (data === undefined) return <Loading error={error} />;
  const { search, runs, cases: pairs } = data;
  if (search === null && runs.length === 0 && pairs.length === 0) return <Empty title="Nothing is written twice">No three steps in a row stand in two places, and no two cases are nearly the same.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-4xl pb-10">
        <h1 className="font-serif text-2xl font-semibold">Written twice</h1>
        <p className="mt-1 text-sm text-ink2">Steps count as alike that say the same but for values, articles and one other word.</p>
        {search !== null && (
          <p role="status" className="mt-2 flex items-center gap-3 text-sm">
            <progress value={search.done} max={Math.max(1, search.of)} aria-label="Search" className="h-2 w-56" /> looking through the cases …
          </p>
        )}
        <Section title="Runs of steps" aside={`${countOf(runs.length, 'run')}, those first that would save most when written once`}>
          <ul className="text-sm">
            {runs.map((run) => (
              <li key={run.places.map((p) => `${p.id} ${p.steps[0] ?? ''}`).join(' ')} className="border-b border-rule py-2">
                <strong>{countOf(run.length, 'step')}</strong> in {countOf(run.places.length, 'place')}
                <ul className="mt-0.5">
                  {run.places.slice(0, MOST_PLACES).map((place) => (
                    <li key={`${place.id} ${place.steps[0] ?? ''}`} className="flex items-baseline gap-2 py-0.5">
                      <CaseLink project={project} id={place.id} summary={cases.get(place.id)} />
                      <Link className="ml-auto inline-flex min-h-7 shrink-0 items-center text-xs text-blue underline" to={`${address.cases(project, place.id)}?take=${place.steps.join(',')}`}>
                        take out there
                      </Link>
                    </li>
                  ))}
                  {run.places.length > MOST_PLACES && <li className="text-xs text-ink2">and {run.places.length - MOST_PLACES} more, found again when you take them out</li>}
                </ul>
              </li>
            ))}
          </ul>
        </Section>
        <Section title="Cases" aside={`${countOf(pairs.length, 'pair')} with at least 80 % of their steps in common`}>
          <ul className="text-sm">
            {pairs.map((pair) => (
              <li key={`${pair.first} ${pair.second}`} className="grid grid-cols-[1fr_1fr_4rem] items-baseline gap-3 border-b border-rule py-1.5">
                <CaseLink project={project} id={pair.first} summary={cases.get(pair.first)} />
                <CaseLink project={project} id={pair.second} summary={cases.get(pair.second)} />
                <span className="text-right text-xs tabular-nums text-ink2">{Math.round(pair.likeness * 100)} %</span>
              </li>
            ))}
          </ul>
        </Section>
      </div>
    </div>
  );
}

function CaseLink({ project, id, summary }: { readonly project: string; readonly id: `C-${number}`; readonly summary: CaseSummary | undefined }) {
  return (
    <Link className="inline-flex min-h-7 min-w-0 items-center hover:underline" to={address.cases(project, id)}>
      <span className="mr-1.5 font-mono text-xs text-ink2">{id}</span>
      {summary?.title}
    </Link>
  );
}
