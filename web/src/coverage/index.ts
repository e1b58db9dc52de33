export { CoverageChapter } from './CoverageChapter.tsx';
