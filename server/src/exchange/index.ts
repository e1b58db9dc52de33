export { Importer } from './importer.ts';
export { beginRun, cancelRun, endRun, keepFile, readProgress } from './importFile.ts';
export { guessedMapping } from './importing.ts';
export { importFile } from './run.ts';
export { exportBasis } from './exportBasis.ts';
export { exportQuestions } from './exportQuestions.ts';
export { checkStories } from './checkStories.ts';
