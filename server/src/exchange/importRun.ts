import type { ImportProgress, Refusal } from '@caderno/contract';
import { z } from 'zod';
import { answersAny, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { readProgress } from './importFile.ts';

/** How often a server says that it is still at a run, and after how long a silence the run is taken for lost with its server. */
export const BEAT_MS = 2_000;
const SILENCE_SECONDS = 10;

const runRow = z.object({ state: z.string(), command: z.string().nullable() });

/** Takes the file for the run of a command, which is not at work yet; false: this very command has done so before. @throws {DomainError} when another one runs. */
export async function beginRun(work: UnitOfWork, projectId: string, id: string, job: string, command: string | null): Promise<boolean> {
  const [now] = await selectRows(work, runRow, 'SELECT state, command_id AS command FROM import_file WHERE id = $1 AND project_id = $2 FOR NO KEY UPDATE', [id, projectId]);
  if (now === undefined) throw new DomainError({ code: 'import_unknown' });
  if (now.state === 'running') {
    if (command !== null && now.command === command) return false;
    throw new DomainError({ code: 'import_running' });
  }
  // Stopped before it had begun, or its answer had come.
  if (now.state === 'cancelled' && command !== null && now.command === command) throw new DomainError({ code: 'import_cancelled' });
  await execute(work, `UPDATE import_file SET state = 'running', done = 0, total = 0, alive_at = NULL, job_id = $2, command_id = $3, refusal = NULL WHERE id = $1`, [id, job, command]);
  return true;
}

/** Says that the run of a job is under way; false: it was stopped, or is another job's now. */
export async function beatRun(work: UnitOfWork, id: string, job: string): Promise<boolean> {
  return answersAny(work, `UPDATE import_file SET alive_at = now() WHERE id = $1 AND job_id = $2 AND state = 'running' RETURNING id`, [id, job]);
}

const stateRow = z.object({ state: z.string() });

/** Notes how far the run of a job is. @throws {DomainError} when somebody has stopped it. */
export async function noteProgress(work: UnitOfWork, id: string, job: string, done: number, total: number): Promise<void> {
  const [row] = await selectRows(work, stateRow, 'UPDATE import_file SET done = $3, total = $4 WHERE id = $1 AND job_id = $2 RETURNING state', [id, job, done, total]);
  if (row?.state !== 'running') throw new DomainError({ code: 'import_cancelled' });
}

/** How a run ended. `refused`: nothing was imported, and it may be run again. */
export type RunEnd = { readonly kind: 'done' } | { readonly kind: 'refused'; readonly refusal: Refusal };

/** Notes how the run of a job ended; whoever waits for it is told. */
export async function endRun(work: UnitOfWork, id: string, job: string, end: RunEnd): Promise<void> {
  const refusal = end.kind === 'refused' ? end.refusal : null;
  const state = refusal === null ? 'done' : refusal.code === 'import_cancelled' ? 'cancelled' : refusal.code === 'import_lost' ? 'failed' : 'waiting';
  await execute(work, 'UPDATE import_file SET state = $3, refusal = $4 WHERE id = $1 AND job_id = $2', [id, job, state, refusal === null ? null : JSON.stringify(refusal)]);
}

const endRow = z.object({ state: z.string(), refusal: z.custom<Refusal>((value) => typeof value === 'object' && value !== null && 'code' in value).nullable() });

/** How the last run of a file ended; null: it is under way. */
export async function readRunEnd(work: UnitOfWork, id: string): Promise<RunEnd | null> {
  const [now] = await selectRows(work, endRow, 'SELECT state, refusal FROM import_file WHERE id = $1', [id]);
  if (now === undefined) return { kind: 'refused', refusal: { code: 'import_unknown' } };
  if (now.state === 'done') return { kind: 'done' };
  if (now.state === 'cancelled') return { kind: 'refused', refusal: { code: 'import_cancelled' } };
  return now.state === 'running' ? null : { kind: 'refused', refusal: now.refusal ?? { code: 'import_lost' } };
}

/** Stops a run; it ends at its next statement, and nothing of it stays. */
export async function cancelRun(work: UnitOfWork, projectId: string, id: string): Promise<ImportProgress> {
  await execute(work, `UPDATE import_file SET state = 'cancelled' WHERE id = $1 AND project_id = $2 AND state IN ('running', 'waiting')`, [id, projectId]);
  return readProgress(work, projectId, id);
}

const lostRow = z.object({ id: z.string(), job: z.string() });

/** Runs whose server has fallen silent, taken up by whoever asks: nobody else is told of them. They wait for a server again. */
export async function takeLostRuns(work: UnitOfWork): Promise<{ readonly id: string; readonly job: string }[]> {
  return selectRows(
    work,
    lostRow,
    `UPDATE import_file SET alive_at = NULL, done = 0 WHERE id IN (SELECT id FROM import_file WHERE state = 'running' AND alive_at < now() - interval '${SILENCE_SECONDS} seconds' FOR UPDATE SKIP LOCKED)
     RETURNING id, job_id AS job`,
  );
}
