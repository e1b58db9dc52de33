import { randomUUID } from 'node:crypto';
import { FILE_LIMITS } from '@caderno/core/exchange';
import { LIMITS, importProgressSchema, type ImportProgress } from '@caderno/contract';
import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { Files } from '../files/index.ts';

/** A file with its bytes. */
export interface BroughtFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What a file is read for. */
export type FileOf = 'requirement' | 'case' | 'design' | 'feature';

const fileRow = z.object({ id: z.string(), name: z.string(), hash: z.string(), kind: z.enum(['requirement', 'case', 'design', 'feature']) });
/** A file that waits to be imported. */
export type KeptFile = z.infer<typeof fileRow>;

/** How long a file is kept that nobody imports. */
const KEPT_HOURS = 24;

/** Removes files that nobody imported. */
export async function sweepFiles(work: UnitOfWork): Promise<void> {
  await execute(work, `DELETE FROM import_file WHERE at < now() - interval '${KEPT_HOURS} hours'`);
}

const waitingRow = z.object({ bytes: z.string() });

/** @throws {DomainError} when a file is too large, or too much of the person's waits already. */
export async function refuseTooMuch(work: UnitOfWork, personId: string, size: number, at: Date): Promise<void> {
  if (size > FILE_LIMITS.bytes) throw new DomainError({ code: 'file_too_large', limit: FILE_LIMITS.bytes });
  const [waiting] = await selectRows(work, waitingRow, `SELECT coalesce(sum(size), 0) AS bytes FROM import_file WHERE person_id = $1 AND state <> 'done' AND at > $2::timestamptz - interval '${KEPT_HOURS} hours'`, [personId, at]);
  if (Number(waiting?.bytes ?? 0) + size > LIMITS.waitingFiles) throw new DomainError({ code: 'quota_exceeded', of: 'person', limit: LIMITS.waitingFiles });
}

/** Notes a file that is kept under its hash; it waits until it is imported. */
export async function noteFile(work: UnitOfWork, projectId: string, personId: string, file: { readonly name: string; readonly hash: string; readonly size: number; readonly kind: FileOf }, at: Date): Promise<string> {
  const id = randomUUID();
  await execute(work, `INSERT INTO import_file (id, project_id, person_id, name, hash, size, at, state, kind) VALUES ($1, $2, $3, $4, $5, $6, $7, 'waiting', $8)`, [id, projectId, personId, file.name, file.hash, file.size, at, file.kind]);
  return id;
}

/** @throws {DomainError} when the project has no such file. */
export async function findFile(work: UnitOfWork, projectId: string, id: string): Promise<KeptFile> {
  const [file] = await selectRows(work, fileRow, 'SELECT id, name, hash, kind FROM import_file WHERE id = $1 AND project_id = $2', [id, projectId]);
  if (file === undefined) throw new DomainError({ code: 'import_unknown' });
  return file;
}

export async function bytesOf(files: Files, { name, hash }: KeptFile): Promise<BroughtFile> {
  return { name, bytes: await files.readWhole(hash) };
}

export async function readProgress(work: UnitOfWork, projectId: string, id: string): Promise<ImportProgress> {
  const [progress] = await selectRows(work, importProgressSchema, 'SELECT state, done, total FROM import_file WHERE id = $1 AND project_id = $2', [id, projectId]);
  if (progress === undefined) throw new DomainError({ code: 'import_unknown' });
  return progress;
}
