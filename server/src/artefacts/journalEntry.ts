import { randomUUID } from 'node:crypto';
import { artefactId, type ArtefactId } from '@caderno/core/artefacts';
import type { ChangeAction } from '@caderno/contract';
import { z } from 'zod';
import { execute, modelsOf, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { refuseKeptByOthers, type Touched } from './keepers.ts';
import type { UndoPlan } from './undoPlan.ts';

/** Who commands, in which project, when, and under which id a retry is known. */
export interface Actor {
  readonly projectId: string;
  readonly personId: string;
  readonly at: Date;
  readonly commandId: string | null;
}

/** What a command did to one artefact, or to the project's settings (null), and how to undo it. */
export interface JournalEntryPart {
  readonly artefact: ArtefactRow | null;
  readonly fromVersion: number | null;
  readonly toVersion: number | null;
  readonly undo: UndoPlan;
}

/** What one command did, for the journal: it is undone as one. */
export interface JournalEntry {
  readonly action: ChangeAction;
  /** In the order they were done. */
  readonly parts: readonly JournalEntryPart[];
  readonly detail: string;
  readonly note: string;
}

/** The channel on which servers tell each other of changes. */
export const CHANGES_CHANNEL = 'caderno_changes';

/** Commands on one project run one after the other: the row lock is held until the transaction ends. Whoever only refers to the project is not held up. */
export async function lockProject(work: UnitOfWork, projectId: string): Promise<void> {
  await execute(work, 'SELECT revision FROM project WHERE id = $1 FOR NO KEY UPDATE', [projectId]);
}

const earlierRow = z.object({ id: z.string(), author: z.string() });

/** The id of the change an earlier command with the same id made; null when this is the first. */
export async function changeOfRetry(work: UnitOfWork, actor: Actor): Promise<string | null> {
  if (actor.commandId === null) return null;
  const [earlier] = await selectRows(work, earlierRow, 'SELECT id, author_id AS author FROM change WHERE project_id = $1 AND command_id = $2', [actor.projectId, actor.commandId]);
  if (earlier !== undefined && earlier.author !== actor.personId) throw new DomainError({ code: 'command_id_taken' });
  return earlier?.id ?? null;
}

const partRow = z.object({ artefactId: z.string() });

/** The artefact an earlier command with the same id worked on; null when this is the first. */
export async function artefactOfRetry(work: UnitOfWork, actor: Actor): Promise<ArtefactRow | null> {
  const change = await changeOfRetry(work, actor);
  if (change === null) return null;
  const [part] = await selectRows(work, partRow, 'SELECT artefact_id AS "artefactId" FROM change_part WHERE change_id = $1 AND artefact_id IS NOT NULL ORDER BY place LIMIT 1', [change]);
  return part === undefined ? null : modelsOf(work.db).Artefact.findByPk(part.artefactId, { transaction: work.transaction });
}

/** Writes the journal entry, moves the project's revision on, and tells everyone once the transaction is through. */
export async function writeJournalEntry(work: UnitOfWork, actor: Actor, entry: JournalEntry, id: string = randomUUID()): Promise<string> {
  // Whoever is asked may agree to what others keep.
  if (entry.action !== 'review') await refuseKeptByOthers(work, actor, entry.parts.flatMap(touchedBy));
  const revision = await moveOn(work, actor.projectId);
  await execute(
    work,
    `INSERT INTO change (id, project_id, revision, action, author_id, at, detail, note, command_id, size) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [id, actor.projectId, revision, entry.action, actor.personId, actor.at, entry.detail, entry.note, actor.commandId, entry.parts.length],
  );
  const parts = entry.parts.map(({ artefact, fromVersion, toVersion, undo }, place) => ({ place, artefact_id: artefact?.id ?? null, from_version: fromVersion, to_version: toVersion, undo }));
  await execute(
    work,
    `INSERT INTO change_part (change_id, place, artefact_id, from_version, to_version, undo)
     SELECT $1, p.* FROM jsonb_to_recordset($2::jsonb) AS p(place int, artefact_id bigint, from_version int, to_version int, undo jsonb)`,
    [id, JSON.stringify(parts)],
  );
  return id;
}

/** What a part changes of the design; what is only noted about it changes nothing. */
function touchedBy({ artefact, fromVersion, undo }: JournalEntryPart): Touched[] {
  switch (undo.kind) {
    case 'content':
    case 'existence':
    case 'state':
    case 'place':
      return artefact === null ? [] : [{ id: artefact.id, before: fromVersion }];
    case 'settings':
    case 'imported':
    case 'carried':
      return [];
  }
}

const movedRow = z.object({ revision: z.number(), key: z.string() });

/** The project's next revision; everyone is told once the transaction is through. What was altered in it carries this revision. */
export async function moveOn(work: UnitOfWork, projectId: string): Promise<number> {
  const [project] = await selectRows(work, movedRow, 'UPDATE project SET revision = revision + 1 WHERE id = $1 RETURNING revision, key', [projectId]);
  if (project === undefined) throw new Error('A revision belongs to a project: expected one, got none');
  await execute(work, 'SELECT pg_notify($1, $2)', [CHANGES_CHANNEL, JSON.stringify({ project: project.key, revision: project.revision })]);
  return project.revision;
}

export function idOfRow(row: ArtefactRow): ArtefactId {
  return artefactId(row.kind, row.number);
}
