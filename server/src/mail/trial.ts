import { randomUUID } from 'node:crypto';
import { DomainError } from '../domainError.ts';
import { letterText } from './letter.ts';
import { MailFailed, type MailServer } from './mailServer.ts';

/** Sends somebody a mail at once, so that they see whether mail works. @throws {DomainError} with what the mail server said when it does not. */
export async function sendTrialMail(server: Pick<MailServer, 'send'> | null, { name, email }: { readonly name: string; readonly email: string }): Promise<void> {
  if (server === null) throw new DomainError({ code: 'mail_off' });
  try {
    await server.send({ id: randomUUID(), to: { name, address: email }, subject: 'Mail from Caderno arrives', text: letterText({ paragraphs: ['This is the mail that you asked for: mail from Caderno arrives.'], why: `Asked for by ${name} on the page of the server.` }) });
  } catch (error) {
    if (error instanceof MailFailed) throw new DomainError({ code: 'mail_failed', answer: error.message });
    throw error;
  }
}
