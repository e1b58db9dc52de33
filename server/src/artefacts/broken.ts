import { artefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import type { BrokenArtefact, PlacedIssue } from '@caderno/contract';
import { z } from 'zod';
import { answersAny, artefactKeyRow, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { lockProject, moveOn, type Actor } from './journalEntry.ts';
import { BrokenContent, contentFromStore } from './stored.ts';
import { findArtefact, readContent } from './findArtefact.ts';
import { saveArtefact } from './store.ts';

/** More of a raw content is not shown; it stays whole in the database. */
const LONGEST_RAW = 200_000;

const storedVersionRow = z.object({ version: z.number(), author: z.string(), at: z.date(), note: z.string(), schema: z.number(), content: z.unknown() });

/** What is stored of an artefact whose head cannot be read, and which of its versions can. @throws {DomainError} when the head can. */
export async function readBroken(work: UnitOfWork, projectId: string, id: ArtefactId): Promise<BrokenArtefact> {
  const row = await findArtefact(work, projectId, id);
  const stored = await selectRows(
    work,
    storedVersionRow,
    `SELECT v.version, person.name AS author, v.at, v.note, v.schema, v.content FROM artefact_version v JOIN person ON person.id = v.author_id WHERE v.artefact_id = $1 ORDER BY v.version DESC`,
    [row.id],
  );
  const head = stored.find((v) => v.version === row.head);
  const issues = head === undefined ? [{ path: 'head', message: `must be stored: there is no v${row.head}` }] : issuesOf(row.kind, head);
  if (issues.length === 0) throw new DomainError({ code: 'artefact_unknown', id });
  const raw = JSON.stringify(head?.content ?? null, null, 2);
  return {
    id,
    title: row.title,
    version: row.head,
    issues: [...issues],
    raw: raw.slice(0, LONGEST_RAW).toWellFormed(),
    cut: raw.length > LONGEST_RAW,
    versions: stored.map(({ version, author, at, note, ...v }) => ({ version, author, at: at.toISOString(), note, readable: issuesOf(row.kind, v).length === 0 })),
  };
}

/** Why a stored content cannot be read; nothing when it can. */
export function issuesOf(kind: ArtefactKind, { schema, content }: { readonly schema: number; readonly content: unknown }): readonly PlacedIssue[] {
  try {
    contentFromStore(kind, schema, content);
    return [];
  } catch (error) {
    if (error instanceof BrokenContent) return error.issues;
    throw error;
  }
}

/** Makes an earlier version the newest, whatever the head is. @throws {DomainError} when that version cannot be read either. */
export async function restoreVersion(work: UnitOfWork, actor: Actor, id: ArtefactId, base: number, version: number): Promise<ArtefactRow> {
  const row = await findArtefact(work, actor.projectId, id);
  return saveArtefact(work, actor, id, base, await readContent(work, row, version), `v${version} restored`, { keeps: true });
}

/** Notes which artefacts cannot be read, so that lists say so; with a version only when that is still the head. Answers whether any was new. */
export async function markBroken(work: UnitOfWork, projectId: string, broken: readonly { readonly kind: ArtefactKind; readonly number: number; readonly version?: number }[]): Promise<boolean> {
  if (broken.length === 0) return false;
  await lockProject(work, projectId);
  const marked = await answersAny(
    work,
    `UPDATE artefact SET broken = true FROM jsonb_to_recordset($2::jsonb) AS r(kind text, number int, version int)
     WHERE artefact.project_id = $1 AND artefact.kind = r.kind AND artefact.number = r.number AND coalesce(r.version, artefact.head) = artefact.head AND NOT artefact.broken RETURNING artefact.id`,
    [projectId, JSON.stringify(broken)],
  );
  if (!marked) return false;
  await moveOn(work, projectId);
  return true;
}

/** The artefacts that are known not to be readable. */
export async function listBroken(work: UnitOfWork, projectId: string): Promise<ArtefactId[]> {
  const rows = await selectRows(work, artefactKeyRow, 'SELECT kind, number FROM artefact WHERE project_id = $1 AND broken AND deleted_at IS NULL ORDER BY kind, number', [projectId]);
  return rows.map((row) => artefactId(row.kind, row.number));
}
