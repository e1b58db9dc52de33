export { ExportBasis } from './ExportBasis.tsx';
export { TermsFromFile } from './TermsFromFile.tsx';
export { rowsFile } from './rowsFile.ts';
export { fileProblemSentence } from './fileProblemSentence.ts';
export { CarryDialog } from './CarryDialog.tsx';
export { ExportCases } from './ExportCases.tsx';
