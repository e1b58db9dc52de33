import { artefactId, type RequirementId } from '@caderno/core/artefacts';
import { DEEPEST_OUTLINE, makesCircle, orderOutline, type OutlineMove, type OutlinePlace } from '@caderno/core/basis';
import { execute, modelsOf, selectRows, type ArtefactRow, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { artefactOfRetry, lockProject, recordDeed, type Commander } from './command.ts';
import { findArtefact } from './store.ts';
import type { StoredPlace } from '../versions/undoPlan.ts';

/** Moves a requirement below a parent, after a sibling (null: first). Its own children go along. */
export async function moveRequirement(work: Work, commander: Commander, id: RequirementId, move: OutlineMove): Promise<ArtefactRow> {
  await lockProject(work, commander.projectId);
  const earlier = await artefactOfRetry(work, commander);
  if (earlier !== null) return earlier;
  const row = await findArtefact(work, commander.projectId, id);
  const from: StoredPlace = { parentId: row.parentId, position: row.position };
  await placeAfter(work, row, move.parent, move.after);
  return recordMove(work, commander, row, from, { action: 'move', detail: '' });
}

/** Puts a requirement back where an undo wants it; what moved in between keeps its order. */
export async function restorePlace(work: Work, commander: Commander, row: ArtefactRow, place: StoredPlace, detail: string): Promise<ArtefactRow> {
  const from: StoredPlace = { parentId: row.parentId, position: row.position };
  await makeRoom(work, row, place.parentId, place.position);
  await row.update(place, { transaction: work.transaction });
  return recordMove(work, commander, row, from, { action: 'undo', detail });
}

async function recordMove(work: Work, commander: Commander, row: ArtefactRow, from: StoredPlace, deed: { action: 'move' | 'undo'; detail: string }): Promise<ArtefactRow> {
  const to: StoredPlace = { parentId: row.parentId, position: row.position };
  await recordDeed(work, commander, { ...deed, artefact: row, fromVersion: null, toVersion: null, note: '', undo: { kind: 'place', from, to } });
  return row;
}

/** Gives a requirement its place. @throws Refused when it would stand below itself, or too deep. */
export async function placeAfter(work: Work, row: ArtefactRow, parent: RequirementId | null, after: RequirementId | null | 'last'): Promise<void> {
  const parentRow = parent === null ? null : await findArtefact(work, row.projectId, parent);
  await refuseImpossible(work, row, parent);
  const position = await positionAfter(work, row, parentRow?.id ?? null, after);
  await makeRoom(work, row, parentRow?.id ?? null, position);
  await row.update({ parentId: parentRow?.id ?? null, position }, { transaction: work.transaction });
}

async function positionAfter(work: Work, row: ArtefactRow, parentId: string | null, after: RequirementId | null | 'last'): Promise<number> {
  if (after === null) return 1;
  if (after !== 'last') return (await findArtefact(work, row.projectId, after)).position + 1;
  const [last] = await selectRows<{ position: number }>(
    work,
    `SELECT coalesce(max(position), 0) AS position FROM artefact WHERE project_id = $1 AND kind = 'requirement' AND parent_id IS NOT DISTINCT FROM $2 AND id <> $3`,
    [row.projectId, parentId, row.id],
  );
  return (last?.position ?? 0) + 1;
}

async function makeRoom(work: Work, row: ArtefactRow, parentId: string | null, position: number): Promise<void> {
  await execute(
    work,
    `UPDATE artefact SET position = position + 1
     WHERE project_id = $1 AND kind = 'requirement' AND parent_id IS NOT DISTINCT FROM $2 AND position >= $3 AND id <> $4`,
    [row.projectId, parentId, position, row.id],
  );
}

async function refuseImpossible(work: Work, row: ArtefactRow, parent: RequirementId | null): Promise<void> {
  const id = artefactId('requirement', row.number);
  const places = await outlinePlaces(work, row.projectId);
  if (makesCircle(places, id, parent)) throw new Refused({ code: 'outline_circle', id });
  const moved = places.map((p) => (p.id === id ? { ...p, parent } : p));
  if (orderOutline(moved).some((entry) => entry.depth >= DEEPEST_OUTLINE)) throw new Refused({ code: 'outline_too_deep', limit: DEEPEST_OUTLINE });
}

/** The places of all requirements of a project, in no order. */
export async function outlinePlaces(work: Work, projectId: string): Promise<OutlinePlace[]> {
  const rows = await modelsOf(work.db).Artefact.findAll({
    where: { projectId, kind: 'requirement', deletedAt: null },
    attributes: ['id', 'number', 'parentId', 'position'],
    transaction: work.transaction,
  });
  const ids = new Map(rows.map((r) => [r.id, artefactId('requirement', r.number)]));
  return rows.map((r) => ({ id: artefactId('requirement', r.number), parent: r.parentId === null ? null : (ids.get(r.parentId) ?? null), position: r.position }));
}
