import { answerOf, mayAgree, neededOf, type ItemStanding } from '@caderno/core/reviews';
import type { Agreement, Review, ReviewItem, ReviewLine } from '@caderno/contract';
import { countOf, locale } from '../look/index.ts';

export const ITEM_WORD: Record<ItemStanding, string> = { waiting: 'waits', agreed: 'agreed', objected: 'objection', left: 'taken out' };
export const ITEM_INK: Record<ItemStanding, string> = { waiting: 'text-ink2', agreed: 'text-pine', objected: 'text-brick', left: 'text-ink3' };

/** How many of those whose agreement counts have agreed: `1 of 2`. */
export function waitingWords(item: ReviewItem, { asked }: Pick<Review, 'asked'>, agreement: Agreement): string {
  const needed = neededOf(item, asked, agreement);
  const agree = mayAgree(item, asked, agreement).filter((a) => answerOf(item.answers, a.person, item.version)?.agrees === true).length;
  return needed === null ? ITEM_WORD.waiting : `${agree} of ${needed}`;
}

/** How far a review is: `3 of 5 agreed, 1 objection`. */
export function progressWords({ waiting, agreed, objected, left }: ReviewLine['counts']): string {
  const words = [`${agreed} of ${waiting + agreed + objected} agreed`];
  if (objected > 0) words.push(countOf(objected, 'objection'));
  if (left > 0) words.push(`${left} taken out`);
  return words.join(', ');
}

/** Whether its last day is over. */
export function isOverdue({ due, endedAt }: Pick<ReviewLine, 'due' | 'endedAt'>, today: string): boolean {
  return endedAt === null && due !== null && due < today;
}

/** Today where the reader is, as days are written down. */
export function dayOf(date: Date): string {
  return `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;
}

/** A day in the reader’s locale. */
export function dueWords(due: string): string {
  return new Date(`${due}T12:00:00`).toLocaleDateString(locale(), { dateStyle: 'medium' });
}

/** How a review ended. */
export function endWords({ endedBy, counts }: Pick<ReviewLine, 'endedBy'> & { readonly counts: ReviewLine['counts'] }): string {
  return endedBy !== null ? `ended by ${endedBy}` : counts.agreed > 0 ? 'all agreed' : 'ended: nothing was left in it';
}

/** The counts of what a review asks for. */
export function countsOf(items: readonly Pick<ReviewItem, 'standing'>[]): ReviewLine['counts'] {
  const count = (standing: ItemStanding): number => items.filter((i) => i.standing === standing).length;
  return { waiting: count('waiting'), agreed: count('agreed'), objected: count('objected'), left: count('left') };
}
