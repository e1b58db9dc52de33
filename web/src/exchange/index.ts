export { ImportPage } from './ImportPage.tsx';
export { ExportMenu } from './ExportMenu.tsx';
export { fileProblemSentence } from './fileProblemSentence.ts';
