export { HandOffsChapter } from './HandOffsChapter.tsx';
export { NewHandOffPage } from './NewHandOffPage.tsx';
