export { answerOf, mayAgree, neededOf, seenUpTo, standingOf, waitsFor, type AgreementRule, type Answer, type Asked, type AskedFor, type Standing } from './agreement.ts';
export { ITEM_STANDINGS, isReviewable, reviewNumber, type ItemStanding, type ReviewNumber } from './review.ts';
