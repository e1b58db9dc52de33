import { artefactId } from '@caderno/core/artefacts';
import type { Actor } from '../artefacts/index.ts';
import { artefactKeyRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { changeMany } from './changeMany.ts';

/** What somebody owns, or is asked, under the name they had, is theirs under the new one: one entry of the journal. */
export async function handOverName(work: UnitOfWork, actor: Actor, before: string, name: string): Promise<void> {
  // Where two were called so, nobody knows whose it is.
  const rows = await selectRows(
    work,
    artefactKeyRow,
    `SELECT kind, number FROM artefact WHERE project_id = $1 AND owner = $2 AND deleted_at IS NULL
       AND NOT EXISTS (SELECT 1 FROM member JOIN person ON person.id = member.person_id WHERE member.project_id = $1 AND person.name = $2 AND person.id <> $3) ORDER BY id`,
    [actor.projectId, before, actor.personId],
  );
  if (rows.length === 0) return;
  await changeMany(work, actor, rows.map((row) => artefactId(row.kind, row.number)), { done: { kind: 'edit', edit: { kind: 'owner', owner: name } }, detail: `${before} is called ${name} now` });
}
