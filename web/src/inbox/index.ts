export { InboxPage } from './InboxPage.tsx';
