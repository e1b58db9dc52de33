import type { ArtefactKind } from '@caderno/core/artefacts';
import type { SavedQuery } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { call, tellFailure } from '../api/index.ts';

/** The queries of a kind that are kept, and the ways to keep and remove one. Answers whether it was done. */
export function useSavedQueries(project: string, kind: ArtefactKind): { readonly saved: readonly SavedQuery[]; readonly save: (query: Omit<SavedQuery, 'id' | 'kind'>) => Promise<boolean>; readonly remove: (id: string) => Promise<boolean> } {
  const client = useQueryClient();
  const queryKey = [project, 'savedQueries'];
  const { data } = useQuery({ queryKey, queryFn: () => call('listSavedQueries', { params: { project } }) });
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
    saved: data?.filter((query) => query.kind === kind) ?? [],
    save: (query) => take(call('saveQuery', { params: { project, query: crypto.randomUUID() }, body: { ...query, kind } })),
    remove: (id) => take(call('removeQuery', { params: { project, query: id } })),
  };
}
