export { InboxPage } from './InboxPage.tsx';
export { MailsPage } from './MailsPage.tsx';
