export { PhrasebookPage } from './phrasebook/PhrasebookPage.tsx';
export { ScenariosChapter } from './ScenariosChapter.tsx';
