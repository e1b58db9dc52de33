import { GUESS_ALL, FILE_LIMITS, type Mapping, type ReadingOptions } from '@caderno/core/exchange';
import type { BodyOf, Change, ImportDraft, ImportPreview } from '@caderno/contract';
import { inTransaction } from '../database/index.ts';
import { beginRun, endRun, keepFile } from '../exchange/index.ts';
import { Refused } from '../refused.ts';
import { STORIES_FILE, fetchStories, storiesFile } from '../tracker/index.ts';
import { readChange } from '../versions/index.ts';
import { commanderOf, membershipOf, personOf, type Call } from './context.ts';

/** Keeps a file in a transaction of its own, so that the importer's thread sees it, and describes what it holds. */
export async function upload(call: Call, name: string, bytes: Uint8Array): Promise<ImportDraft> {
  if (bytes.length > FILE_LIMITS.bytes) throw new Refused({ code: 'file_too_large', limit: FILE_LIMITS.bytes });
  const { projectId } = membershipOf(call);
  const file = await inTransaction(call.parts.db, (work) => keepFile(work, projectId, personOf(call).id, { name, bytes }, call.parts.now()));
  return describeAgain(call, file, GUESS_ALL);
}

export async function uploadStories(call: Call): Promise<ImportDraft> {
  return upload(call, STORIES_FILE, storiesFile(await fetchStories(call.work, membershipOf(call).projectId)));
}

export function describeAgain(call: Call, file: string, reading: ReadingOptions): Promise<ImportDraft> {
  return call.parts.importer.ask({ kind: 'describe', projectId: membershipOf(call).projectId, file, reading });
}

export function preview(call: Call, file: string, mapping: Mapping, reading: ReadingOptions): Promise<ImportPreview> {
  return call.parts.importer.ask({ kind: 'preview', projectId: membershipOf(call).projectId, file, mapping, reading });
}

/** Runs the import in the importer's thread; how it ended is noted whatever happens. */
export async function run(call: Call, file: string, order: BodyOf<'runImport'>): Promise<Change> {
  const { db, importer } = call.parts;
  const commander = commanderOf(call);
  await inTransaction(db, (work) => beginRun(work, commander.projectId, file));
  try {
    const change = await importer.ask({ kind: 'run', commander, file, order });
    await inTransaction(db, (work) => endRun(work, file, 'done'));
    return await inTransaction(db, (work) => readChange(work, commander.projectId, change));
  } catch (error) {
    const cancelled = error instanceof Refused && error.refusal.code === 'import_cancelled';
    await inTransaction(db, (work) => endRun(work, file, cancelled ? 'cancelled' : 'waiting'));
    throw error;
  }
}
