export { answerReview, askAgain, askReview, changeReview, decideAnew, endReview } from './reviews.ts';
export { listReviews, readReview } from './readReview.ts';
export { hangingOn, readHanging } from './hanging.ts';
