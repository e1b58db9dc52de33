export { ImportPage } from './ImportPage.tsx';
export { ExportMenu } from './ExportMenu.tsx';
export { fileProblemSentence } from './fileProblemSentence.ts';
export { TermsFromFile } from './TermsFromFile.tsx';
export { rowsFile } from './rowsFile.ts';
