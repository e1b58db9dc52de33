export { ChapterOverview } from './ChapterOverview.tsx';
export { FirstSteps } from './FirstSteps.tsx';
