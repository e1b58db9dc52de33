import { LIMITS, TOKEN_SCOPES, type AccessTokenLine, type NewAccessToken, type TokenScope } from '@caderno/contract';
import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { notePersonEvent } from './events.ts';
import { roleIn } from './members.ts';
import { newSecretWord } from './secretWord.ts';
import { hashToken, maySignIn, signedInRow, type DemoSignIn, type SignedIn } from './session.ts';

/** By which a token is told from that of a session, and found where it was left lying about. */
const PREFIX = 'caderno_';

/** How often it is noted when a token was last used. */
const USED_MINUTES = 5;

export function isAccessToken(token: string): boolean {
  return token.startsWith(PREFIX);
}

/** What a token opens: one project, as its person, for reading or for writing too. */
export interface TokenAccess {
  readonly person: SignedIn;
  readonly projectId: string;
  readonly scope: TokenScope;
}

const accessRow = signedInRow.extend({ projectId: z.string(), scope: z.enum(TOKEN_SCOPES) });

/** What a token opens; nothing when it was withdrawn or has ended, or its person may not sign in. */
export async function accessOfToken(work: UnitOfWork, token: string, demoSignIn: DemoSignIn): Promise<TokenAccess | null> {
  const [row] = await selectRows(
    work,
    accessRow,
    `WITH used AS (UPDATE access_token SET used_at = now() WHERE id = (SELECT id FROM access_token WHERE token_hash = $1 AND coalesce(used_at, '-infinity') < now() - interval '${USED_MINUTES} minutes' FOR UPDATE SKIP LOCKED))
     SELECT person.id, person.name, person.email, person.administrator, person.demo_job IS NOT NULL AS demo, t.project_id AS "projectId", t.scope
     FROM access_token t JOIN person ON person.id = t.person_id
     WHERE t.token_hash = $1 AND t.expires_at > now() AND ${maySignIn('$2')}`,
    [hashToken(token), demoSignIn],
  );
  if (row === undefined) return null;
  const { projectId, scope, ...person } = row;
  return { person, projectId, scope };
}

const tokenRow = z.object({ id: z.string(), name: z.string(), project: z.string(), projectName: z.string(), scope: z.enum(TOKEN_SCOPES), madeAt: z.date(), usedAt: z.date().nullable(), expiresAt: z.date() });

/** A person's tokens, the newest first; those that have ended too, until they are taken away. */
export async function listTokens(work: UnitOfWork, personId: string): Promise<AccessTokenLine[]> {
  const rows = await selectRows(
    work,
    tokenRow,
    `SELECT t.id, t.name, project.key AS project, project.name AS "projectName", t.scope, t.made_at AS "madeAt", t.used_at AS "usedAt", t.expires_at AS "expiresAt"
     FROM access_token t JOIN project ON project.id = t.project_id WHERE t.person_id = $1 ORDER BY t.made_at DESC, t.id`,
    [personId],
  );
  return rows.map((row) => ({ ...row, madeAt: row.madeAt.toISOString(), usedAt: row.usedAt?.toISOString() ?? null, expiresAt: row.expiresAt.toISOString() }));
}

/** Makes a token; it is told this once, the database holds its hash. @throws {DomainError} when the person is not in the project, or has as many tokens as anybody may have. */
export async function makeToken(work: UnitOfWork, person: SignedIn, { name, project, scope, days }: NewAccessToken): Promise<{ readonly token: string; readonly tokens: AccessTokenLine[] }> {
  const membership = await roleIn(work, person, project);
  if (membership === null) throw new DomainError({ code: 'project_unknown', project });
  if (membership.isHidden) throw new DomainError({ code: 'part_only' });
  const tokens = await listTokens(work, person.id);
  if (tokens.length >= LIMITS.accessTokens) throw new DomainError({ code: 'tokens_too_many', limit: LIMITS.accessTokens });
  const token = `${PREFIX}${newSecretWord()}`;
  await execute(work, `INSERT INTO access_token (token_hash, person_id, project_id, name, scope, expires_at) VALUES ($1, $2, $3, $4, $5, now() + make_interval(days => $6))`, [hashToken(token), person.id, membership.projectId, name, scope, days]);
  await notePersonEvent(work, { action: 'tokenMade', by: person.id, projectId: membership.projectId, detail: name });
  return { token, tokens: await listTokens(work, person.id) };
}

const goneRow = z.object({ name: z.string(), projectId: z.string() });

/** From the next request on it opens nothing. @throws {DomainError} when the person has no such token. */
export async function withdrawToken(work: UnitOfWork, person: SignedIn, id: string): Promise<AccessTokenLine[]> {
  const [gone] = await selectRows(work, goneRow, 'DELETE FROM access_token WHERE person_id = $1 AND id = $2 RETURNING name, project_id AS "projectId"', [person.id, id]);
  if (gone === undefined) throw new DomainError({ code: 'token_unknown' });
  await notePersonEvent(work, { action: 'tokenWithdrawn', by: person.id, projectId: gone.projectId, detail: gone.name });
  return listTokens(work, person.id);
}
