import type { Refusals } from './refusals.ts';

/** What is refused of mails. */
export type MailRefusal =
  | { readonly code: 'mail_off' }
  | { readonly code: 'mail_failed'; readonly answer: string }
  | { readonly code: 'mail_unknown' }
  | { readonly code: 'mail_outside' }
  | { readonly code: 'too_many_mails'; readonly limit: number };

/** Their statuses, and what is said of each. */
export const MAIL_REFUSALS: Refusals<MailRefusal> = {
  mail_off: { status: 409, sentence: () => 'This server sends no mail. Nothing was sent; whoever runs the server names a mail server when it is started.' },
  mail_failed: { status: 502, sentence: (refusal) => `The mail was not sent. The mail server said: “${refusal.answer}”.` },
  mail_unknown: { status: 404, sentence: () => 'There is no such mail of yours that could be sent or taken back. Nothing was changed.' },
  mail_outside: { status: 403, sentence: () => 'As a reader you send mail to people of the project only. Nothing was sent.' },
  too_many_mails: { status: 409, sentence: (refusal) => `You sent ${refusal.limit} mails within a day, and more are not sent for now. Nothing of this one was sent.` },
};
