import type { ArtefactId } from '@caderno/core/artefacts';
import { momentKey, type Change } from '@caderno/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useRefresh } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, TextButton, changeWords, dateAndTime, dayName, entryWords, manyWords, mayBeUndone, locale } from '../look/index.ts';

const PAGE = 100;

interface Props {
  readonly project: string;
  /** Only what concerns it. */
  readonly artefact?: ArtefactId;
  /** Only what was done after one revision up to another. */
  readonly between?: { readonly after: number; readonly upTo: number };
}

/** Entries of the journal, newest first, by day; each can be undone. */
export function Changes({ project, artefact, between }: Props) {
  const pages = useInfiniteQuery({
    queryKey: [project, 'journal', artefact ?? 'all', between ?? null],
    queryFn: ({ pageParam }) => call('listChanges', { params: { project }, query: { artefact, before: pageParam, after: between?.after } }),
    initialPageParam: between === undefined ? undefined : between.upTo + 1,
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last.at(-1)?.revision),
  });
  const changes = pages.data?.pages.flat() ?? [];
  if (pages.isSuccess && changes.length === 0) return <p className="mt-4 text-ink2">Nothing has been done yet.</p>;
  return (
    <>
      {byDay(changes).map(([day, entries]) => (
        <section key={day} className="mt-5" aria-label={day}>
          <h2 className="border-b border-ink pb-1 text-sm font-semibold">{day}</h2>
          <ol className="divide-y divide-rule">
            {entries.map((change) => (
              <ChangeLine key={change.id} project={project} change={change} named={artefact === undefined} />
            ))}
          </ol>
        </section>
      ))}
      {pages.hasNextPage && (
        <Button className="mt-4" onClick={() => void pages.fetchNextPage()}>
          Earlier entries
        </Button>
      )}
    </>
  );
}

function ChangeLine({ project, change, named }: { readonly project: string; readonly change: Change; readonly named: boolean }) {
  const refresh = useRefresh(project);
  const { canEdit, isPast } = useFrame();
  const undo = (): void =>
    void call('undoChange', { params: { project, change: change.id }, body: {} }, { commandId: crypto.randomUUID() }).then(() => {
      toast.success(`Undone: ${changeWords(change)}.`);
      return refresh();
    }, tellFailure);
  return (
    <li className={`flex items-baseline gap-3 py-2 ${change.undone ? 'text-ink2' : ''}`}>
      {named && <span className="w-12 shrink-0 font-mono text-xs text-ink2">{change.size > 1 ? '' : change.artefact}</span>}
      <span className="min-w-0 flex-1">
        {named && <ChangeTitle project={project} change={change} />}
        <span className="block text-xs text-ink2">
          {change.author} · {entryWords(change)}
          {change.note !== '' && <> · “{change.note}”</>}
          {change.undone && ' · undone'}
        </span>
      </span>
      <span className="flex shrink-0 items-baseline gap-3 text-xs text-ink2">
        {change.artefact !== null && (change.size === 1 || !named) && change.fromVersion !== null && change.toVersion !== null && (
          <Link className="underline" to={`${address.versions(project, change.artefact)}?from=${change.fromVersion}&to=${change.toVersion}`}>
            Compare
          </Link>
        )}
        {canEdit && mayBeUndone(change) && (
          <TextButton onClick={undo} aria-label={`Undo: ${changeWords(change)}`}>
            undo
          </TextButton>
        )}
        {!isPast && (
          <Link className="underline" to={thenAddress(project, change)} title="The whole project as it was right after this" aria-label={`Look back: right after “${changeWords(change)}”`}>
            Look back
          </Link>
        )}
        <time dateTime={change.at} title={dateAndTime(change.at)}>
          {new Date(change.at).toLocaleTimeString(locale(), { timeStyle: 'short' })}
        </time>
      </span>
    </li>
  );
}

/** The project right after a change, at what it changed. */
function thenAddress(project: string, { revision, artefact, size }: Change): string {
  const then = momentKey(project, { kind: 'revision', revision, agreedOnly: false });
  return artefact === null || size > 1 ? address.coverage(then) : address.artefact(then, artefact);
}

/** What a change is about: its one artefact, or what it did to many. */
function ChangeTitle({ project, change }: { readonly project: string; readonly change: Change }) {
  const look = `font-semibold ${change.undone ? 'line-through' : ''}`;
  if (change.artefact === null || change.size > 1) return <span className={look}>{manyWords(change)}</span>;
  return (
    <Link to={address.artefact(project, change.artefact)} className={`hover:underline ${look}`}>
      {change.title}
    </Link>
  );
}

function byDay(changes: readonly Change[]): [string, Change[]][] {
  const days = new Map<string, Change[]>();
  for (const change of changes) days.set(dayName(change.at), [...(days.get(dayName(change.at)) ?? []), change]);
  return [...days];
}
