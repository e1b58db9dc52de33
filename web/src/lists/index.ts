export { ListChapter } from './ListChapter.tsx';
