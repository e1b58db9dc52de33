export { SuitesChapter } from './SuitesChapter.tsx';
