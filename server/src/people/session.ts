import { createHash } from 'node:crypto';
import type { SessionLine } from '@caderno/contract';
import { z } from 'zod';
import type { UnitOfWork } from '../database/index.ts';
import { execute, selectRows } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { newSecretWord } from './secretWord.ts';

export const SESSION_COOKIE = 'caderno_session';
export const SESSION_DAYS = 14;

/** How often it is noted when a session was last seen. */
const SEEN_MINUTES = 5;

/** The channel on which servers tell each other of ended sessions. */
export const SESSIONS_CHANNEL = 'caderno_sessions';

/** Who may sign in as the demo's people by a click: `whileAlone` as long as nobody has a password. */
export type DemoSignIn = 'always' | 'whileAlone' | 'never';

/** Who a session belongs to. */
export const signedInRow = z.object({ id: z.string(), name: z.string(), email: z.string(), administrator: z.boolean(), demo: z.boolean() });
export type SignedIn = z.infer<typeof signedInRow>;

/** Starts a session; the token is known to the browser only, the database holds its hash. */
export async function startSession(work: UnitOfWork, personId: string, agent = ''): Promise<string> {
  const token = newSecretWord();
  await execute(work, `INSERT INTO session (token_hash, person_id, expires_at, agent) VALUES ($1, $2, now() + interval '${SESSION_DAYS} days', $3)`, [hashToken(token), personId, agent]);
  return token;
}

export async function endSession(work: UnitOfWork, token: string): Promise<void> {
  await execute(work, 'DELETE FROM session WHERE token_hash = $1', [hashToken(token)]);
  await tell(work, { session: hashToken(token) });
}

const endedRow = z.object({ hash: z.string() });

/** Ends all sessions of a person but the one with this token. */
export async function endSessionsOf(work: UnitOfWork, personId: string, except: string | null = null): Promise<void> {
  const ended = await selectRows(work, endedRow, 'DELETE FROM session WHERE person_id = $1 AND token_hash IS DISTINCT FROM $2 RETURNING token_hash AS hash', [personId, except === null ? null : hashToken(except)]);
  for (const { hash } of ended) await tell(work, { session: hash });
}

/** @throws {DomainError} when the person has no such session. */
export async function endSessionById(work: UnitOfWork, personId: string, id: string): Promise<void> {
  const [ended] = await selectRows(work, endedRow, 'DELETE FROM session WHERE person_id = $1 AND id = $2 RETURNING token_hash AS hash', [personId, id]);
  if (ended === undefined) throw new DomainError({ code: 'session_unknown' });
  await tell(work, { session: ended.hash });
}

async function tell(work: UnitOfWork, ended: { readonly session: string }): Promise<void> {
  await execute(work, 'SELECT pg_notify($1, $2)', [SESSIONS_CHANNEL, JSON.stringify(ended)]);
}

/** In SQL: whether a `person` may sign in; not when they are not active, or the demo is closed to its people. `demo` names the argument that says to whom it is open. */
export function maySignIn(demo: string): string {
  return `person.active AND (person.demo_job IS NULL OR ${demo} = 'always' OR (${demo} = 'whileAlone' AND NOT EXISTS (SELECT 1 FROM person WHERE password_hash IS NOT NULL)))`;
}

/** Whose session a token is: of nobody when it has ended, its person is not active, or the demo is closed to its people. */
export async function personOfSession(work: UnitOfWork, token: string, demoSignIn: DemoSignIn): Promise<SignedIn | null> {
  const [person] = await selectRows(
    work,
    signedInRow,
    `WITH seen AS (UPDATE session SET seen_at = now() WHERE token_hash = (SELECT token_hash FROM session WHERE token_hash = $1 AND seen_at < now() - interval '${SEEN_MINUTES} minutes' FOR UPDATE SKIP LOCKED))
     SELECT person.id, person.name, person.email, person.administrator, person.demo_job IS NOT NULL AS demo FROM session JOIN person ON person.id = session.person_id
     WHERE session.token_hash = $1 AND session.expires_at > now() AND ${maySignIn('$2')}`,
    [hashToken(token), demoSignIn],
  );
  return person ?? null;
}

const sessionRow = z.object({ id: z.string(), startedAt: z.date(), seenAt: z.date(), agent: z.string(), current: z.boolean() });

/** A person's sessions, the newest first. */
export async function listSessions(work: UnitOfWork, personId: string, token: string | null): Promise<SessionLine[]> {
  const rows = await selectRows(
    work,
    sessionRow,
    `SELECT id, started_at AS "startedAt", seen_at AS "seenAt", agent, token_hash IS NOT DISTINCT FROM $2 AS current FROM session WHERE person_id = $1 AND expires_at > now() ORDER BY started_at DESC, id`,
    [personId, token === null ? null : hashToken(token)],
  );
  return rows.map((row) => ({ ...row, startedAt: row.startedAt.toISOString(), seenAt: row.seenAt.toISOString() }));
}

export function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
