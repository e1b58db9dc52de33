export { VersionsPage } from './VersionsPage.tsx';
export { JournalPage } from './JournalPage.tsx';
