export { SharedChapter } from './SharedChapter.tsx';
export { AlikePage } from './AlikePage.tsx';
