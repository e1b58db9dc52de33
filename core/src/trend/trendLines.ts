import { RISKS } from '../basis/index.ts';
import { TECHNIQUES } from '../conditions/index.ts';
import { itemsToShow, type StandingCounts } from '../coverage/index.ts';
import type { TrendFigures } from './trendFigures.ts';

/** What of a project is told over time: the whole, or its parts side by side. */
export const TREND_PARTS = ['whole', 'risk', 'module', 'technique', 'suite', 'requirement'] as const;
export type TrendPart = (typeof TREND_PARTS)[number];

/** What is told of it: the share of the items to be shown that are shown, or a number; instances and minutes are those of cases and scenarios together. */
export const TREND_MEASURES = ['share', 'shown', 'linked', 'notShown', 'items', 'cases', 'scenarios', 'instances', 'minutes'] as const;
export type TrendMeasure = (typeof TREND_MEASURES)[number];

/** Of these only the whole has a number. */
const OF_THE_WHOLE: readonly TrendMeasure[] = ['cases', 'scenarios', 'instances', 'minutes'];

/** What can be told of a part. */
export function measuresOf(part: TrendPart): readonly TrendMeasure[] {
  return part === 'whole' ? TREND_MEASURES : TREND_MEASURES.filter((m) => !OF_THE_WHOLE.includes(m));
}

/** What a part comes to at each of some moments: null where it was not there, or had nothing to show. */
export interface TrendLine {
  /** A risk, a technique, a module's name, the id of a suite or requirement; empty for the whole. */
  readonly key: string;
  readonly values: readonly (number | null)[];
}

/** The lines of a measure over moments in their order: risks from high to low, techniques in theirs, modules and suites as they first come. Parts that never have a value have no line. */
export function trendLines(points: readonly TrendFigures[], part: Exclude<TrendPart, 'requirement'>, measure: TrendMeasure): TrendLine[] {
  if (part === 'whole') return [{ key: '', values: points.map((p) => valueOfWhole(p, measure)) }];
  const parts = points.map((p) => partsOf(p, part));
  const keys = new Set(part === 'risk' ? RISKS : part === 'technique' ? TECHNIQUES : parts.flatMap((p) => [...p.keys()]));
  const lines = [...keys].map((key) => ({ key, values: parts.map((p) => valueOf(p.get(key), measure)) }));
  return lines.filter(({ values }) => values.some((value) => value !== null && value !== 0));
}

/** What a requirement comes to at each of some moments. */
export function requirementLine(key: string, counts: readonly (StandingCounts | null)[], measure: TrendMeasure): TrendLine {
  return { key, values: counts.map((c) => valueOf(c ?? undefined, measure)) };
}

function partsOf(figures: TrendFigures, part: 'risk' | 'module' | 'technique' | 'suite'): ReadonlyMap<string, StandingCounts> {
  switch (part) {
    case 'risk':
      return new Map(RISKS.map((risk) => [risk, figures.byRisk[risk]]));
    case 'technique':
      return new Map(TECHNIQUES.map((technique) => [technique, figures.byTechnique[technique]]));
    case 'module':
      return new Map(figures.byModule.map((m) => [m.module, m.counts]));
    case 'suite':
      return new Map(figures.suites.map((s) => [s.id, s.counts]));
  }
}

function valueOfWhole(figures: TrendFigures, measure: TrendMeasure): number | null {
  switch (measure) {
    case 'cases':
      return figures.cases;
    case 'scenarios':
      return figures.scenarios.scenarios;
    case 'instances':
    case 'minutes':
      return figures[measure] + figures.scenarios[measure];
    case 'share':
    case 'shown':
    case 'linked':
    case 'notShown':
    case 'items':
      return valueOf(figures.counts, measure);
  }
}

function valueOf(counts: StandingCounts | undefined, measure: TrendMeasure): number | null {
  if (counts === undefined) return null;
  const items = itemsToShow(counts);
  switch (measure) {
    case 'share':
      return items === 0 ? null : (100 * counts.shown) / items;
    case 'shown':
      return counts.shown;
    case 'linked':
      return counts.linked;
    case 'notShown':
      return items - counts.shown;
    case 'items':
      return items;
    case 'cases':
    case 'scenarios':
    case 'instances':
    case 'minutes':
      return null;
  }
}
