export { BasisChapter } from './BasisChapter.tsx';
export { GlossaryPage } from './GlossaryPage.tsx';
export { SuspectPage } from './SuspectPage.tsx';
