export { useEditing, type Editing } from './useEditing.ts';
export { Difference } from './Difference.tsx';
export { WordDiff } from './WordDiff.tsx';
export { SaveBar } from './SaveBar.tsx';
export { VersionsPage } from './VersionsPage.tsx';
export { JournalPage } from './JournalPage.tsx';
