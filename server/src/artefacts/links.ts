import { parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import type { KindAndContent } from '@caderno/contract';
import { execute, modelsOf, selectRows, type ArtefactRow, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';

export interface TraceLink {
  readonly to: ArtefactId;
  readonly type: 'derives' | 'covers';
  readonly seenVersion: number;
}

/** The trace links a content holds. The link table is derived from them. */
export function traceLinks(value: KindAndContent): TraceLink[] {
  switch (value.kind) {
    case 'requirement':
      return [];
    case 'condition':
      return value.content.requirements.map((r) => ({ to: r.id, type: 'derives', seenVersion: r.seenVersion }));
    case 'case':
      return value.content.covers.map((c) => ({ to: c.id, type: 'covers', seenVersion: c.seenVersion }));
  }
}

/** Writes an artefact's links anew. @throws Refused when a target is not in the project. */
export async function writeLinks(work: Work, projectId: string, rowId: string, value: KindAndContent): Promise<void> {
  for (const { to } of traceLinks(value)) {
    const target = await findRow(work, projectId, to);
    if (target === null || target.deletedAt !== null) throw new Refused({ code: 'link_unknown', id: to });
  }
  await rewriteLinks(work, projectId, rowId, value);
}

/** The same without asking whether targets were deleted since: what was linked once stays so. */
export async function rewriteLinks(work: Work, projectId: string, rowId: string, value: KindAndContent): Promise<void> {
  await execute(work, 'DELETE FROM link WHERE from_id = $1', [rowId]);
  for (const { to, type, seenVersion } of traceLinks(value)) {
    const target = await findRow(work, projectId, to);
    if (target !== null) await execute(work, 'INSERT INTO link (from_id, to_id, type, seen_version) VALUES ($1, $2, $3, $4)', [rowId, target.id, type, seenVersion]);
  }
}

async function findRow(work: Work, projectId: string, id: ArtefactId): Promise<Pick<ArtefactRow, 'id' | 'deletedAt'> | null> {
  const parsed = parseArtefactId(id);
  return parsed === null ? null : modelsOf(work.db).Artefact.findOne({ where: { projectId, ...parsed }, attributes: ['id', 'deletedAt'], transaction: work.transaction });
}

/** The artefacts that link to one, deleted ones left out. */
export async function usersOf(work: Work, rowId: string): Promise<ArtefactId[]> {
  const rows = await selectRows<{ id: ArtefactId }>(
    work,
    `SELECT CASE kind WHEN 'requirement' THEN 'R' WHEN 'condition' THEN 'K' ELSE 'C' END || '-' || number AS id FROM artefact
     WHERE deleted_at IS NULL AND (id IN (SELECT from_id FROM link WHERE to_id = $1) OR parent_id = $1) ORDER BY kind, number`,
    [rowId],
  );
  return rows.map((r) => r.id);
}
