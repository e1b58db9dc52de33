import { useQuery } from '@tanstack/react-query';
import { call } from './client.ts';

export const SESSION_KEY = ['session'] as const;

/** Who is signed in, and how one can. */
export function useSession() {
  return useQuery({ queryKey: SESSION_KEY, queryFn: () => call('readSession'), staleTime: 60_000 });
}
