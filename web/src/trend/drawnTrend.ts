import type { StandingCounts } from '@caderno/core/coverage';
import { measuresOf, requirementLine, trendLines, type TrendLine } from '@caderno/core/trend';
import type { Trend, TrendPoint } from '@caderno/contract';
import type { Curve, CurveColour } from '../charts/index.ts';
import { STANDING_WORD } from '../look/index.ts';
import type { TrendView } from './trendView.ts';
import { lineName, valueWords } from './trendWords.ts';

const DAY_MS = 86_400_000;

/** Lines that are told apart: beyond, those with the largest last value are drawn. */
export const MOST_LINES = 6;
const COLOURS: readonly CurveColour[] = ['blue', 'brick', 'pine', 'ochre', 'plum', 'ink2'];

/** A line with its name, and how it is drawn. */
export interface NamedLine extends TrendLine {
  readonly name: string;
  readonly colour: CurveColour;
  readonly dashed: boolean;
}

/** What is drawn and told: the moments in view, each with its values. */
export interface DrawnTrend {
  /** In their order; the last is now. */
  readonly points: readonly TrendPoint[];
  readonly lines: readonly NamedLine[];
  /** Names of lines that are left out, as there are too many. */
  readonly leftOut: readonly string[];
  readonly curves: readonly Curve[];
  /** Days that a bar is of. */
  readonly barDays: number;
  /** The places in `points` that the curves go through. */
  readonly drawnAt: readonly number[];
  readonly xMost: number;
  readonly yMost: number;
  readonly yStep: number | undefined;
}

/** The counts of the requirement that is looked at, by revision. */
export type RequirementCounts = ReadonlyMap<number, StandingCounts | null>;

export function drawnTrend(trend: Trend, view: TrendView, ofRequirement: RequirementCounts): DrawnTrend {
  const points = inSpan(trend, view);
  const all = linesOf(trend, points, view, ofRequirement);
  const lines = all.slice(0, MOST_LINES);
  const isStanding = standsAsBars(view);
  const at = drawnPlaces(points, view);
  const curves = isStanding ? standingBars(points, at, view, ofRequirement) : lines.map((line): Curve => curveOf(line, at, view));
  const most = isStanding ? mostOfSums(curves) : view.drawn === 'bars' ? mostOfSums(curves) : Math.max(0, ...curves.flatMap((c) => c.points.map((p) => p.y ?? 0)));
  return { points, lines, leftOut: all.slice(MOST_LINES).map((l) => l.name), curves, barDays: barDays(points), drawnAt: at.map((a) => a.place), xMost: daysSince(points, points.length - 1), ...axisOf(most, view.measure === 'share' && !isStanding, view) };
}

/** Whether bars say how the items of one thing stand, which says more than how many there are. */
export function standsAsBars({ drawn, part, measure }: TrendView): boolean {
  return drawn === 'bars' && (part === 'whole' || part === 'requirement') && measuresOf('requirement').includes(measure);
}

/** Shares of several things cannot stand on each other. */
export function canBeBars({ part, measure }: Pick<TrendView, 'part' | 'measure'>): boolean {
  return part === 'whole' || part === 'requirement' || measure !== 'share';
}

/** Days from the first moment in view to another. */
export function daysSince(points: readonly TrendPoint[], place: number): number {
  const [first, then] = [points[0], points[place]];
  return first === undefined || then === undefined ? 0 : (Date.parse(then.at) - Date.parse(first.at)) / DAY_MS;
}

function inSpan({ points, now }: Trend, { span }: TrendView): TrendPoint[] {
  const from = span === 0 ? 0 : Date.parse(now.at) - span * DAY_MS;
  return [...points.filter((p) => Date.parse(p.at) >= from), now];
}

function linesOf(trend: Trend, points: readonly TrendPoint[], { part, measure, requirement }: TrendView, ofRequirement: RequirementCounts): NamedLine[] {
  const lines =
    part !== 'requirement' ? trendLines(points.map((p) => p.figures), part, measure) : requirement === null ? [] : [requirementLine(requirement, points.map((p) => ofRequirement.get(p.revision) ?? null), measure)];
  const ordered = lines.length <= MOST_LINES ? lines : lines.toSorted((a, b) => (b.values.at(-1) ?? 0) - (a.values.at(-1) ?? 0));
  return ordered.map((line, i) => ({ ...line, name: lineName(part, line.key, trend), colour: COLOURS[i % COLOURS.length] ?? 'blue', dashed: i % 2 === 1 }));
}

