import type { BaselineNumber } from '@caderno/core/baselines';
import type { DesignReport } from '@caderno/core/report';
import { useQuery } from '@tanstack/react-query';
import { call, useTrendCounting } from '../api/index.ts';

/** What those who decide are told, held against a baseline; the curve becomes finer while days are counted. `past`: why they could not be. */
export function useReport(project: string, since: BaselineNumber | null | undefined): { readonly report: DesignReport | undefined; readonly error: unknown; readonly past: unknown } {
  const key = [project, 'coverage', 'report', since ?? 0];
  const { data, error } = useQuery({ queryKey: key, queryFn: () => call('readReport', { params: { project }, query: since == null ? {} : { since } }), enabled: since !== undefined });
  const past = useTrendCounting(project, data?.trend.left ?? 0, key);
  return { report: data, error, past };
}
