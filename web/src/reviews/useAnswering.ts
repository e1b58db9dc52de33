import type { ArtefactId } from '@caderno/core/artefacts';
import type { Review, ReviewItem } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { RefusedCall, call, tellFailure } from '../api/index.ts';
import { LEFT_WORD } from '../askReview/index.ts';
import { useCommands, useFrame, type Command } from '../frame/index.ts';
import { countOf } from '../look/index.ts';
import { useWaiting } from './useWaiting.ts';

/** What can be said in a review, and done with it. */
export interface Answering {
  /** One is asked, and it goes on. */
  readonly mayAnswer: boolean;
  readonly mayManage: boolean;
  /** Whether an artefact waits for oneself. */
  readonly isWaiting: (item: ReviewItem) => boolean;
  readonly busy: boolean;
  /** What a reason to object to is being given for. */
  readonly objecting: ArtefactId | null;
  readonly setObjecting: (id: ArtefactId | null) => void;
  readonly agree: (items: readonly ReviewItem[]) => void;
  readonly object: (items: readonly ReviewItem[], why: string) => void;
  readonly askAgain: (ids: readonly ArtefactId[]) => void;
  readonly end: () => void;
}

/** Answers, by buttons and by keys; after an answer it goes on to what waits next. */
export function useAnswering(review: Review, current: ReviewItem | undefined, open: (id: ArtefactId) => void): Answering {
  const { project, person, canEdit } = useFrame();
  const client = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [objecting, setObjecting] = useState<ArtefactId | null>(null);
  const { number, items, endedAt, asked } = review;
  const isWaiting = useWaiting(review);
  const mayAnswer = endedAt === null && asked.some((a) => a.person === person.id);
  const take = useCallback(
    async (send: () => Promise<Review>): Promise<boolean> => {
      setBusy(true);
      try {
        client.setQueryData([project, 'reviews', number], await send());
        void client.invalidateQueries({ queryKey: [project, 'reviews', 'all'] });
        setBusy(false);
        return true;
      } catch (error) {
        setBusy(false);
        tellFailure(error);
        // Another version is asked for by now: it is shown.
        if (error instanceof RefusedCall) void client.invalidateQueries({ queryKey: [project, 'reviews', number] });
        return false;
      }
    },
    [client, number, project],
  );
  const answer = useCallback(
    async (of: readonly ReviewItem[], agrees: boolean, note: string): Promise<void> => {
      const done = await take(() => call('answerReview', { params: { project, review: number }, body: { of: of.map(({ id, version }) => ({ id, version })), agrees, note } }));
      if (!done) return;
      setObjecting(null);
      const said = new Set(of.map((i) => i.id));
      const at = items.findIndex((i) => said.has(i.id));
      const next = [...items.slice(at + 1), ...items.slice(0, at)].find((i) => !said.has(i.id) && isWaiting(i));
      if (next !== undefined) open(next.id);
      else if (agrees) toast.success('Nothing more waits for you in this review.');
    },
    [isWaiting, items, number, open, project, take],
  );
  const agree = useCallback((of: readonly ReviewItem[]) => void answer(of, true, ''), [answer]);
  const commands = useMemo<Command[]>(
    () =>
      !mayAnswer || current === undefined || current.standing === 'left'
        ? []
        : [
            { id: 'agree', title: `Agree to ${current.id}`, keys: 'a', keyLabel: 'a', changes: true, run: () => agree([current]) },
            { id: 'object', title: `Object to ${current.id}`, keys: 'o', keyLabel: 'o', changes: true, run: () => setObjecting(current.id) },
          ],
    [agree, current, mayAnswer],
  );
  useCommands(commands);
  return {
    mayAnswer,
    isWaiting,
    mayManage: canEdit && endedAt === null,
    busy,
    objecting,
    setObjecting,
    agree,
    object: (of, why) => void answer(of, false, why),
    askAgain: (ids) =>
      void take(async () => {
        const { review: asked, left } = await call('askAgain', { params: { project, review: number }, body: { ids: [...ids] } }, { commandId: crypto.randomUUID() });
        toast.success(`Asked again for ${countOf(ids.length - left.length, 'artefact')}.${left.length === 0 ? '' : ` Not for ${left.map((l) => `${l.id}, which ${LEFT_WORD[l.reason]}`).join('; ')}.`}`);
        return asked;
      }),
    end: () => void take(() => call('endReview', { params: { project, review: number }, body: {} }, { commandId: crypto.randomUUID() })),
  };
}
