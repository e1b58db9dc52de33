import { createHash, randomBytes } from 'node:crypto';
import type { Work } from '../database/index.ts';
import { execute, selectRows } from '../database/index.ts';

export const SESSION_COOKIE = 'caderno_session';
export const SESSION_DAYS = 14;

/** Who a session belongs to. */
export interface SignedIn {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly administrator: boolean;
}

/** Starts a session; the token is known to the browser only, the database holds its hash. */
export async function startSession(work: Work, personId: string): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await execute(work, 'DELETE FROM session WHERE expires_at < now()');
  await execute(work, `INSERT INTO session (token_hash, person_id, expires_at) VALUES ($1, $2, now() + interval '${SESSION_DAYS} days')`, [hashToken(token), personId]);
  return token;
}

export async function endSession(work: Work, token: string): Promise<void> {
  await execute(work, 'DELETE FROM session WHERE token_hash = $1', [hashToken(token)]);
}

export async function personOfSession(work: Work, token: string): Promise<SignedIn | null> {
  const [person] = await selectRows<SignedIn>(
    work,
    `SELECT person.id, person.name, person.email, person.administrator FROM session JOIN person ON person.id = session.person_id
     WHERE session.token_hash = $1 AND session.expires_at > now()`,
    [hashToken(token)],
  );
  return person ?? null;
}

function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
