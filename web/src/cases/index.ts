export { CasesChapter } from './CasesChapter.tsx';
