import type { RequirementId } from '@caderno/core/artefacts';
import { TREND_PARTS, measuresOf, type TrendMeasure, type TrendPart } from '@caderno/core/trend';
import { requirementIdSchema } from '@caderno/contract';
import { useMemo } from 'react';
import { useParameters, type ParameterChange } from '../frame/index.ts';

/** How many days back one looks; 0: to the beginning. */
export const SPANS = [0, 90, 30, 7] as const;
export type Span = (typeof SPANS)[number];

/** How the trend is seen; all of it stands in the address. */
export interface TrendView {
  readonly part: TrendPart;
  readonly measure: TrendMeasure;
  readonly drawn: 'lines' | 'bars';
  readonly span: Span;
  /** Whose line it is, when it is that of a requirement; null: none is chosen yet. */
  readonly requirement: RequirementId | null;
  /** The revision of the day one looks at. */
  readonly at: number | null;
}

export interface TrendViewing {
  readonly view: TrendView;
  readonly setParameters: (change: ParameterChange) => void;
}

export function useTrendView(): TrendViewing {
  const [search, setParameters] = useParameters();
  const view = useMemo(() => readView(search), [search]);
  return { view, setParameters };
}

/** What an address does not say, or says in words nobody knows, is as at first. */
export function readView(search: URLSearchParams): TrendView {
  const part = TREND_PARTS.find((p) => p === search.get('of')) ?? 'whole';
  const requirement = requirementIdSchema.safeParse(search.get('requirement'));
  const at = /^\d{1,9}$/.exec(search.get('at') ?? '')?.[0];
  return {
    part,
    measure: measuresOf(part).find((m) => m === search.get('show')) ?? 'share',
    drawn: search.get('as') === 'bars' ? 'bars' : 'lines',
    span: SPANS.find((s) => String(s) === search.get('days')) ?? 0,
    requirement: requirement.success ? requirement.data : null,
    at: at === undefined ? null : Number(at),
  };
}
