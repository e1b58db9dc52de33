import type { BodyOf } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { answersAny, execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { letterText, type Mailing } from '../mail/index.ts';
import { notePersonEvent } from './events.ts';
import { newSecretWord } from './secretWord.ts';
import { refuseWrongPassword } from './newPassword.ts';
import { hashToken, type SignedIn } from './session.ts';

const LINK_HOURS = 48;
const HOUR_MS = 3_600_000;

/** Mails a link to the address that somebody wants to have; until it is opened nothing changes. @throws {DomainError} when the password is wrong, or the address is somebody's. */
export async function changeEmail(db: Sequelize, mailing: Mailing, person: SignedIn, address: string, { email: typed, password }: BodyOf<'changeEmail'>): Promise<void> {
  await refuseWrongPassword(db, person, address, password);
  const email = typed.toLowerCase();
  await inTransaction(db, async (work) => {
    await refuseTaken(work, email);
    const token = newSecretWord();
    await execute(
      work,
      'INSERT INTO email_link (token_hash, person_id, email, expires_at) VALUES ($1, $2, $3, $4) ON CONFLICT (person_id) DO UPDATE SET token_hash = EXCLUDED.token_hash, email = EXCLUDED.email, expires_at = EXCLUDED.expires_at',
      [hashToken(token), person.id, email, new Date(mailing.at.getTime() + LINK_HOURS * HOUR_MS)],
    );
    await mailing.post(work, {
      to: { name: person.name, address: email },
      subject: 'Your new e-mail address in Caderno',
      text: letterText({ paragraphs: [`${person.name} (${person.email}) wants to be reached at this address.`, `Open this to take it:\n${mailing.address}/new-address#${token}`, `The link works once, within ${LINK_HOURS} hours.`], why: 'If you do not know why you got this, leave it unanswered: nothing changes.' }),
      by: person.id,
      projectId: null,
      shown: false,
    });
  });
}

async function refuseTaken(work: UnitOfWork, email: string): Promise<void> {
  // Two at once would both find that nobody has it; accounts are made under the same lock.
  await execute(work, 'SELECT pg_advisory_xact_lock(hashtextextended($1, 1))', [email]);
  if (await answersAny(work, 'SELECT 1 FROM person WHERE email = $1', [email])) throw new DomainError({ code: 'person_exists', email });
}

const linkRow = z.object({ personId: z.string(), email: z.string(), before: z.string() });

/** Takes the address that a link was mailed to. @throws {DomainError} when the link was used or has ended. */
export async function confirmEmail(work: UnitOfWork, token: string): Promise<void> {
  const [link] = await selectRows(
    work,
    linkRow,
    'DELETE FROM email_link l USING person p WHERE l.token_hash = $1 AND p.id = l.person_id AND p.active AND l.expires_at > now() RETURNING l.person_id AS "personId", l.email, p.email AS before',
    [hashToken(token)],
  );
  if (link === undefined) throw new DomainError({ code: 'address_link_ended' });
  await refuseTaken(work, link.email);
  await execute(work, 'UPDATE person SET email = $2 WHERE id = $1', [link.personId, link.email]);
  await notePersonEvent(work, { action: 'emailChanged', by: link.personId, detail: `${link.before} → ${link.email}` });
}
