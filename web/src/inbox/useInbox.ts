import type { InboxMarks, InboxPart, InboxReason } from '@caderno/contract';
import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { call, tellFailure } from '../api/index.ts';

/** What reached one, page by page, and how it is marked. */
export function useInbox(project: string, part: InboxPart, reason: InboxReason | null) {
  const client = useQueryClient();
  const query = useInfiniteQuery({
    queryKey: [project, 'inbox', 'entries', part, reason],
    queryFn: ({ pageParam }) => call('readInbox', { params: { project }, query: { part, ...(reason === null ? {} : { reason }), ...(pageParam === null ? {} : { before: pageParam }) } }),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => (last.more ? (last.entries.at(-1)?.id ?? null) : null),
  });
  const mark = async (marks: InboxMarks): Promise<void> => {
    try {
      await call('markInbox', { params: { project }, body: marks });
      await client.invalidateQueries({ queryKey: [project, 'inbox'] });
    } catch (error) {
      tellFailure(error);
    }
  };
  return { ...query, entries: query.data?.pages.flatMap((p) => p.entries), mark };
}
