import { itemsToShow, type StandingCounts } from '@caderno/core/coverage';
import type { Bend } from '@caderno/core/trend';
import { momentKey, type TrendPoint } from '@caderno/contract';
import { Link } from 'react-router';
import { Loading } from '../artefacts/index.ts';
import { Changes } from '../changes/index.ts';
import { address, useFrame, useParameters } from '../frame/index.ts';
import { STANDING_WORD, TextButton, countOf, dayName } from '../look/index.ts';
import type { DrawnTrend } from './drawnTrend.ts';
import type { TrendView } from './trendView.ts';
import { differenceWords, valueWords } from './trendWords.ts';
import { useBends } from './useTrend.ts';

interface Props {
  readonly drawn: DrawnTrend;
  readonly view: TrendView;
  readonly day: TrendPoint;
}

/** What made the curve bend on a day: the requirements that came to something else, and what was done. */
export function DayBends({ drawn, view, day }: Props) {
  const { project } = useFrame();
  const place = drawn.points.indexOf(day);
  const { data, error } = useBends(project, day.revision, drawn.points[place - 1]?.revision ?? 0);
  const isNow = place === drawn.points.length - 1;
  return (
    <div className="px-6 pb-10 pt-5">
      <Steps drawn={drawn} place={place} />
      <h2 className="mt-1 font-serif text-lg font-semibold">{isNow ? 'Since the last day' : dayName(day.at)}</h2>
      <ul className="mt-1 text-sm text-ink2">
        {drawn.lines.map((line) => (
          <li key={line.key}>
            {line.name}: <span className="font-semibold text-ink">{valueWords(line.values[place] ?? null, view.measure)}</span> {place === 0 ? '' : differenceWords(line.values[place - 1] ?? null, line.values[place] ?? null, view.measure)}
          </li>
        ))}
      </ul>
      {!isNow && (
        <p className="mt-1 text-sm print:hidden">
          <Link className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={address.coverage(momentKey(project, { kind: 'revision', revision: day.revision, agreedOnly: false }))}>
            Look back at the project of then
          </Link>
        </p>
      )}
      {data === undefined ? (
        <Loading error={error} />
      ) : (
        <>
          <h3 className="mt-4 border-b border-ink pb-1 text-sm font-semibold">{data.total === 0 ? 'No requirement came to anything else' : `${countOf(data.total, 'requirement')} came to something else`}</h3>
          <ul className="divide-y divide-rule">
            {data.bends.map((bend) => (
              <BendLine key={bend.id} bend={bend} />
            ))}
          </ul>
          {data.total > data.bends.length && <p className="mt-1 text-xs text-ink2">and {countOf(data.total - data.bends.length, 'more', 'more')}</p>}
          <h3 className="mt-5 text-sm font-semibold">What was done</h3>
          <Changes project={project} between={{ after: data.from, upTo: day.revision }} />
        </>
      )}
    </div>
  );
}

/** To the day before, the day after, and back to all days. */
function Steps({ drawn, place }: { readonly drawn: DrawnTrend; readonly place: number }) {
  const [, setParameters] = useParameters();
  const go = (revision: number | null) => (): void => setParameters({ at: revision === null ? null : String(revision) });
  const [before, day, next] = [drawn.points[place - 1], drawn.points[place], drawn.points[place + 1]];
  // Now is as that day left it as long as nothing was done since.
  const after = next?.revision === day?.revision ? undefined : next;
  return (
    <p className="flex gap-4 text-sm print:hidden">
      <TextButton onClick={go(null)}>All days</TextButton>
      {before !== undefined && <TextButton onClick={go(before.revision)}>Day before</TextButton>}
      {after !== undefined && <TextButton onClick={go(after.revision)}>Day after</TextButton>}
    </p>
  );
}

function BendLine({ bend: { id, title, before, after } }: { readonly bend: Bend }) {
  const { project } = useFrame();
  return (
    <li className="py-1.5 text-sm">
      <span className="mr-2 font-mono text-xs text-ink2">{id}</span>
      {after === null ? (
        <span className="font-semibold">{title}</span>
      ) : (
        <Link className="font-semibold hover:underline" to={address.artefact(project, id)}>
          {title}
        </Link>
      )}
      <span className="block text-xs text-ink2">{bendWords(before, after)}</span>
    </li>
  );
}

const TOLD = ['shown', 'linked', 'gap', 'suspect', 'waiting', 'leftOut'] as const;

/** `4 of 10 items shown, 3 before; gap 6, 7 before`. */
export function bendWords(before: StandingCounts | null, after: StandingCounts | null): string {
  if (before === null && after === null) return '';
  if (after === null) return `counted no more; it had ${countOf(itemsToShow(before ?? NONE), 'item')}, ${before?.shown ?? 0} shown`;
  const now = `${after.shown} of ${countOf(itemsToShow(after), 'item')} shown`;
  if (before === null) return `counted since then: ${now}`;
  const moved = TOLD.filter((standing) => standing !== 'shown' && before[standing] !== after[standing]).map((standing) => `${STANDING_WORD[standing]} ${after[standing]}, before ${before[standing]}`);
  const then = itemsToShow(before) === 0 ? 'nothing to show before' : `before ${before.shown} of ${itemsToShow(before)}`;
  return [`${now}, ${then}`, ...moved].join('; ');
}

const NONE: StandingCounts = { leftOut: 0, waiting: 0, suspect: 0, shown: 0, linked: 0, gap: 0 };
