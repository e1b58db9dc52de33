import type { BodyOf } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { answersAny, execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { notePersonEvent } from './events.ts';
import { newSecretWord } from './secretWord.ts';
import { hashPassword, passwordMatches, refuseWeakPassword } from './password.ts';
import { countAttempt } from './attempts.ts';
import { endSessionsOf, hashToken, startSession, type SignedIn } from './session.ts';

/** How long a link for a new password works. */
export const LINK_HOURS = 48;

const passwordRow = z.object({ passwordHash: z.string().nullable() });

/** Changes one's password; all other sessions end. @throws {DomainError} when the present one is wrong, or the new one weak. */
export async function changePassword(db: Sequelize, person: SignedIn, token: string | null, address: string, { current, next }: BodyOf<'changePassword'>): Promise<void> {
  await refuseWrongPassword(db, person, address, current);
  refuseWeakPassword(next, [person.name, person.email]);
  const passwordHash = await hashPassword(next);
  await inTransaction(db, async (work) => {
    await setPassword(work, person.id, passwordHash, token);
    await notePersonEvent(work, { action: 'passwordChanged', by: person.id });
  });
}

/** @throws {DomainError} when it is not the person's password, or was tried too often. */
export async function refuseWrongPassword(db: Sequelize, person: SignedIn, address: string, password: string): Promise<void> {
  if (person.demo) throw new DomainError({ code: 'demo_person' });
  await inTransaction(db, (work) => countAttempt(work, person.email, address));
  const [kept] = await inTransaction(db, (work) => selectRows(work, passwordRow, 'SELECT password_hash AS "passwordHash" FROM person WHERE id = $1', [person.id]));
  if (!(await passwordMatches(kept?.passwordHash ?? null, password))) throw new DomainError({ code: 'password_wrong' });
}

async function setPassword(work: UnitOfWork, personId: string, passwordHash: string, exceptSession: string | null): Promise<void> {
  await execute(work, 'UPDATE person SET password_hash = $2 WHERE id = $1', [personId, passwordHash]);
  await execute(work, 'DELETE FROM reset_link WHERE person_id = $1', [personId]);
  await endSessionsOf(work, personId, exceptSession);
}

const personRow = z.object({ demo: z.boolean() });

/** A link by which somebody sets a new password, once; earlier ones of theirs end. The database holds its hash. */
export async function makeResetLink(work: UnitOfWork, by: SignedIn, personId: string, now: Date): Promise<{ readonly token: string; readonly endsAt: string }> {
  const [person] = await selectRows(work, personRow, 'SELECT demo_job IS NOT NULL AS demo FROM person WHERE id = $1', [personId]);
  if (person === undefined) throw new DomainError({ code: 'account_unknown', who: 'this person' });
  if (person.demo) throw new DomainError({ code: 'demo_person' });
  const token = await makeLink(work, personId, now);
  await notePersonEvent(work, { action: 'resetLinkMade', by: by.id, about: personId });
  return { token, endsAt: endOfLink(now).toISOString() };
}

/** The word of a new link; earlier ones of theirs end. */
export async function makeLink(work: UnitOfWork, personId: string, now: Date): Promise<string> {
  const token = newSecretWord();
  await execute(work, 'DELETE FROM reset_link WHERE person_id = $1', [personId]);
  await execute(work, 'INSERT INTO reset_link (token_hash, person_id, expires_at) VALUES ($1, $2, $3)', [hashToken(token), personId, endOfLink(now)]);
  return token;
}

function endOfLink(now: Date): Date {
  return new Date(now.getTime() + LINK_HOURS * 3_600_000);
}

/** Sets a new password by a link and signs in; all sessions of before end. @throws {DomainError} when the link was used or has ended. */
export async function resetPassword(db: Sequelize, { token, password }: BodyOf<'resetPassword'>, agent: string): Promise<{ readonly token: string; readonly person: string }> {
  const found = await inTransaction(db, (work) => personOfLink(work, token));
  refuseWeakPassword(password, [found.name, found.email]);
  const passwordHash = await hashPassword(password);
  return inTransaction(db, async (work) => {
    // Used meanwhile: the row is gone, and whoever came first has set it.
    const used = await answersAny(work, 'DELETE FROM reset_link WHERE token_hash = $1 RETURNING person_id', [hashToken(token)]);
    if (!used) throw new DomainError({ code: 'reset_link_ended' });
    await setPassword(work, found.id, passwordHash, null);
    await notePersonEvent(work, { action: 'passwordReset', by: found.id });
    return { token: await startSession(work, found.id, agent), person: found.id };
  });
}

const ownerRow = z.object({ id: z.string(), name: z.string(), email: z.string() });

async function personOfLink(work: UnitOfWork, token: string): Promise<{ id: string; name: string; email: string }> {
  const [person] = await selectRows(
    work,
    ownerRow,
    'SELECT person.id, person.name, person.email FROM reset_link JOIN person ON person.id = reset_link.person_id WHERE token_hash = $1 AND expires_at > now() AND person.active',
    [hashToken(token)],
  );
  if (person === undefined) throw new DomainError({ code: 'reset_link_ended' });
  return person;
}
