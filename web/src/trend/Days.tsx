import { Link } from 'react-router';
import { useParameters, withParameters } from '../frame/index.ts';
import type { DrawnTrend, NamedLine } from './drawnTrend.ts';
import type { TrendView } from './trendView.ts';
import { MEASURE_WORD, dayWords, differenceWords, valueWords } from './trendWords.ts';

/** The moments in view, the latest first, with the values of the lines; each leads to what changed then. */
export function Days({ drawn, view }: { readonly drawn: DrawnTrend; readonly view: TrendView }) {
  const { points, lines } = drawn;
  const newestFirst = points.map((point, place) => ({ point, place })).reverse();
  return (
    <div className="px-6 pb-10 pt-5">
      <h2 className="border-b border-ink pb-1 font-serif text-lg font-semibold">Days</h2>
      <table className="mt-1 w-full text-sm" aria-label={`Days: ${MEASURE_WORD[view.measure]}`}>
        <thead>
          <tr className="border-b border-rule2 text-left align-bottom text-xs text-ink2">
            <th scope="col" className="py-1 pr-2 font-medium">Day</th>
            {lines.map((line) => (
              <th key={line.key} scope="col" className="max-w-28 px-1 py-1 text-right font-medium">{line.name}</th>
            ))}
          </tr>
        </thead>
        <tbody className="divide-y divide-rule">
          {newestFirst.map(({ point, place }) => (
            <tr key={point.revision + point.at}>
              <th scope="row" className="whitespace-nowrap py-0.5 pr-2 text-left font-normal">
                {points[place - 1]?.revision === point.revision ? 'Now, as before' : <DayLink revision={point.revision}>{place === points.length - 1 ? 'Now' : dayWords(point.at)}</DayLink>}
              </th>
              {lines.map((line) => (
                <Value key={line.key} line={line} place={place} view={view} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Value({ line, place, view }: { readonly line: NamedLine; readonly place: number; readonly view: TrendView }) {
  const value = line.values[place] ?? null;
  const difference = place === 0 ? '' : differenceWords(line.values[place - 1] ?? null, value, view.measure);
  return (
    <td className="whitespace-nowrap px-1 py-0.5 text-right font-mono text-xs">
      {valueWords(value, view.measure)} <span className="inline-block min-w-8 text-ink2">{difference}</span>
    </td>
  );
}

function DayLink({ revision, children }: { readonly revision: number; readonly children: string }) {
  const [search] = useParameters();
  return (
    <Link className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={`?${withParameters(search, { at: String(revision) }).toString()}`} replace>
      {children}
    </Link>
  );
}
