export { listVersions, readVersion } from './versions.ts';
export { listChanges, readChange } from './journal.ts';
export { undoChange } from './undo.ts';
export { storeSettings } from './storeSettings.ts';
