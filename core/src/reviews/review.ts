import type { ArtefactKind } from '../artefacts/index.ts';

/** Reviews of a project are counted from 1. */
export type ReviewNumber = number & { readonly __brand: 'ReviewNumber' };

/** The one maker of review numbers. */
export function reviewNumber(number: number): ReviewNumber {
  return number as ReviewNumber;
}

/** Kinds that are agreed to; a question is answered instead. */
export function isReviewable(kind: ArtefactKind): boolean {
  return kind !== 'question';
}

/** How an artefact stands in a review; `left`: it is no longer asked for, as its state was set by hand or the review ended. */
export const ITEM_STANDINGS = ['waiting', 'agreed', 'objected', 'left'] as const;
/** See {@link ITEM_STANDINGS}. */
export type ItemStanding = (typeof ITEM_STANDINGS)[number];
