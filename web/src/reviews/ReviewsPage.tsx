import type { ReviewLine } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useReviews } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Choose, Empty, ago, countOf, dateAndTime, useNow } from '../look/index.ts';
import { dayOf, dueWords, endWords, isOverdue, progressWords } from './reviewWords.ts';

/** The reviews of the project: those that ask oneself first; by person and module. */
export function ReviewsPage() {
  const { project } = useFrame();
  const { data, error } = useReviews(project);
  const [who, setWho] = useState('');
  const [module, setModule] = useState('');
  if (data === undefined) return <Loading error={error} />;
  if (data.length === 0) return <Empty title="No review yet">A review asks people to agree to exact versions. Ask for one from any artefact, by setting its state to In review, or from a selection in a list.</Empty>;
  const open = data.filter((r) => r.endedAt === null);
  const fits = (r: ReviewLine): boolean => (who === '' || r.asked.some((a) => a.person === who && a.waiting > 0)) && (module === '' || r.modules.includes(module));
  const shown = open.filter(fits);
  const ended = who === '' && module === '' ? data.filter((r) => r.endedAt !== null) : [];
  const people = new Map(open.flatMap((r) => r.asked.filter((a) => a.waiting > 0).map((a) => [a.person, a.name])));
  const modules = [...new Set(open.flatMap((r) => r.modules))].toSorted();
  return (
    <div className="h-full overflow-y-auto px-8 py-6 max-phone:px-4">
      <div className="mx-auto max-w-4xl pb-10">
        <header className="flex flex-wrap items-center gap-3">
          <h1 className="font-serif text-2xl font-semibold">Reviews</h1>
          <span className="text-sm text-ink2">{countOf(open.length, 'review')} waiting</span>
          <span className="ml-auto flex flex-wrap gap-2 print:hidden">
            <Choose label="Waits for" showLabel value={who} options={[{ value: '', name: 'anybody' }, ...[...people].map(([value, name]) => ({ value, name }))]} onChange={setWho} />
            {modules.length > 1 && <Choose label="Module" showLabel value={module} options={[{ value: '', name: 'all' }, ...modules.filter((m) => m !== '').map((m) => ({ value: m, name: m }))]} onChange={setModule} />}
          </span>
        </header>
        {shown.length === 0 ? <p className="mt-4 text-ink2">{open.length === 0 ? 'No review is waiting.' : 'None of the reviews that are waiting fits.'}</p> : <Lines label="Reviews that are waiting" reviews={shown} />}
        {ended.length > 0 && (
          <>
            <h2 className="mt-8 font-serif text-lg font-semibold">Ended</h2>
            <Lines label="Reviews that have ended" reviews={ended} />
          </>
        )}
      </div>
    </div>
  );
}

function Lines({ label, reviews }: { readonly label: string; readonly reviews: readonly ReviewLine[] }) {
  return (
    <ul aria-label={label} className="mt-2 border-t border-ink">
      {reviews.map((review) => (
        <Line key={review.number} review={review} />
      ))}
    </ul>
  );
}

function Line({ review }: { readonly review: ReviewLine }) {
  const { project, person } = useFrame();
  const today = dayOf(new Date(useNow()));
  const { number, title, by, at, due, endedAt, asked, counts, modules } = review;
  const mine = endedAt === null ? (asked.find((a) => a.person === person.id)?.waiting ?? 0) : 0;
  const waiting = asked.filter((a) => a.waiting > 0).map((a) => a.name);
  return (
    <li className="border-b border-rule">
      <Link to={address.review(project, number)} className="block py-2.5 hover:bg-page2">
        <span className="flex flex-wrap items-baseline gap-x-3">
          <span className="w-5 shrink-0 text-right font-mono text-xs text-ink2">{number}</span>
          <span className="font-semibold">{title}</span>
          {mine > 0 && <span className="text-sm font-semibold text-blue">{mine} for you</span>}
          <span className="ml-auto text-sm">{endedAt === null ? progressWords(counts) : endWords(review)}</span>
        </span>
        <span className="flex flex-wrap items-baseline gap-x-3 pl-8 text-xs text-ink2">
          <span title={dateAndTime(at)}>
            asked by {by} {ago(at)}
          </span>
          {endedAt !== null && <span title={dateAndTime(endedAt)}>ended {ago(endedAt)}</span>}
          {endedAt === null && waiting.length > 0 && <span>waits for {waiting.join(', ')}</span>}
          {endedAt === null && due !== null && <span className={isOverdue(review, today) ? 'font-semibold text-brick' : ''}>{isOverdue(review, today) ? `overdue since ${dueWords(due)}` : `until ${dueWords(due)}`}</span>}
          {modules.some((m) => m !== '') && <span className="ml-auto truncate">{modules.filter((m) => m !== '').join(', ')}</span>}
        </span>
      </Link>
    </li>
  );
}
