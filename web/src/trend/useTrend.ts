import { useQuery } from '@tanstack/react-query';
import type { RequirementId } from '@caderno/core/artefacts';
import type { Trend } from '@caderno/contract';
import { call, useTrendCounting } from '../api/index.ts';

/** What the project came to over time; while days are still to be counted it asks for that, and becomes finer. */
export function useTrend(project: string): { readonly trend: Trend | undefined; readonly error: unknown } {
  const key = [project, 'coverage', 'trend'];
  const { data, error } = useQuery({ queryKey: key, queryFn: () => call('readTrend', { params: { project } }) });
  const counting = useTrendCounting(project, data?.left ?? 0, key);
  return { trend: data, error: error ?? counting };
}

/** What a requirement came to at the days that are counted, by their revisions. */
export function useRequirementTrend(project: string, requirement: RequirementId | null, counted: number) {
  return useQuery({
    queryKey: [project, 'coverage', 'trendOf', requirement, counted],
    queryFn: () => call('readRequirementTrend', { params: { project, id: requirement ?? 'R-0' } }),
    enabled: requirement !== null,
  }).data;
}

/** What made the curve bend on a day; `before`: the day before, as far as it is counted: once a nearer one is, it is told against that. */
export function useBends(project: string, revision: number, before: number) {
  return useQuery({ queryKey: [project, 'coverage', 'bends', revision, before], queryFn: () => call('readBends', { params: { project, revision } }) });
}
