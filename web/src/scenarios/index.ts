export { PhrasebookPage } from './phrasebook/PhrasebookPage.tsx';
export { TwicePage } from './twice/TwicePage.tsx';
export { ScenariosChapter } from './ScenariosChapter.tsx';
