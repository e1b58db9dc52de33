export { readHeads } from './heads.ts';
export { alteredSince, readChangesSince, settingsChangedSince, type Altered } from './changesSince.ts';
export { revisionOf } from './revision.ts';
