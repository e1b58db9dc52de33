export { ScenariosChapter } from './ScenariosChapter.tsx';
