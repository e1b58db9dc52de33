import { waitsFor } from '@caderno/core/reviews';
import type { Review, ReviewItem } from '@caderno/contract';
import { useCallback } from 'react';
import { useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** Tells what of a review waits for oneself. */
export function useWaiting({ asked }: Pick<Review, 'asked'>): (item: ReviewItem) => boolean {
  const { project, person } = useFrame();
  const agreement = useSettings(project).data?.settings.agreement;
  return useCallback((item: ReviewItem) => agreement !== undefined && item.standing === 'waiting' && waitsFor(item, asked, item.answers, agreement, person.id), [agreement, asked, person.id]);
}
