export { AskReview, LEFT_WORD } from './AskReview.tsx';
export { InReview } from './InReview.tsx';
export { ReviewTerms } from './ReviewTerms.tsx';
