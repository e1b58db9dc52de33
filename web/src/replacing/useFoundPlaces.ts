import type { Search, TextPart } from '@caderno/core/replacing';
import type { Chosen, FoundInArtefact } from '@caderno/contract';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '../api/index.ts';

/** What was found: the places that are here, and how many there are in all. */
export interface Found {
  readonly revision: number;
  readonly places: readonly FoundInArtefact[];
  readonly total: number;
  readonly matches: number;
  readonly artefacts: number;
}

/** Looks through the texts of some artefacts; further places are fetched when `more` is called. */
export function useFoundPlaces(project: string, of: Chosen, search: Search, parts: readonly TextPart[]) {
  const { data, error, isFetching, hasNextPage, fetchNextPage } = useInfiniteQuery({
    queryKey: [project, 'places', of, search, parts],
    queryFn: ({ pageParam, signal }) => call('findPlaces', { params: { project }, body: { of, search, parts: [...parts], skip: pageParam } }, { signal }),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const told = pages.reduce((n, page) => n + page.places.length, 0);
      return last.places.length === 0 || told >= last.total ? undefined : told;
    },
    enabled: search.text !== '' && parts.length > 0,
    // A look through the texts is as old as it is: what changed since is left by the command.
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
    // What was found for the words before stays until the next is here: nothing flickers while one types.
    placeholderData: keepPreviousData,
  });
  const found = useMemo<Found | undefined>(() => {
    const [first] = data?.pages ?? [];
    return first === undefined ? undefined : { ...first, places: data?.pages.flatMap((page) => page.places) ?? [] };
  }, [data]);
  return { found, error, isFetching, more: hasNextPage && !isFetching ? () => void fetchNextPage() : null };
}
