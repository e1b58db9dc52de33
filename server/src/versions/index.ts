export { listVersions, readVersion } from './versions.ts';
export { listChanges, readChange } from './journal.ts';
export { readCarried, rememberCarried } from './carriedHere.ts';
export { setExistence } from './existence.ts';
export { undoChange } from './undo.ts';
export { changedParts, readableSettings, storeSettings } from './storeSettings.ts';
export { findUnmoved, madeBy, writeArtefacts } from './writeArtefacts.ts';
export { changeMany } from './changeMany.ts';
export { NAMES, nameKind, sendName } from './handOverName.ts';
