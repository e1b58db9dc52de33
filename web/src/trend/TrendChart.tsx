import { baselineNumber } from '@caderno/core/baselines';
import type { Baseline } from '@caderno/contract';
import { useCallback, useMemo } from 'react';
import { Link } from 'react-router';
import { Curves } from '../charts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { STANDING_WORD } from '../look/index.ts';
import { BAR_COLOUR, BAR_STANDINGS, standsAsBars, trendSentence, type DrawnTrend, type NamedLine } from './drawnTrend.ts';
import type { TrendView } from './trendView.ts';
import { MEASURE_WORD, dayWords, valueWords } from './trendWords.ts';

interface Props {
  readonly drawn: DrawnTrend;
  readonly view: TrendView;
  readonly baselines: readonly Baseline[];
  readonly onDay: (revision: number) => void;
}

const DAY_MS = 86_400_000;

/** The curve, what its lines are, and the baselines in it. */
export function TrendChart({ drawn, view, baselines, onDay }: Props) {
  const { points, curves, barDays, drawnAt, lines, leftOut, xMost, yMost, yStep } = drawn;
  const { measure } = view;
  const first = Date.parse(points[0]?.at ?? '');
  const isStanding = standsAsBars(view);
  const inView = useMemo(() => baselines.filter((b) => Date.parse(b.at) >= first).toReversed(), [baselines, first]);
  const marks = useMemo(() => inView.map((b) => ({ x: (Date.parse(b.at) - first) / DAY_MS, name: `B-${b.number}` })), [first, inView]);
  const xWords = useCallback((x: number) => dayWords(new Date(first + x * DAY_MS).toISOString()), [first]);
  const yWords = useCallback((y: number) => (isStanding ? valueWords(y, 'items') : valueWords(y, measure)), [isStanding, measure]);
  const onPoint = useCallback(
    (drawnPlace: number) => {
      const point = points[drawnAt[drawnPlace] ?? -1];
      if (point !== undefined) onDay(point.revision);
    },
    [drawnAt, onDay, points],
  );
  if (view.part === 'requirement' && view.requirement === null) return <p className="mt-8 text-ink2">Choose the requirement whose coverage you want to see over time.</p>;
  if (points.length < 2) return <p className="mt-8 text-ink2">There is only today so far. From tomorrow on each day on which something changed is a point of the curve.</p>;
  if (lines.length === 0) return <p className="mt-8 text-ink2">Nothing of this was there in these days.</p>;
  return (
    <>
      <Curves className="mt-4 h-80" words={`${MEASURE_WORD[measure]}. ${trendSentence(drawn, view)}`} curves={curves} xName="" yName={isStanding ? 'coverage items' : MEASURE_WORD[measure]} xMost={xMost} yMost={yMost} yStep={yStep} marks={marks} xWords={xWords} yWords={yWords} onPoint={onPoint} />
      <ul aria-label="Lines" className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-xs">
        {isStanding
          ? BAR_STANDINGS.map((standing) => <Bar key={standing} colour={BAR_COLOUR[standing]} name={STANDING_WORD[standing]} />)
          : lines.map((line) => (view.drawn === 'bars' ? <Bar key={line.key} colour={line.colour} name={lineWords(line, view)} /> : <Line key={line.key} line={line} view={view} />))}
      </ul>
      {view.drawn === 'bars' && barDays > 1 && <p className="mt-1 text-xs text-ink2">A bar is of {barDays} days: what stood at their end.</p>}
      {leftOut.length > 0 && <p className="mt-1 text-xs text-ink2">Not drawn, as there are too many: {leftOut.join(', ')}.</p>}
      {inView.length > 0 && <Baselines baselines={inView} />}
      <p className="mt-3 text-xs text-ink2 print:hidden">Click a point, or a day at the right, to see what changed on it.</p>
    </>
  );
}

function lineWords({ name, values }: NamedLine, { measure }: TrendView): string {
  return `${name} ${valueWords(values.at(-1) ?? null, measure)}`;
}

function Line({ line, view }: { readonly line: NamedLine; readonly view: TrendView }) {
  return (
    <li className="inline-flex items-center gap-1.5 text-ink2">
      <span aria-hidden="true" className={`inline-block w-7 border-t-2 ${line.dashed ? 'border-dashed' : ''}`} style={{ borderColor: `var(--color-${line.colour})` }} />
      {lineWords(line, view)}
    </li>
  );
}

function Bar({ colour, name }: { readonly colour: string; readonly name: string }) {
  return (
    <li className="inline-flex items-center gap-1.5 text-ink2">
      <span aria-hidden="true" className="inline-block size-2.5 rounded-[2px]" style={{ background: `var(--color-${colour})` }} />
      {name}
    </li>
  );
}

function Baselines({ baselines }: { readonly baselines: readonly Baseline[] }) {
  const { project } = useFrame();
  return (
    <ul aria-label="Baselines" className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-xs text-ink2">
      {baselines.map((b) => (
        <li key={b.number}>
          <Link className="inline-flex min-h-6 items-center gap-1 underline decoration-rule2 underline-offset-2" to={address.baselines(project, baselineNumber(b.number))}>
            B-{b.number} {b.name}, {dayWords(b.at)}
          </Link>
        </li>
      ))}
    </ul>
  );
}
