import { artefactIdSchema } from '@caderno/contract';
import { z } from 'zod';
import type { CarriedHere, JournalEntryPart } from '../artefacts/index.ts';
import { execute, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';

const carriedRow = z.object({ id: z.string(), project: z.string(), first: artefactIdSchema, versions: z.array(z.tuple([z.number(), z.number()])), schema: z.number(), base: z.unknown() });

/** What is remembered of artefacts that were carried here, by their row ids. */
export async function readCarried(work: UnitOfWork, rowIds: readonly string[]): Promise<Map<string, CarriedHere>> {
  const rows = await selectRows(work, carriedRow, 'SELECT artefact_id AS id, first_project AS project, first_id AS first, versions, schema, base FROM carried WHERE artefact_id = ANY($1)', [rowIds]);
  return new Map(rows.map(({ id, project, first, ...rest }) => [id, { first: { project, id: first }, ...rest }]));
}

/** What is to be remembered of an artefact; null: nothing any more. */
interface Remembered {
  readonly row: ArtefactRow;
  readonly carried: CarriedHere | null;
}

/** Remembers of artefacts where they were written first, and what they were when they came. Answers how to undo it. */
export async function rememberCarried(work: UnitOfWork, remembered: readonly Remembered[]): Promise<JournalEntryPart[]> {
  const before = await readCarried(work, remembered.map(({ row }) => row.id));
  const gone = remembered.flatMap(({ row, carried }) => (carried === null ? [row.id] : []));
  if (gone.length > 0) await execute(work, 'DELETE FROM carried WHERE artefact_id = ANY($1)', [gone]);
  const records = remembered.flatMap(({ row, carried }) => (carried === null ? [] : [{ artefact_id: row.id, first_project: carried.first.project, first_id: carried.first.id, versions: carried.versions, schema: carried.schema, base: carried.base }]));
  await execute(
    work,
    `INSERT INTO carried (artefact_id, first_project, first_id, versions, schema, base)
     SELECT r.* FROM jsonb_to_recordset($1::jsonb) AS r(artefact_id bigint, first_project text, first_id text, versions jsonb, schema int, base jsonb)
     ON CONFLICT (artefact_id) DO UPDATE SET first_project = excluded.first_project, first_id = excluded.first_id, versions = excluded.versions, schema = excluded.schema, base = excluded.base`,
    [JSON.stringify(records)],
  );
  return remembered.map(({ row, carried }) => ({ artefact: row, fromVersion: null, toVersion: null, undo: { kind: 'carried', from: before.get(row.id) ?? null, to: carried } }));
}
