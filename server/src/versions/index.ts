export { listVersions, readVersion } from './versions.ts';
export { listChanges, readChange } from './journal.ts';
export { undoChange } from './undo.ts';
export { changedParts, storeSettings } from './storeSettings.ts';
export { findUnmoved, madeBy, writeArtefacts } from './writeArtefacts.ts';
