export { blockText, readBlockText } from './blockText.ts';
export { differenceOf, isDifferent, type FolderDifference } from './checkFiles.ts';
export { COVERAGE_FILE, MANIFEST, SETTINGS_FILE, artefactPath, attachmentAt, attachmentPath, foldersOf, kindOfPath, versionPath } from './layout.ts';
