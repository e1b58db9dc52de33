import { randomUUID } from 'node:crypto';
import { artefactId, type ArtefactId } from '@caderno/core/artefacts';
import type { ChangeAction } from '@caderno/contract';
import { execute, modelsOf, selectRows, type ArtefactRow, type Work } from '../database/index.ts';
import type { UndoPlan } from '../versions/undoPlan.ts';

/** Who commands, in which project, when, and under which id a retry is known. */
export interface Commander {
  readonly projectId: string;
  readonly personId: string;
  readonly at: Date;
  readonly commandId: string | null;
}

/** What one command did, for the journal. */
export interface Deed {
  readonly action: ChangeAction;
  readonly artefact: ArtefactRow;
  readonly fromVersion: number | null;
  readonly toVersion: number | null;
  readonly detail: string;
  readonly note: string;
  readonly undo: UndoPlan;
}

/** The channel on which servers tell each other of changes. */
export const CHANGES_CHANNEL = 'caderno_changes';

/** Commands on one project run one after the other: the row lock is held until the transaction ends. */
export async function lockProject(work: Work, projectId: string): Promise<void> {
  await execute(work, 'SELECT revision FROM project WHERE id = $1 FOR UPDATE', [projectId]);
}

/** The artefact an earlier command with the same id worked on; null when this is the first. */
export async function artefactOfRetry(work: Work, commander: Commander): Promise<ArtefactRow | null> {
  if (commander.commandId === null) return null;
  const { Artefact, Change } = modelsOf(work.db);
  const earlier = await Change.findOne({ where: { projectId: commander.projectId, commandId: commander.commandId }, transaction: work.transaction });
  return earlier === null ? null : Artefact.findByPk(earlier.artefactId, { transaction: work.transaction });
}

/** Writes the journal entry, moves the project's revision on, and tells everyone once the transaction is through. */
export async function recordDeed(work: Work, commander: Commander, deed: Deed, id: string = randomUUID()): Promise<string> {
  const [project] = await selectRows<{ revision: number; key: string }>(
    work,
    'UPDATE project SET revision = revision + 1 WHERE id = $1 RETURNING revision, key',
    [commander.projectId],
  );
  if (project === undefined) throw new Error('A command belongs to a project: expected one, got none');
  await modelsOf(work.db).Change.create(
    {
      id,
      projectId: commander.projectId,
      revision: project.revision,
      action: deed.action,
      artefactId: deed.artefact.id,
      authorId: commander.personId,
      at: commander.at,
      fromVersion: deed.fromVersion,
      toVersion: deed.toVersion,
      detail: deed.detail,
      note: deed.note,
      commandId: commander.commandId,
      undo: deed.undo,
      undoneBy: null,
    },
    { transaction: work.transaction },
  );
  const told = { project: project.key, revision: project.revision, artefacts: [idOfRow(deed.artefact)], by: commander.personId };
  await execute(work, 'SELECT pg_notify($1, $2)', [CHANGES_CHANNEL, JSON.stringify(told)]);
  return id;
}

export function idOfRow(row: ArtefactRow): ArtefactId {
  return artefactId(row.kind, row.number);
}
