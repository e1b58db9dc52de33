import { DomainError } from '../domainError.ts';
import type { UnitOfWork } from '../database/index.ts';
import type { SecretBox } from '../secrets/index.ts';
import type { MailPlace } from './mailServer.ts';
import { post, type Letter } from './outbox.ts';

/** How something is mailed within a command: now, with links to where Caderno is. */
export interface Mailing {
  readonly address: string;
  readonly at: Date;
  readonly post: (work: UnitOfWork, letter: Letter) => Promise<string>;
}

/** @throws {DomainError} when this server sends no mail. */
export function mailingOf({ mail, secrets, now }: { readonly mail: MailPlace | null; readonly secrets: SecretBox; readonly now: () => Date }): Mailing {
  if (mail === null) throw new DomainError({ code: 'mail_off' });
  const at = now();
  return { address: mail.address, at, post: (work, letter) => post(work, secrets, letter, at) };
}
