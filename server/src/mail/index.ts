export { MailFailed, MailServer, type MailPlace } from './mailServer.ts';
export { letterText } from './letter.ts';
export { listMails, post, readMailStanding, refuseTooMany, sendAgain, sendDue, sweepMails, takeBack, type GivenUp, type Letter } from './outbox.ts';
export { mailingOf, type Mailing } from './mailing.ts';
export { sendTrialMail } from './trial.ts';
