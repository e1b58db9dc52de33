import { idOfRow, leaveReviews, usersOf, type Actor, type JournalEntryPart } from '../artefacts/index.ts';
import { execute, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { returnRemarks } from '../remarks/index.ts';

/** Takes the making of artefacts back, or makes them again. @throws {DomainError} when something else still uses one that would be gone. */
export async function setExistence(work: UnitOfWork, actor: Actor, rows: readonly ArtefactRow[], exists: boolean): Promise<JournalEntryPart[]> {
  const [first] = rows;
  const users = exists ? [] : await usersOf(work, rows.map((r) => r.id));
  if (users.length > 0 && first !== undefined) throw new DomainError({ code: 'still_used', id: idOfRow(first), users });
  if (!exists) await leaveReviews(work, actor, rows);
  await returnRemarks(work, actor.projectId, rows, exists);
  await execute(work, 'UPDATE artefact SET deleted_at = $2 WHERE id = ANY($1)', [rows.map((r) => r.id), exists ? null : actor.at]);
  return rows.map((artefact) => ({ artefact, fromVersion: null, toVersion: null, undo: { kind: 'existence', exists: !exists } }));
}
