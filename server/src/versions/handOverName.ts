import { randomUUID } from 'node:crypto';
import { artefactId } from '@caderno/core/artefacts';
import type { ManyEdit } from '@caderno/core/many';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import type { Actor } from '../artefacts/index.ts';
import { answersAny, artefactKeyRow, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import type { JobKind, Jobs } from '../jobs/index.ts';
import { readSettings } from '../projects/index.ts';
import { changeMany } from './changeMany.ts';

/** The queue of names that changed. */
export const NAMES = 'names';

const nameDataSchema = z.object({ projectId: z.string(), personId: z.string(), at: z.coerce.date(), before: z.string(), name: z.string() });
type NameData = z.infer<typeof nameDataSchema>;

/** Sends what follows a name on its way, in the transaction that changes the name: both happen, or neither. */
export async function sendName(work: UnitOfWork, jobs: Jobs, data: NameData): Promise<void> {
  await jobs.send<NameData>(work, NAMES, randomUUID(), data);
}

/** What somebody's name stands in follows it, whichever server is free. Done twice it changes nothing more. */
export function nameKind(db: Sequelize): JobKind<NameData> {
  return { name: NAMES, data: nameDataSchema, atOnce: 1, mostSeconds: 120, retries: 5, run: (data) => inTransaction(db, (work) => handOverName(work, data)) };
}

/** What somebody owns, is asked, or is the value of, under the name they had, is theirs under the new one: an entry of the journal for each field. */
async function handOverName(work: UnitOfWork, { before, name, ...whose }: NameData): Promise<void> {
  if (await isCalledByAnother(work, whose, before)) return;
  const actor: Actor = { ...whose, commandId: null };
  await change(work, actor, 'owner = $2', [before], { kind: 'owner', owner: name }, `${before} is called ${name} now`);
  for (const field of (await readSettings(work, actor.projectId)).settings.fields) {
    if (field.type === 'person' && !field.removed) await change(work, actor, 'own->>$3 = $2', [before, field.id], { kind: 'own', field: field.id, value: name }, `${before} is called ${name} now, in ${field.name}`);
  }
}

/** Where two were called so, nobody knows whose it is. */
function isCalledByAnother(work: UnitOfWork, { projectId, personId }: Pick<NameData, 'projectId' | 'personId'>, before: string): Promise<boolean> {
  return answersAny(work, 'SELECT 1 FROM member JOIN person ON person.id = member.person_id WHERE member.project_id = $1 AND person.name = $2 AND person.id <> $3', [projectId, before, personId]);
}

async function change(work: UnitOfWork, actor: Actor, where: string, bind: readonly string[], edit: ManyEdit, detail: string): Promise<void> {
  const rows = await selectRows(work, artefactKeyRow, `SELECT kind, number FROM artefact WHERE project_id = $1 AND ${where} AND deleted_at IS NULL ORDER BY id`, [actor.projectId, ...bind]);
  if (rows.length > 0) await changeMany(work, actor, rows.map((row) => artefactId(row.kind, row.number)), { done: { kind: 'edit', edit }, detail });
}
