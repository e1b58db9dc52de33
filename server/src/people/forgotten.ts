import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { countRow, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { letterText, type Mailing } from '../mail/index.ts';
import { countAttempt } from './attempts.ts';
import { notePersonEvent } from './events.ts';
import { LINK_HOURS, makeLink } from './newPassword.ts';

/** Links mailed to one address within an hour. */
const MOST_AN_HOUR = 3;

const personRow = z.object({ id: z.string(), name: z.string(), email: z.string() });

/** Mails a link for a new password to whoever has this address; whoever asks does not learn whether anybody has. */
export async function forgetPassword(db: Sequelize, mailing: Mailing, typed: string, address: string): Promise<void> {
  const email = typed.toLowerCase();
  // Counted apart from signing in, which nobody else can hold up so.
  await inTransaction(db, (work) => countAttempt(work, `forgotten ${email}`, address));
  await inTransaction(db, async (work) => {
    const [person] = await selectRows(work, personRow, 'SELECT id, name, email FROM person WHERE email = $1 AND active AND password_hash IS NOT NULL FOR NO KEY UPDATE', [email]);
    if (person === undefined || (await mailedLately(work, email, mailing.at)) >= MOST_AN_HOUR) return;
    const token = await makeLink(work, person.id, mailing.at);
    await mailing.post(work, {
      to: { name: person.name, address: person.email },
      subject: 'A new password for Caderno',
      text: letterText({
        paragraphs: [`Somebody, probably you, asked for a new password for ${person.email}.`, `Set it here:\n${mailing.address}/reset#${token}`, `The link works once, within ${LINK_HOURS} hours. All places where you are signed in are signed out then.`],
        why: 'If it was not you, leave this mail unanswered: your password stays as it is.',
      }),
      by: null,
      projectId: null,
      shown: false,
    });
    await notePersonEvent(work, { action: 'passwordForgotten', by: null, about: person.id });
  });
}

async function mailedLately(work: UnitOfWork, email: string, at: Date): Promise<number> {
  const [row] = await selectRows(work, countRow, `SELECT count(*)::int AS count FROM mail WHERE to_address = $1 AND by_id IS NULL AND project_id IS NULL AND made_at > $2::timestamptz - interval '1 hour'`, [email, at]);
  return row?.count ?? 0;
}
