import { INBOX_PARTS, INBOX_REASONS, type InboxEntry, type InboxPart, type InboxReason } from '@caderno/contract';
import { useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Loading } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Choose, Empty, TextButton, dayName } from '../look/index.ts';
import { EntryLine } from './EntryLine.tsx';
import { ReachesDialog } from './ReachesDialog.tsx';
import { REASON_WORD } from './entryWords.ts';
import { useInbox } from './useInbox.ts';

const PART_WORD: Record<InboxPart, string> = { unread: 'Not read', kept: 'Kept', all: 'All' };
const EMPTY_WORDS: Record<InboxPart, string> = { unread: 'Nothing new for you', kept: 'Nothing is kept', all: 'Nothing has reached you yet' };

/** What reached one in the project, day by day, the latest first. */
export function InboxPage() {
  const { project } = useFrame();
  const [search, setSearch] = useSearchParams();
  const part = INBOX_PARTS.find((p) => p === search.get('part')) ?? 'unread';
  const reason = INBOX_REASONS.find((r) => r === search.get('reason')) ?? null;
  const { entries, error, mark, hasNextPage, fetchNextPage, isFetchingNextPage } = useInbox(project, part, reason);
  const [choosing, setChoosing] = useState(false);
  const list = useRef<HTMLDivElement>(null);
  const show = (nextPart: InboxPart, nextReason: InboxReason | null): void => setSearch({ ...(nextPart === 'unread' ? {} : { part: nextPart }), ...(nextReason === null ? {} : { reason: nextReason }) }, { replace: true });
  const move = (entry: InboxEntry, direction: -1 | 1): void => {
    const links = [...(list.current?.querySelectorAll<HTMLElement>('[data-entry]') ?? [])];
    links[links.findIndex((l) => l.dataset.entry === String(entry.id)) + direction]?.focus();
  };
  return (
    <div className="h-full overflow-y-auto px-8 py-6 max-phone:px-4">
      <div className="mx-auto max-w-4xl pb-10">
        <header className="flex flex-wrap items-center gap-x-3 gap-y-2">
          <h1 className="font-serif text-2xl font-semibold">Inbox</h1>
          <div role="group" aria-label="Which" className="flex gap-1">
            {INBOX_PARTS.map((p) => (
              <button key={p} type="button" aria-pressed={p === part} onClick={() => show(p, reason)} className={`min-h-chip rounded-field px-2 text-sm ${p === part ? 'bg-page2 font-semibold' : 'text-ink2 hover:bg-page2'}`}>
                {PART_WORD[p]}
              </button>
            ))}
          </div>
          <Choose label="Only" showLabel value={reason ?? ''} options={[{ value: '', name: 'everything' }, ...INBOX_REASONS.map((r) => ({ value: r, name: REASON_WORD[r] }))]} onChange={(value) => show(part, value === '' ? null : (value as InboxReason))} />
          <span className="ml-auto flex items-center gap-3 print:hidden">
            {entries?.some((e) => !e.read) === true && <TextButton onClick={() => void mark({ of: { everything: true }, read: true })}>Mark all as read</TextButton>}
            <Link to={address.mails(project)} className="text-sm text-ink2 underline decoration-rule2 underline-offset-2">
              Mails you sent
            </Link>
            <Button onClick={() => setChoosing(true)}>What reaches you</Button>
          </span>
        </header>
        {entries === undefined && <Loading error={error} />}
        {entries?.length === 0 && <Empty title={EMPTY_WORDS[part]}>You hear of what changes in what you follow: what you own, wrote in, are asked, or chose to follow; of remarks that name you, and of reviews that ask you.</Empty>}
        <div ref={list}>
          {daysOf(entries ?? []).map(([day, some]) => (
            <section key={day} aria-label={day} className="mt-4">
              <h2 className="border-b border-ink pb-0.5 text-sm font-semibold text-ink2">{day}</h2>
              <ul>
                {some.map((entry) => (
                  <EntryLine key={entry.id} entry={entry} onRead={(read) => void mark({ of: { ids: [entry.id] }, read })} onKeep={(kept) => void mark({ of: { ids: [entry.id] }, kept })} onMove={(direction) => move(entry, direction)} />
                ))}
              </ul>
            </section>
          ))}
        </div>
        {hasNextPage && (
          <Button className="mt-4" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
            Show earlier ones
          </Button>
        )}
      </div>
      {choosing && <ReachesDialog onClose={() => setChoosing(false)} />}
    </div>
  );
}

function daysOf(entries: readonly InboxEntry[]): [string, InboxEntry[]][] {
  const days = new Map<string, InboxEntry[]>();
  for (const entry of entries) {
    const day = dayName(entry.at);
    days.set(day, [...(days.get(day) ?? []), entry]);
  }
  return [...days];
}
