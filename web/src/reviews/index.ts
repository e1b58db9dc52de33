export { ReviewPage } from './ReviewPage.tsx';
export { ReviewsPage } from './ReviewsPage.tsx';
