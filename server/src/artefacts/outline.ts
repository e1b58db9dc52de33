import { artefactId, type RequirementId } from '@caderno/core/artefacts';
import { DEEPEST_OUTLINE, type OutlineMove, type OutlinePlace } from '@caderno/core/basis';
import { z } from 'zod';
import { idRow, execute, modelsOf, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { StoredPlace } from './undoPlan.ts';
import { artefactOfRetry, lockProject, writeJournalEntry, type Actor, type JournalEntryPart } from './journalEntry.ts';
import { findArtefact } from './findArtefact.ts';

/** Moves a requirement below a parent, after a sibling (null: first). Its own children go along. */
export async function moveRequirement(work: UnitOfWork, actor: Actor, id: RequirementId, move: OutlineMove): Promise<ArtefactRow> {
  await lockProject(work, actor.projectId);
  const earlier = await artefactOfRetry(work, actor);
  if (earlier !== null) return earlier;
  const row = await findArtefact(work, actor.projectId, id);
  await writeJournalEntry(work, actor, { action: 'move', parts: [await placeAfter(work, row, move.parent, move.after)], detail: '', note: '' });
  return row;
}

/** Puts a requirement back where an undo wants it; what moved in between keeps its order. */
export async function restorePlace(work: UnitOfWork, row: ArtefactRow, place: StoredPlace): Promise<JournalEntryPart> {
  const from = await placeOf(work, row);
  await makeRoom(work, row, place.parentId, place.position);
  await row.update({ parentId: place.parentId, position: place.position }, { transaction: work.transaction });
  return placePart(work, row, from);
}

/** Gives a requirement its place. @throws {DomainError} when it would stand below itself, or too deep. */
export async function placeAfter(work: UnitOfWork, row: ArtefactRow, parent: RequirementId | null, after: RequirementId | null | 'last'): Promise<JournalEntryPart> {
  const from = await placeOf(work, row);
  const parentRow = parent === null ? null : await findArtefact(work, row.projectId, parent);
  if (parentRow !== null) await refuseImpossible(work, row, parentRow);
  const position = await positionAfter(work, row, parentRow?.id ?? null, after);
  await makeRoom(work, row, parentRow?.id ?? null, position);
  await row.update({ parentId: parentRow?.id ?? null, position }, { transaction: work.transaction });
  return placePart(work, row, from);
}

async function placeOf(work: UnitOfWork, { id, projectId, parentId, position, number }: ArtefactRow): Promise<StoredPlace> {
  const [before] = await selectRows(
    work,
    idRow,
    `SELECT id FROM artefact WHERE project_id = $1 AND kind = 'requirement' AND parent_id IS NOT DISTINCT FROM $2 AND id <> $3 AND (position, number) < ($4, $5) ORDER BY position DESC, number DESC LIMIT 1`,
    [projectId, parentId, id, position, number],
  );
  return { parentId, position, after: before?.id ?? null };
}

async function placePart(work: UnitOfWork, row: ArtefactRow, from: StoredPlace): Promise<JournalEntryPart> {
  return { artefact: row, fromVersion: null, toVersion: null, undo: { kind: 'place', from, to: await placeOf(work, row) } };
}

async function positionAfter(work: UnitOfWork, row: ArtefactRow, parentId: string | null, after: RequirementId | null | 'last'): Promise<number> {
  if (after === null) return 1;
  if (after === 'last') return (await lastPosition(work, row.projectId, parentId, row.id)) + 1;
  return (await findArtefact(work, row.projectId, after)).position + 1;
}

const positionRow = z.object({ position: z.number() });

/** The last position taken below a parent; 0 when there is none. */
export async function lastPosition(work: UnitOfWork, projectId: string, parentId: string | null, except: string | null = null): Promise<number> {
  const [last] = await selectRows(
    work,
    positionRow,
    `SELECT coalesce(max(position), 0) AS position FROM artefact WHERE project_id = $1 AND kind = 'requirement' AND parent_id IS NOT DISTINCT FROM $2 AND id IS DISTINCT FROM $3`,
    [projectId, parentId, except],
  );
  return last?.position ?? 0;
}

const neighbourRow = z.object({ number: z.number(), position: z.number() });

/**
 * Puts new requirements below a parent right after those they follow in `order`, which names new ones and others; where
 * they follow none, right before the first that was there. Those that were there keep their order.
 */
export async function placeInOrder(work: UnitOfWork, projectId: string, parent: number | null, order: readonly { readonly number: number; readonly isNew: boolean }[]): Promise<void> {
  const there = await selectRows(
    work,
    neighbourRow,
    `SELECT a.number, a.position FROM artefact a LEFT JOIN artefact p ON p.id = a.parent_id WHERE a.project_id = $1 AND a.kind = 'requirement' AND p.number IS NOT DISTINCT FROM $2 ORDER BY a.position, a.number`,
    [projectId, parent],
  );
  const added = new Set(order.filter((o) => o.isNew).map((o) => o.number));
  const here = new Set(there.map((t) => t.number));
  const following = new Map<number | null, number[]>();
  const first = order.find(({ number, isNew }) => !isNew && here.has(number))?.number;
  let before: number | null = null;
  for (const { number, isNew } of order) {
    // One that was moved elsewhere here leads nobody.
    if (!isNew) before = here.has(number) ? number : before;
    else following.set(before, [...(following.get(before) ?? []), number]);
  }
  const placed = there.flatMap(({ number }) => (added.has(number) ? [] : [...(number === first ? (following.get(null) ?? []) : []), number, ...(following.get(number) ?? [])]));
  const positions = placed.map((number, i) => ({ number, position: i + 1 }));
  await execute(
    work,
    `UPDATE artefact SET position = r.position FROM jsonb_to_recordset($2::jsonb) AS r(number int, position int) WHERE project_id = $1 AND kind = 'requirement' AND artefact.number = r.number AND artefact.position <> r.position`,
    [projectId, JSON.stringify(positions)],
  );
}

async function makeRoom(work: UnitOfWork, row: ArtefactRow, parentId: string | null, position: number): Promise<void> {
  await execute(
    work,
    `UPDATE artefact SET position = position + 1
     WHERE project_id = $1 AND kind = 'requirement' AND parent_id IS NOT DISTINCT FROM $2 AND position >= $3 AND id <> $4`,
    [row.projectId, parentId, position, row.id],
  );
}

const depthRow = z.object({ levels: z.number() });

async function refuseImpossible(work: UnitOfWork, row: ArtefactRow, parent: ArtefactRow): Promise<void> {
  const above = await selectRows(
    work,
    idRow,
    'WITH RECURSIVE up AS (SELECT id, parent_id FROM artefact WHERE id = $1 UNION ALL SELECT a.id, a.parent_id FROM artefact a JOIN up ON a.id = up.parent_id) SELECT id FROM up',
    [parent.id],
  );
  if (above.some((a) => a.id === row.id)) throw new DomainError({ code: 'outline_circle', id: artefactId('requirement', row.number) });
  const [below] = await selectRows(
    work,
    depthRow,
    'WITH RECURSIVE down AS (SELECT id, 1 AS level FROM artefact WHERE id = $1 UNION ALL SELECT a.id, level + 1 FROM artefact a JOIN down ON a.parent_id = down.id) SELECT max(level) AS levels FROM down',
    [row.id],
  );
  if (above.length + (below?.levels ?? 1) > DEEPEST_OUTLINE) throw new DomainError({ code: 'outline_too_deep', limit: DEEPEST_OUTLINE });
}

/** The places of all requirements of a project, in no order. */
export async function outlinePlaces(work: UnitOfWork, projectId: string): Promise<OutlinePlace[]> {
  const rows = await modelsOf(work.db).Artefact.findAll({
    where: { projectId, kind: 'requirement', deletedAt: null },
    attributes: ['id', 'number', 'parentId', 'position'],
    transaction: work.transaction,
    raw: true,
  });
  const ids = new Map(rows.map((r) => [r.id, artefactId('requirement', r.number)]));
  return rows.map((r) => ({ id: artefactId('requirement', r.number), parent: r.parentId === null ? null : (ids.get(r.parentId) ?? null), position: r.position }));
}