/** Bars side by side that are told apart. */
const MOST_BARS = 40;

/** A moment that is drawn, and what stood then: the place of the last change up to it. */
interface DrawnPlace {
  readonly x: number;
  readonly place: number;
}

function barDays(points: readonly TrendPoint[]): number {
  return Math.max(1, Math.ceil(daysSince(points, points.length - 1) / MOST_BARS));
}

/** Lines go through every moment. Of more days than there is room for bars, each bar is of so many days: what stood at their end. */
function drawnPlaces(points: readonly TrendPoint[], { drawn }: TrendView): DrawnPlace[] {
  const all = points.map((_, place) => ({ x: daysSince(points, place), place }));
  const days = all.at(-1)?.x ?? 0;
  const each = barDays(points);
  if (drawn !== 'bars' || each <= 1) return all;
  return Array.from({ length: Math.floor(days / each) + 1 }, (_, k) => days - k * each)
    .reverse()
    .map((x) => ({ x, place: all.findLastIndex((a) => a.x <= x) }));
}

function curveOf({ name, colour, dashed, values }: NamedLine, at: readonly DrawnPlace[], { drawn }: TrendView): Curve {
  return { name, colour, drawn: drawn === 'bars' ? 'bar' : 'line', dashed: dashed && drawn === 'lines', points: at.map(({ x, place }) => ({ x, y: values[place] ?? null })) };
}

/** From below: what is shown, and what is not, by why. */
export const BAR_STANDINGS = ['shown', 'linked', 'suspect', 'waiting', 'gap'] as const;
export const BAR_COLOUR: Readonly<Record<(typeof BAR_STANDINGS)[number], CurveColour>> = { shown: 'pine', linked: 'ochre', suspect: 'ink3', waiting: 'plum', gap: 'brick' };

function standingBars(points: readonly TrendPoint[], at: readonly DrawnPlace[], { part }: TrendView, ofRequirement: RequirementCounts): Curve[] {
  const counts = points.map((p) => (part === 'whole' ? p.figures.counts : (ofRequirement.get(p.revision) ?? null)));
  return BAR_STANDINGS.map((standing) => ({ name: STANDING_WORD[standing], colour: BAR_COLOUR[standing], drawn: 'bar', points: at.map(({ x, place }) => ({ x, y: counts[place]?.[standing] ?? null })) }));
}

function mostOfSums(curves: readonly Curve[]): number {
  const places = curves[0]?.points.map((_, i) => curves.reduce((sum, c) => sum + (c.points[i]?.y ?? 0), 0)) ?? [];
  return Math.max(0, ...places);
}

/** Where the axis ends. Of minutes its numbers are quarters of an hour, or whole hours. */
function axisOf(most: number, isShare: boolean, { measure }: TrendView): Pick<DrawnTrend, 'yMost' | 'yStep'> {
  if (isShare) return { yMost: 100, yStep: undefined };
  if (measure !== 'minutes' || most <= 0) return { yMost: roundedUp(most), yStep: undefined };
  const yStep = MINUTE_STEPS.find((step) => most / step <= MOST_STEPS) ?? 60 * roundedUp(most / 60 / MOST_STEPS);
  return { yStep, yMost: yStep * Math.ceil(most / yStep) };
}

const MOST_STEPS = 6;
const MINUTE_STEPS = [1, 5, 15, 30, 60, 120, 180, 240, 360, 480, 600] as const;

/** The next of 1, 2, 5 and their tens: an axis that ends on a number one can read. */
function roundedUp(most: number): number {
  if (most <= 0) return 1;
  const ten = 10 ** Math.floor(Math.log10(most));
  return ([1, 1.5, 2, 3, 5, 7.5, 10].find((step) => step * ten >= most) ?? 10) * ten;
}

/** What is to be seen, for those who do not see it. */
export function trendSentence({ points, lines }: DrawnTrend, { measure }: TrendView): string {
  const parts = lines.map(({ name, values }) => {
    const first = values.find((v) => v !== null) ?? null;
    return `${name}: from ${valueWords(first, measure)} to ${valueWords(values.at(-1) ?? null, measure)}`;
  });
  return `${points.length === 1 ? 'One moment' : `${points.length} moments`}. ${parts.join('; ')}.`;
}
