import { useQuery, useQueryClient, type QueryKey } from '@tanstack/react-query';
import { useEffect } from 'react';
import { call } from './client.ts';

/** While days of the past are still to be counted it asks for that, and for the answer of `key` anew, which becomes finer. Answers why it could not. */
export function useTrendCounting(project: string, left: number, key: QueryKey): unknown {
  const client = useQueryClient();
  // Counting is a question of its own: what is counted is there already while it goes on.
  const { data, error } = useQuery({ queryKey: [project, 'coverage', 'trendCount', left], queryFn: () => call('countTrend', { params: { project }, body: {} }), enabled: left > 0, staleTime: Number.POSITIVE_INFINITY });
  const counted = data?.left;
  const place = JSON.stringify(key);
  useEffect(() => {
    if (counted !== undefined && counted !== left) void client.invalidateQueries({ queryKey: JSON.parse(place) as QueryKey, exact: true });
  }, [client, counted, left, place]);
  return error;
}
