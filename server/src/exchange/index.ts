export { Importer } from './importer.ts';
export { BEAT_MS, beatRun, beginRun, cancelRun, endRun, readProgress, sweepFiles } from './importFile.ts';
export { guessedMapping, readEntries } from './importing.ts';
export { importFile } from './run.ts';
export { exportQuestions } from './exportQuestions.ts';
export { importBaseSchema } from './remembered.ts';
