import { z } from 'zod';
import { personEventSchema, type PersonAction, type PersonEvent } from '@caderno/contract';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';

const PAGE = 100;

interface NewEvent {
  readonly action: PersonAction;
  /** Null: somebody who is not signed in. */
  readonly by: string | null;
  readonly about?: string | null;
  readonly projectId?: string | null;
  readonly detail?: string;
}

/** Writes an entry of the journal of people, in the transaction of what it tells. */
export async function notePersonEvent(work: UnitOfWork, { action, by, about = null, projectId = null, detail = '' }: NewEvent): Promise<void> {
  await execute(work, 'INSERT INTO person_event (action, by_id, about_id, project_id, detail) VALUES ($1, $2, $3, $4, $5)', [action, by, about, projectId, detail]);
}

const eventRow = personEventSchema.extend({ id: z.string(), at: z.date() });

/** Entries before one, newest first: of a project, or of the whole server. */
export async function listPersonEvents(work: UnitOfWork, projectId: string | null, before: number | null): Promise<PersonEvent[]> {
  const rows = await selectRows(
    work,
    eventRow,
    `SELECT e.id, e.at, e.action, b.name AS by, a.name AS about, project.name AS project, e.detail
     FROM person_event e LEFT JOIN person b ON b.id = e.by_id LEFT JOIN person a ON a.id = e.about_id LEFT JOIN project ON project.id = e.project_id
     WHERE ($1::uuid IS NULL OR e.project_id = $1) AND ($2::bigint IS NULL OR e.id < $2) ORDER BY e.id DESC LIMIT ${PAGE}`,
    [projectId, before],
  );
  return rows.map((row) => ({ ...row, id: Number(row.id), at: row.at.toISOString() }));
}
