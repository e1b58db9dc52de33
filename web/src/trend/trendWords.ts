import type { Risk } from '@caderno/core/basis';
import type { Technique } from '@caderno/core/conditions';
import type { TrendMeasure, TrendPart } from '@caderno/core/trend';
import type { Trend } from '@caderno/contract';
import { RISK_WORD, TECHNIQUE_WORD, durationOf, locale } from '../look/index.ts';

export const PART_WORD: Readonly<Record<TrendPart, string>> = { whole: 'the whole project', risk: 'each risk', module: 'each module', technique: 'each technique', suite: 'each suite', requirement: 'one requirement' };

export const MEASURE_WORD: Readonly<Record<TrendMeasure, string>> = {
  share: 'share shown', shown: 'items shown', linked: 'items linked only', notShown: 'items not shown', items: 'coverage items', cases: 'cases', scenarios: 'scenarios', instances: 'instances', minutes: 'time to execute',
};

/** `46 %`, `1,204`, `2 h 10 min`; a share is rounded down, as everywhere. */
export function valueWords(value: number | null, measure: TrendMeasure): string {
  if (value === null) return '–';
  if (measure === 'share') return `${Math.floor(value)} %`;
  return measure === 'minutes' ? durationOf(value) : Math.round(value).toLocaleString(locale());
}

/** `+3`, `−2`, `+2 h`; a share in points of percent. */
export function differenceWords(before: number | null, value: number | null, measure: TrendMeasure): string {
  if (before === null || value === null) return '';
  const difference = measure === 'share' ? Math.floor(value) - Math.floor(before) : Math.round(value) - Math.round(before);
  return difference === 0 ? '' : `${difference > 0 ? '+' : '−'}${measure === 'minutes' ? durationOf(Math.abs(difference)) : Math.abs(difference).toLocaleString(locale())}`;
}

/** What a line is of: its key in words. */
export function lineName(part: TrendPart, key: string, { points, now }: Pick<Trend, 'points' | 'now'>): string {
  switch (part) {
    case 'whole':
      return 'whole project';
    case 'risk':
      return RISK_WORD[key as Risk];
    case 'technique':
      return TECHNIQUE_WORD[key as Technique];
    case 'module':
      return key === '' ? 'No module' : key;
    case 'suite':
      return `${key} ${[now, ...points.toReversed()].flatMap((p) => p.figures.suites).find((s) => s.id === key)?.title ?? ''}`;
    case 'requirement':
      return key;
  }
}

/** `27 November`, with the year where it is not this one. */
export function dayWords(at: string): string {
  const day = new Date(at);
  const isThisYear = day.getFullYear() === new Date().getFullYear();
  return day.toLocaleDateString(locale(), { day: 'numeric', month: 'short', ...(isThisYear ? {} : { year: 'numeric' }) });
}
