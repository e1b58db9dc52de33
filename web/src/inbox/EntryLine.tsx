import type { InboxEntry } from '@caderno/contract';
import { Bookmark, Circle } from 'lucide-react';
import { Link } from 'react-router';
import { useFrame } from '../frame/index.ts';
import { IconButton, ago, dateAndTime } from '../look/index.ts';
import { inboxEntryWords } from '@caderno/contract';
import { entryAddress, standingWords } from './entryWords.ts';

interface Props {
  readonly entry: InboxEntry;
  readonly onRead: (read: boolean) => void;
  readonly onKeep: (kept: boolean) => void;
  /** To the line above or below. */
  readonly onMove: (direction: -1 | 1) => void;
}

/** One thing that reached one: opened by a click or Enter, which reads it; Space marks it, with Shift it is kept. */
export function EntryLine({ entry, onRead, onKeep, onMove }: Props) {
  const { project } = useFrame();
  const { reason, by, at, artefact, review, text, read, kept } = entry;
  const standing = standingWords(entry);
  const keys: Readonly<Record<string, () => void>> = { ArrowDown: () => onMove(1), ArrowUp: () => onMove(-1), ' ': () => onRead(!read), 'Shift+ ': () => onKeep(!kept) };
  return (
    <li className={"group flex items-start border-b border-rule"}>
      <span className="mt-1.5 print:hidden">
        <IconButton label={read ? 'Mark as not read' : 'Mark as read'} icon={read ? <Circle size={11} aria-hidden="true" className="text-ink3" /> : <Circle size={11} aria-hidden="true" className="fill-current text-blue" />} onClick={() => onRead(!read)} />
      </span>
      <Link
        data-entry={entry.id}
        to={entryAddress(project, entry)}
        className="block min-w-0 flex-1 py-2 pr-2 hover:bg-page2"
        onClick={() => !read && onRead(true)}
        onKeyDown={(event) => {
          const act = event.ctrlKey || event.metaKey || event.altKey ? undefined : keys[`${event.shiftKey ? 'Shift+' : ''}${event.key}`];
          if (act === undefined) return;
          event.preventDefault();
          act();
        }}
      >
        <span className="flex flex-wrap items-baseline gap-x-1.5">
          {!read && <span className="sr-only">Not read: </span>}
          {reason !== 'imported' && reason !== 'unsent' && <strong className={read ? 'font-normal' : 'font-semibold'}>{by} </strong>}
          <span className="text-ink2">{inboxEntryWords(entry)} </span>
          {artefact !== null && (
            <span className="min-w-0">
              <span className="font-mono text-xs text-ink2">{artefact.id}</span> <span className={read ? '' : 'font-semibold'}>{artefact.title}</span>
              {!artefact.isThere && <span className="text-ink2"> (gone)</span>}
            </span>
          )}
          {review !== null && (
            <span>
              review {review.number}: <span className={read ? '' : 'font-semibold'}>{review.title}</span>
            </span>
          )}
          {standing !== '' && <span className="text-xs text-ink2"> {standing}</span>}
          <span className="ml-auto whitespace-nowrap text-xs text-ink2" title={dateAndTime(at)}>
            {ago(at)}
          </span>
        </span>
        {text !== '' && reason !== 'unsent' && <span className="mt-0.5 line-clamp-2 text-sm text-ink2">{text ?? 'It was taken back.'}</span>}
      </Link>
      <span className={`mt-1.5 print:hidden ${kept ? '' : 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100'}`}>
        <IconButton label={kept ? 'Keep no longer' : 'Keep'} icon={<Bookmark size={13} aria-hidden="true" className={kept ? 'fill-current text-blue' : ''} />} onClick={() => onKeep(!kept)} />
      </span>
    </li>
  );
}
