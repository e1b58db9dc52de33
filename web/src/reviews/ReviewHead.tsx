import type { Review } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { Printer } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, tellFailure } from '../api/index.ts';
import { ReviewTerms } from '../askReview/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, ago, dateAndTime, useNow } from '../look/index.ts';
import { countsOf, dayOf, dueWords, endWords, isOverdue, progressWords } from './reviewWords.ts';
import type { Answering } from './useAnswering.ts';

interface Props {
  readonly review: Review;
  readonly answering: Answering;
}

/** What a review is, how far it is, and what can be done with all of it. */
export function ReviewHead({ review, answering }: Props) {
  const { project } = useFrame();
  const today = dayOf(new Date(useNow()));
  const [open, setOpen] = useState<'terms' | 'end' | null>(null);
  const { number, title, note, due, by, at, endedAt, asked, items } = review;
  const counts = countsOf(items);
  const mine = answering.mayAnswer ? items.filter(answering.isWaiting) : [];
  const mended = items.filter((i) => i.standing === 'objected' && i.head > i.version);
  return (
    <header className="px-5 pb-3 pt-5">
      <p className="flex items-baseline gap-3 text-xs text-ink2">
        <Link className="underline" to={address.reviews(project)}>
          All reviews
        </Link>
        <span>review {number}</span>
        <span className="ml-auto flex gap-3">
          {answering.mayManage && <TextButton onClick={() => setOpen('terms')}>Edit</TextButton>}
          {answering.mayManage && <TextButton onClick={() => setOpen('end')}>End</TextButton>}
          <button type="button" className="inline-flex min-h-6 items-center gap-1 underline decoration-rule2 underline-offset-2" onClick={() => window.print()}>
            <Printer size={12} aria-hidden="true" /> Print the record
          </button>
        </span>
      </p>
      <h1 className="mt-1 font-serif text-xl font-semibold">{title}</h1>
      {note !== '' && <p className="mt-1 whitespace-pre-wrap text-sm">{note}</p>}
      <p className="mt-1 text-xs text-ink2">
        Asked by {by} <span title={dateAndTime(at)}>{ago(at)}</span>
        {endedAt === null && due !== null && <span className={isOverdue(review, today) ? 'font-semibold text-brick' : ''}>{isOverdue(review, today) ? `, overdue since ${dueWords(due)}` : `, until ${dueWords(due)}`}</span>}
        {' · '}
        <span className="text-ink">{endedAt === null ? progressWords(counts) : `${endWords({ ...review, counts })}, ${ago(endedAt)}`}</span>
      </p>
      <p className="mt-1 text-xs text-ink2">
        {asked.length === 0
          ? 'Nobody who was asked is in the project any more.'
          : asked.map(({ person: id, name, waiting, may }, i) => (
              <span key={id}>
                {i > 0 && ', '}
                <span className="font-semibold text-ink">{name}</span>
                {endedAt === null && (waiting === 0 ? ' has answered' : ` has ${waiting} to answer`)}
                {!may && ' (may not agree)'}
              </span>
            ))}
      </p>
      <p className="mt-2 flex flex-wrap gap-2 empty:hidden">
        {mine.length > 1 && (
          <Button disabled={answering.busy} onClick={() => answering.agree(mine)}>
            Agree to all {mine.length}
          </Button>
        )}
        {answering.mayManage && mended.length > 0 && (
          <Button disabled={answering.busy} onClick={() => answering.askAgain(mended.map((i) => i.id))}>
            Ask again for {mended.length === 1 ? mended[0]?.id : `${mended.length} that were mended`}
          </Button>
        )}
      </p>
      {open === 'terms' && <ChangeTerms review={review} onClose={() => setOpen(null)} />}
      {open === 'end' && (
        <Dialog title="End the review" onClose={() => setOpen(null)}>
          <p className="text-sm">What is agreed stays agreed. {counts.waiting > 0 ? `The ${counts.waiting === 1 ? 'one that waits is a draft' : `${counts.waiting} that wait are drafts`} again.` : ''} It cannot be opened again.</p>
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={() => setOpen(null)}>Cancel</Button>
            <Button look="accent" data-first onClick={() => (setOpen(null), answering.end())}>
              End it
            </Button>
          </div>
        </Dialog>
      )}
    </header>
  );
}

function ChangeTerms({ review, onClose }: { readonly review: Review; readonly onClose: () => void }) {
  const { project } = useFrame();
  const client = useQueryClient();
  const { number, title, note, due, asked } = review;
  return (
    <Dialog title={`Edit review ${number}`} onClose={onClose}>
      <ReviewTerms
        begun={{ title, note, due, people: asked.map((a) => a.person) }}
        word="Save"
        onClose={onClose}
        onTake={async (terms) => {
          try {
            client.setQueryData([project, 'reviews', number], await call('changeReview', { params: { project, review: number }, body: terms }));
            void client.invalidateQueries({ queryKey: [project, 'reviews', 'all'] });
            return true;
          } catch (error) {
            tellFailure(error);
            return false;
          }
        }}
      />
    </Dialog>
  );
}
