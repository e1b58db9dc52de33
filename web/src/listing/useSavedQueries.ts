import type { ArtefactKind } from '@caderno/core/artefacts';
import type { CountsView, SavedQuery } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call, tellFailure } from '../api/index.ts';

/** A table of counts that is kept. */
export type SavedCounts = SavedQuery & { readonly counts: CountsView };

/** What is kept of queries, and the ways to keep and remove one. They answer whether it was done. */
interface Kept<S extends SavedQuery> {
  /** Undefined until it is known. */
  readonly saved: readonly S[] | undefined;
  /** Why it cannot be known. */
  readonly error: unknown;
  readonly save: (query: Omit<SavedQuery, 'id'>) => Promise<boolean>;
  readonly remove: (id: string) => Promise<boolean>;
}

/** The queries of a kind that are kept. */
export function useSavedQueries(project: string, kind: ArtefactKind): Kept<SavedQuery> {
  const { saved, ...ways } = useKept(project);
  return { saved: saved?.filter((query) => query.kind === kind && query.counts === null), ...ways };
}

/** The tables of counts that are kept. */
export function useSavedCounts(project: string): Kept<SavedCounts> {
  const { saved, ...ways } = useKept(project);
  return { saved: useMemo(() => saved?.filter((query): query is SavedCounts => query.counts !== null), [saved]), ...ways };
}

function useKept(project: string): Kept<SavedQuery> {
  const client = useQueryClient();
  const queryKey = [project, 'savedQueries'];
  const { data, error } = useQuery({ queryKey, queryFn: () => call('listSavedQueries', { params: { project } }) });
  const take = async (answer: Promise<readonly SavedQuery[]>): Promise<boolean> => {
    try {
      client.setQueryData(queryKey, await answer);
      return true;
    } catch (error) {
      tellFailure(error);
      return false;
    }
  };
  return {
    saved: data,
    error,
    save: (body) => take(call('saveQuery', { params: { project, query: crypto.randomUUID() }, body })),
    remove: (id) => take(call('removeQuery', { params: { project, query: id } })),
  };
}
