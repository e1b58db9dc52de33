import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { RequirementId } from '@caderno/core/artefacts';
import type { Trend } from '@caderno/contract';
import { call } from '../api/index.ts';

/** What the project came to over time; while days are still to be counted it asks for that, and becomes finer. */
export function useTrend(project: string): { readonly trend: Trend | undefined; readonly error: unknown } {
  const client = useQueryClient();
  const { data, error } = useQuery({ queryKey: [project, 'coverage', 'trend'], queryFn: () => call('readTrend', { params: { project } }) });
  const left = data?.left ?? 0;
  // Counting is a question of its own: what is counted is there already while it goes on.
  const counting = useQuery({ queryKey: [project, 'coverage', 'trendCount', left], queryFn: () => call('countTrend', { params: { project }, body: {} }), enabled: left > 0, staleTime: Number.POSITIVE_INFINITY });
  const counted = counting.data?.left;
  useEffect(() => {
    if (counted !== undefined && counted !== left) void client.invalidateQueries({ queryKey: [project, 'coverage', 'trend'], exact: true });
  }, [client, counted, left, project]);
  return { trend: data, error: error ?? counting.error };
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
