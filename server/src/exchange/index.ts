export { Importer, type ImporterGiven } from './importer.ts';
export { readProgress, sweepFiles } from './importFile.ts';
export { cancelRun, readRunEnd } from './importRun.ts';
export { importKind, sendImport, superviseImports, IMPORTS } from './importWork.ts';
export { importFeatures } from './features/featureImport.ts';
export { decode } from './decoded.ts';
export { guessedMapping, readEntries, readFor } from './importing.ts';
export { importFile, type ImportOrder } from './run.ts';
export { exportQuestions } from './exportQuestions.ts';
