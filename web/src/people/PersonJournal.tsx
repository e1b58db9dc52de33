import type { PersonEvent } from '@caderno/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { failureSentence } from '../api/index.ts';
import { Section, TextButton, dateAndTime } from '../look/index.ts';
import { personEventSentence } from './personEventSentence.ts';

interface Props {
  readonly title: string;
  readonly queryKey: readonly unknown[];
  /** The entries before one, newest first. */
  readonly read: (before: number | undefined) => Promise<PersonEvent[]>;
}

/** The journal of people, newest first; older entries on demand. */
export function PersonJournal({ title, queryKey, read }: Props) {
  const { data, error, fetchNextPage, hasNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey,
    queryFn: ({ pageParam }) => read(pageParam),
    initialPageParam: undefined as number | undefined,
    // A page that is not full is the last one.
    getNextPageParam: (page: PersonEvent[]) => (page.length < 100 ? undefined : page.at(-1)?.id),
    retry: false,
  });
  const events = data?.pages.flat() ?? [];
  return (
    <Section title={title}>
      {error !== null && <p className="mt-2 text-sm text-brick">{failureSentence(error)}</p>}
      {data !== undefined && events.length === 0 && <p className="mt-2 text-sm text-ink2">Nothing yet.</p>}
      <ol className="divide-y divide-rule text-sm" aria-label={title}>
        {events.map((event) => (
          <li key={event.id} className="flex gap-3 py-1.5">
            <time dateTime={event.at} className="w-36 shrink-0 text-xs leading-5 text-ink2">
              {dateAndTime(event.at)}
            </time>
            <span className="min-w-0 flex-1 break-words">{personEventSentence(event)}.</span>
          </li>
        ))}
      </ol>
      {hasNextPage && (
        <TextButton className="mt-2 text-sm" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          older entries
        </TextButton>
      )}
    </Section>
  );
}
