import { randomUUID } from 'node:crypto';
import { FILE_LIMITS } from '@caderno/core/exchange';
import { LIMITS, importProgressSchema, mappingSchema, type ImportProgress } from '@caderno/contract';
import { z } from 'zod';
import { reqifTypesSchema } from './remembered.ts';
import { answersAny, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

/** A file that waits to be imported. */
const storedFileRow = z.object({ name: z.string(), bytes: z.custom<Uint8Array>((value) => value instanceof Uint8Array) });
export type StoredFile = z.infer<typeof storedFileRow>;

/** How long a file is kept that nobody imports. */
const KEPT_HOURS = 24;

/** Removes files that nobody imported. */
export async function sweepFiles(work: UnitOfWork): Promise<void> {
  await execute(work, `DELETE FROM import_file WHERE at < now() - interval '${KEPT_HOURS} hours'`);
}

const waitingRow = z.object({ bytes: z.string() });

/** Keeps a file until it is imported. @throws {DomainError} when too much of the person's waits already. */
export async function keepFile(work: UnitOfWork, projectId: string, personId: string, { name, bytes }: StoredFile, at: Date): Promise<string> {
  if (bytes.length > FILE_LIMITS.bytes) throw new DomainError({ code: 'file_too_large', limit: FILE_LIMITS.bytes });
  const [waiting] = await selectRows(work, waitingRow, `SELECT coalesce(sum(length(bytes)), 0) AS bytes FROM import_file WHERE person_id = $1 AND state <> 'done' AND at > $2::timestamptz - interval '${KEPT_HOURS} hours'`, [personId, at]);
  if (Number(waiting?.bytes ?? 0) + bytes.length > LIMITS.waitingFiles) throw new DomainError({ code: 'quota_exceeded', of: 'person', limit: LIMITS.waitingFiles });
  const id = randomUUID();
  await execute(work, `INSERT INTO import_file (id, project_id, person_id, name, bytes, at, state) VALUES ($1, $2, $3, $4, $5, $6, 'waiting')`, [id, projectId, personId, name, Buffer.from(bytes), at]);
  return id;
}

/** @throws {DomainError} when the project has no such file. */
export async function readKeptFile(work: UnitOfWork, projectId: string, id: string): Promise<StoredFile> {
  const [file] = await selectRows(work, storedFileRow, 'SELECT name, bytes FROM import_file WHERE id = $1 AND project_id = $2', [id, projectId]);
  if (file === undefined) throw new DomainError({ code: 'import_unknown' });
  return file;
}

/** How often a server says that it is still at a run, and after how long a silence the run was cut off with its server. */
export const BEAT_MS = 2_000;
const SILENCE_SECONDS = 10;
const CUT_OFF = `state = 'running' AND alive_at < now() - interval '${SILENCE_SECONDS} seconds'`;

export async function readProgress(work: UnitOfWork, projectId: string, id: string): Promise<ImportProgress> {
  const [progress] = await selectRows(work, importProgressSchema, `SELECT CASE WHEN ${CUT_OFF} THEN 'failed' ELSE state END AS state, done, total FROM import_file WHERE id = $1 AND project_id = $2`, [id, projectId]);
  if (progress === undefined) throw new DomainError({ code: 'import_unknown' });
  return progress;
}

/** Takes the file for one run. @throws {DomainError} when it is running already. */
export async function beginRun(work: UnitOfWork, projectId: string, id: string): Promise<void> {
  const begun = await answersAny(work, `UPDATE import_file SET state = 'running', done = 0, total = 0, alive_at = now() WHERE id = $1 AND project_id = $2 AND (state <> 'running' OR ${CUT_OFF}) RETURNING id`, [id, projectId]);
  if (begun) return;
  await readProgress(work, projectId, id);
  throw new DomainError({ code: 'import_running' });
}

/** Says that a run is still under way. */
export async function beatRun(work: UnitOfWork, id: string): Promise<void> {
  await execute(work, `UPDATE import_file SET alive_at = now() WHERE id = $1 AND state = 'running'`, [id]);
}

export async function endRun(work: UnitOfWork, id: string, state: 'done' | 'cancelled' | 'failed' | 'waiting'): Promise<void> {
  await execute(work, 'UPDATE import_file SET state = $2 WHERE id = $1', [id, state]);
}

const stateRow = z.object({ state: z.string() });

/** Notes how far a run is. @throws {DomainError} when somebody has stopped it. */
export async function noteProgress(work: UnitOfWork, id: string, done: number, total: number): Promise<void> {
  const [row] = await selectRows(work, stateRow, 'UPDATE import_file SET done = $2, total = $3 WHERE id = $1 RETURNING state', [id, done, total]);
  if (row?.state === 'cancelled') throw new DomainError({ code: 'import_cancelled' });
}

/** Stops a run; it ends at its next statement, and nothing of it stays. */
export async function cancelRun(work: UnitOfWork, projectId: string, id: string): Promise<ImportProgress> {
  await execute(work, `UPDATE import_file SET state = 'cancelled' WHERE id = $1 AND project_id = $2 AND state IN ('running', 'waiting')`, [id, projectId]);
  return readProgress(work, projectId, id);
}

/** What is remembered of a source: how its columns were matched, and the types of a ReqIF document. */
const importSourceRow = z.object({ name: z.string(), mapping: mappingSchema, types: reqifTypesSchema.nullable() });
export type ImportSource = z.infer<typeof importSourceRow>;

export async function listSources(work: UnitOfWork, projectId: string): Promise<ImportSource[]> {
  return selectRows(work, importSourceRow, 'SELECT name, mapping, types FROM import_source WHERE project_id = $1 ORDER BY name', [projectId]);
}

export async function rememberSource(work: UnitOfWork, projectId: string, { name, mapping, types }: ImportSource): Promise<void> {
  await execute(
    work,
    `INSERT INTO import_source (project_id, name, mapping, types) VALUES ($1, $2, $3, $4)
     ON CONFLICT (project_id, name) DO UPDATE SET mapping = excluded.mapping, types = coalesce(excluded.types, import_source.types)`,
    [projectId, name, JSON.stringify(mapping), types === null ? null : JSON.stringify(types)],
  );
}
