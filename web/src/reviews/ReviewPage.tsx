import type { ArtefactId } from '@caderno/core/artefacts';
import type { Review, ReviewItem } from '@caderno/contract';
import { reviewNumberSchema } from '@caderno/contract';
import { useMemo } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { useReview, useSettings } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { Spread, useCommands, useFrame, usePageName, type Command } from '../frame/index.ts';
import { Empty } from '../look/index.ts';
import { ItemPage } from './ItemPage.tsx';
import { ReviewHead } from './ReviewHead.tsx';
import { ReviewRecord } from './ReviewRecord.tsx';
import { ITEM_INK, ITEM_WORD, waitingWords } from './reviewWords.ts';
import { useAnswering } from './useAnswering.ts';
import { useWaiting } from './useWaiting.ts';

/** A review: at the left what it asks for, at the right one artefact with what changed and the answers to it. */
export function ReviewPage() {
  const parsed = reviewNumberSchema.safeParse(useParams().review);
  const { project } = useFrame();
  if (!parsed.success) return <Empty title="No such review">The address names none of this project.</Empty>;
  return <Read key={`${project} ${parsed.data}`} number={parsed.data} />;
}

function Read({ number }: { readonly number: Review['number'] }) {
  const { project } = useFrame();
  const { data, error } = useReview(project, number);
  usePageName(data === undefined ? `Review ${number}` : data.title);
  // What waits for oneself is told by the settings: nothing is opened before they are known.
  const settings = useSettings(project);
  return data === undefined || settings.data === undefined ? <Loading error={error ?? settings.error} /> : <Opened review={data} />;
}

function Opened({ review }: { readonly review: Review }) {
  const isWaiting = useWaiting(review);
  const { items } = review;
  const [search, setSearch] = useSearchParams();
  const current = items.find((i) => i.id === search.get('of')) ?? items.find(isWaiting) ?? items[0];
  const open = useMemo(() => (id: ArtefactId) => setSearch({ of: id }, { replace: true }), [setSearch]);
  const answering = useAnswering(review, current, open);
  useReviewCommands(items, current, open);
  return (
    <>
      <ReviewRecord review={review} />
      <div className="h-full print:hidden">
        <Spread
          chapter="review"
          leftShare={36}
          opened={search.get('of')}
          leftLabel="What is reviewed"
          rightLabel="What is asked for"
          left={
            <div className="flex h-full flex-col">
              <ReviewHead review={review} answering={answering} />
              <ul aria-label="What is reviewed" className="min-h-0 flex-1 overflow-y-auto border-t border-rule2">
                {items.map((item) => (
                  <Line key={item.id} review={review} item={item} waits={answering.isWaiting(item)} isCurrent={item.id === current?.id} onOpen={() => open(item.id)} />
                ))}
              </ul>
            </div>
          }
          right={current === undefined ? <Empty title="Nothing is left in it">What it asked for is no longer there.</Empty> : <ItemPage key={`${current.id} ${current.version}`} review={review} item={current} answering={answering} />}
        />
      </div>
    </>
  );
}

interface LineProps {
  readonly review: Review;
  readonly item: ReviewItem;
  readonly waits: boolean;
  readonly isCurrent: boolean;
  readonly onOpen: () => void;
}

function Line({ review, item, waits, isCurrent, onOpen }: LineProps) {
  const { project } = useFrame();
  const agreement = useSettings(project).data?.settings.agreement;
  return (
    <li className={`border-b border-rule ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
      <button type="button" aria-current={isCurrent} onClick={onOpen} className="flex w-full items-baseline gap-3 px-5 py-2 text-left">
        <span className="w-10 shrink-0 font-mono text-xs text-ink2">{item.id}</span>
        <span className={`min-w-0 flex-1 ${waits ? 'font-semibold' : ''}`}>{item.title}</span>
        <span className="shrink-0 font-mono text-xs text-ink2">v{item.version}</span>
        <span className={`w-16 shrink-0 text-right text-xs font-semibold ${ITEM_INK[item.standing]}`}>{item.standing === 'waiting' && agreement !== undefined ? waitingWords(item, review, agreement) : ITEM_WORD[item.standing]}</span>
      </button>
    </li>
  );
}

function useReviewCommands(items: readonly ReviewItem[], current: ReviewItem | undefined, open: (id: ArtefactId) => void): void {
  const commands = useMemo<Command[]>(() => {
    const at = items.findIndex((i) => i.id === current?.id);
    const go = (index: number): void => {
      const item = items[index];
      if (item !== undefined) open(item.id);
    };
    return [
      { id: 'next-item', title: 'The next artefact of the review', keys: 'ArrowDown', keyLabel: '↓', run: () => go(at + 1) },
      { id: 'previous-item', title: 'The artefact before', keys: 'ArrowUp', keyLabel: '↑', run: () => go(at - 1) },
    ];
  }, [current, items, open]);
  useCommands(commands);
}
