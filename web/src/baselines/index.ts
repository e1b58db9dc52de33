export { BaselinesChapter } from './BaselinesChapter.tsx';
