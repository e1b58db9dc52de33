import { MOST_OPEN_THREADS, type OpenThread } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useOpenThreads } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Empty, TextButton, ago, countOf, dateAndTime } from '../look/index.ts';

/** Open remarks of the project, what was said last first: those that wait for oneself, or all. */
export function RemarksPage() {
  const { project } = useFrame();
  const { data, error } = useOpenThreads(project);
  const [all, setAll] = useState(false);
  if (data === undefined) return <Loading error={error} />;
  const mine = data.filter((t) => t.forMe);
  const shown = all || mine.length === 0 ? data : mine;
  if (data.length === 0) return <Empty title="No remark is open">Say something beside any artefact: Alt R, at a step, on words, or on all of it. What is open stands here until it is settled.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-3xl pb-10">
        <header className="flex flex-wrap items-baseline gap-3">
          <h1 className="font-serif text-2xl font-semibold">{shown === mine ? 'Remarks for you' : 'Open remarks'}</h1>
          <span className="text-sm text-ink2">
            {countOf(shown.length, 'thread')}
            {shown === data && data.length === MOST_OPEN_THREADS ? ', the latest' : ''}
          </span>
          {mine.length > 0 && mine.length < data.length && (
            <TextButton className="ml-auto text-sm" onClick={() => setAll(!all)}>
              {all ? `only the ${mine.length} for you` : `all ${data.length} that are open`}
            </TextButton>
          )}
        </header>
        {mine.length === 0 && <p className="mt-1 text-sm text-ink2">None waits for you: nobody named you with @, or answered you, since you last said something.</p>}
        <ul aria-label="Open remarks" className="mt-3 border-t border-ink">
          {shown.map((thread) => (
            <Line key={thread.id} thread={thread} />
          ))}
        </ul>
      </div>
    </div>
  );
}

function Line({ thread: { artefact, title, said, text, name, at, answers, forMe } }: { readonly thread: OpenThread }) {
  const { project } = useFrame();
  return (
    <li className="border-b border-rule">
      <Link to={address.artefact(project, artefact)} className="block py-2.5 hover:bg-page2">
        <span className="flex flex-wrap items-baseline gap-x-2 text-xs text-ink2">
          <span className="font-mono">{artefact}</span>
          <span className="font-semibold text-ink">{title}</span>
          {said !== '' && <q className="max-w-[36ch] truncate">{said}</q>}
          <span className="ml-auto whitespace-nowrap" title={dateAndTime(at)}>
            {answers > 0 && `${countOf(answers, 'answer')} · `}
            {ago(at)}
          </span>
        </span>
        <span className="mt-0.5 line-clamp-2 text-sm">
          <strong className={forMe ? 'font-semibold text-blue' : 'font-semibold'}>{name}</strong> {text}
        </span>
      </Link>
    </li>
  );
}
