export { useEditing, type Editing } from './useEditing.ts';
export { SaveBar } from './SaveBar.tsx';
export { VersionsPage } from './VersionsPage.tsx';
export { JournalPage } from './JournalPage.tsx';
