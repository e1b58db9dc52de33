import type { Sequelize } from 'sequelize';
import { mailInbox, putGivenUp } from '../inbox/index.ts';
import { mailingOf, sendDue, type MailPlace, type MailServer } from '../mail/index.ts';
import type { SecretBox } from '../secrets/index.ts';

const EVERY_MS = 5_000;

/** What mailing takes. */
export interface MailParts {
  readonly db: Sequelize;
  readonly mail: MailPlace | null;
  readonly mailServer: Pick<MailServer, 'send'> | null;
  readonly secrets: SecretBox;
  readonly now: () => Date;
}

/** Writes mails of what reached people, and sends all that is due. */
export async function carryMails({ db, mail, mailServer, secrets, now }: MailParts): Promise<void> {
  if (mail === null || mailServer === null) return;
  await mailInbox(db, mailingOf({ mail, secrets, now }), { demoToo: mail.page !== null });
  await sendDue({ db, box: secrets, server: mailServer, now, onGivenUp: (work, given) => putGivenUp(work, given, now()) });
}

/** Carries mails again and again, one round after the other; answers how to stop. What fails is told and tried again. */
export function startMailing(parts: MailParts, onFailure: (error: unknown) => void): () => void {
  let under: Promise<void> | null = null;
  const timer = setInterval(() => {
    under ??= carryMails(parts).catch(onFailure).finally(() => (under = null));
  }, EVERY_MS).unref();
  return () => clearInterval(timer);
}
