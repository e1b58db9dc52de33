import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId } from '@caderno/core/artefacts';
import { readingCopy } from '@caderno/core/readingCopy';
import { keysUsed, visibleConstants } from '@caderno/core/shared';
import type { KindAndContent, NewReadLink, ReadLink, ResponseOf, ShownByLink } from '@caderno/contract';
import { z } from 'zod';
import { findArtefact, readContent, readLibrary } from '../artefacts/index.ts';
import { execute, numberRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { countAttempt, hashToken, newSecretWord, notePersonEvent, type SignedIn } from '../people/index.ts';
import { readSettings } from '../projects/index.ts';

const DAY_MS = 86_400_000;

/** Who gives or ends a link, and in which project. */
export interface Giver {
  readonly by: SignedIn;
  readonly projectId: string;
  readonly at: Date;
}

/** Gives a link to read one artefact, always in its version of then. The database holds the hash of its word. */
export async function makeReadLink(work: UnitOfWork, { by, projectId, at }: Giver, { id, forWhom, days }: NewReadLink): Promise<ResponseOf<'makeReadLink'>> {
  const artefact = await findArtefact(work, projectId, id);
  const token = newSecretWord();
  await execute(work, 'INSERT INTO read_link (token_hash, project_id, artefact_id, by_id, for_whom, made_at, expires_at) VALUES ($1, $2, $3, $4, $5, $6, $7)', [
    hashToken(token),
    projectId,
    artefact.id,
    by.id,
    forWhom.trim(),
    at,
    new Date(at.getTime() + days * DAY_MS),
  ]);
  await notePersonEvent(work, { action: 'readLinkMade', by: by.id, projectId, detail: id });
  return { token, links: await listReadLinks(work, projectId, at) };
}

const kindAndNumber = z.object({ kind: z.enum(ARTEFACT_KINDS), ...numberRow.shape });
const lineRow = kindAndNumber.extend({ id: z.string(), title: z.string(), forWhom: z.string(), by: z.string(), madeAt: z.date(), endsAt: z.date(), opened: z.number(), openedAt: z.date().nullable() });

/** What a link needs to open anything: who gave it may still change the project, and what it shows is still there. `a` the artefact, `l` the link, `$2` now. */
const OPENS = `l.expires_at > $2 AND a.deleted_at IS NULL AND EXISTS (SELECT 1 FROM member m JOIN person p ON p.id = m.person_id WHERE m.project_id = l.project_id AND m.person_id = l.by_id AND m.role <> 'reader' AND p.active)`;

/** Those that still open something, the latest first. */
export async function listReadLinks(work: UnitOfWork, projectId: string, at: Date): Promise<ReadLink[]> {
  const rows = await selectRows(
    work,
    lineRow,
    `SELECT l.id, a.kind, a.number, a.title, l.for_whom AS "forWhom", by.name AS by, l.made_at AS "madeAt", l.expires_at AS "endsAt", l.opened, l.opened_at AS "openedAt"
     FROM read_link l JOIN artefact a ON a.id = l.artefact_id JOIN person by ON by.id = l.by_id WHERE l.project_id = $1 AND ${OPENS} ORDER BY l.made_at DESC, l.id`,
    [projectId, at],
  );
  return rows.map(({ kind, number, madeAt, endsAt, openedAt, ...row }) => ({ ...row, of: artefactId(kind, number), madeAt: madeAt.toISOString(), endsAt: endsAt.toISOString(), openedAt: openedAt?.toISOString() ?? null }));
}

/** It opens nothing any more. Ended twice it is ended. */
export async function endReadLink(work: UnitOfWork, { by, projectId, at }: Giver, id: string): Promise<ReadLink[]> {
  const [ended] = await selectRows(work, kindAndNumber, 'DELETE FROM read_link l USING artefact a WHERE l.project_id = $1 AND l.id = $2 AND a.id = l.artefact_id RETURNING a.kind, a.number', [projectId, id]);
  if (ended !== undefined) await notePersonEvent(work, { action: 'readLinkEnded', by: by.id, projectId, detail: artefactId(ended.kind, ended.number) });
  return listReadLinks(work, projectId, at);
}

const openedRow = kindAndNumber.extend({ projectId: z.string(), project: z.string(), by: z.string(), endsAt: z.date(), state: z.enum(ARTEFACT_STATES), version: z.number(), savedAt: z.date() });

/** What a link shows, for whoever has it; counted. @throws {DomainError} when it opens nothing, for whatever reason, or was opened too often in the last minute. */
export async function openReadLink(work: UnitOfWork, token: string, at: Date, address: string): Promise<ShownByLink> {
  // Counted apart from attempts to sign in, which a place where many read links must not use up.
  await countAttempt(work, `link ${hashToken(token)}`, `link ${address}`);
  const [link] = await selectRows(
    work,
    openedRow,
    `UPDATE read_link l SET opened = l.opened + 1, opened_at = $2 FROM artefact a, project, person by, artefact_version v
     WHERE l.token_hash = $1 AND a.id = l.artefact_id AND project.id = l.project_id AND by.id = l.by_id AND v.artefact_id = a.id AND v.version = a.head AND ${OPENS}
     RETURNING a.kind, a.number, a.state, a.head AS version, v.at AS "savedAt", l.project_id AS "projectId", project.name AS project, by.name AS by, l.expires_at AS "endsAt"`,
    [hashToken(token), at],
  );
  if (link === undefined) throw new DomainError({ code: 'read_link_ended' });
  const { kind, number, projectId, savedAt, endsAt, ...shown } = link;
  const id = artefactId(kind, number);
  const value = await readContent(work, await findArtefact(work, projectId, id), link.version);
  const library = await readLibrary(work, projectId, keysOf(value));
  const { settings } = await readSettings(work, projectId);
  const { beyond, ...copy } = readingCopy(value, library, visibleConstants(settings.constants));
  return { ...shown, id, savedAt: savedAt.toISOString(), endsAt: endsAt.toISOString(), copy: { ...copy, beyond: String(beyond) } };
}

function keysOf({ kind, content }: KindAndContent): string[] {
  return kind === 'case' || kind === 'shared' ? keysUsed(content) : [];
}
