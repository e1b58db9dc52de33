import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { Mapping, ReadingOptions } from '@caderno/core/exchange';
import type { CoverageReport } from '@caderno/core/coverage';
import type { BodyOf, Change, ExportFormat, FileAnswer, ImportDraft, ImportPreview, TrackerState } from '@caderno/contract';
import { changeOfRetry } from '../artefacts/index.ts';
import { inTransaction } from '../database/index.ts';
import { BEAT_MS, beatRun, beginRun, endRun } from '../exchange/index.ts';
import { DomainError } from '../domainError.ts';
import { STORIES_FILE, fetchStories, noteTracker, readTrackerState, storiesFile, type Story } from '../tracker/index.ts';
import { readChange } from '../versions/index.ts';
import { actorOf, membershipOf, personOf, type Admitted } from './context.ts';

/** Keeps a file that was brought, and describes what it holds. */
export function upload(call: Admitted, name: string, path: string): Promise<ImportDraft> {
  const person = personOf(call).id;
  return call.parts.importer.ask({ kind: 'keep', projectId: membershipOf(call).projectId, personId: person, name, path }, person);
}

export async function uploadStories(call: Admitted): Promise<ImportDraft> {
  const stories = await fetchStories(call.parts.db, membershipOf(call).projectId, call.parts.outsideHosts);
  return withStories(call, stories, (path) => upload(call, STORIES_FILE, path));
}

/** Asks the tracker and notes how many stories are new or have changed there since they were imported. */
export async function checkStories(call: Admitted): Promise<TrackerState> {
  const { db, importer, outsideHosts } = call.parts;
  const { projectId } = membershipOf(call);
  const at = call.parts.now();
  try {
    const stories = await fetchStories(db, projectId, outsideHosts);
    return await withStories(call, stories, (path) => importer.ask({ kind: 'checkStories', projectId, path, at }, personOf(call).id));
  } catch (error) {
    if (!(error instanceof DomainError) || error.refusal.code !== 'tracker_failed') throw error;
    const { failure } = error.refusal;
    return inTransaction(db, async (work) => {
      await noteTracker(work, projectId, at, { failure });
      return readTrackerState(work, projectId);
    });
  }
}

async function withStories<T>(call: Admitted, stories: readonly Story[], action: (path: string) => Promise<T>): Promise<T> {
  const path = join(call.parts.spool, `stories-${randomUUID()}`);
  try {
    await writeFile(path, storiesFile(stories), { flag: 'wx', mode: 0o600 });
    return await action(path);
  } finally {
    await rm(path, { force: true });
  }
}

export function describeAgain(call: Admitted, file: string, reading: ReadingOptions): Promise<ImportDraft> {
  return call.parts.importer.ask({ kind: 'describe', projectId: membershipOf(call).projectId, file, reading }, personOf(call).id);
}

export function preview(call: Admitted, file: string, mapping: Mapping, reading: ReadingOptions): Promise<ImportPreview> {
  return call.parts.importer.ask({ kind: 'preview', projectId: membershipOf(call).projectId, file, mapping, reading }, personOf(call).id);
}

/**
 * Runs the import in a thread; how it ended is noted whatever happens. Sent again it answers what the first time did,
 * also when the server was cut off between the import and its answer.
 */
export async function run(call: Admitted, file: string, order: BodyOf<'runImport'>): Promise<Change> {
  const { db, importer } = call.parts;
  const actor = actorOf(call);
  const earlier = await inTransaction(db, (work) => changeOfRetry(work, actor));
  if (earlier !== null) return ended(call, file, earlier);
  await inTransaction(db, (work) => beginRun(work, actor.projectId, file));
  const beat = setInterval(() => void inTransaction(db, (work) => beatRun(work, file)).catch((error: unknown) => call.parts.log.warn({ err: error }, 'an import could not say that it goes on')), BEAT_MS);
  try {
    const change = await importer.ask({ kind: 'run', actor, file, order }, actor.personId);
    return await ended(call, file, change);
  } catch (error) {
    const cancelled = error instanceof DomainError && error.refusal.code === 'import_cancelled';
    await inTransaction(db, (work) => endRun(work, file, cancelled ? 'cancelled' : 'waiting'));
    throw error;
  } finally {
    clearInterval(beat);
  }
}

function ended(call: Admitted, file: string, change: string): Promise<Change> {
  return inTransaction(call.parts.db, async (work) => {
    await endRun(work, file, 'done');
    return readChange(work, membershipOf(call).projectId, change);
  });
}

/** Has the basis written to a file and sends it piece by piece; the file goes away with the answer. */
export async function exportBasisFile(call: Admitted, format: ExportFormat, report: CoverageReport | null): Promise<FileAnswer> {
  const path = join(call.parts.spool, `export-${randomUUID()}`);
  const remove = (): void => void rm(path, { force: true });
  try {
    const file = await call.parts.importer.ask({ kind: 'exportBasis', projectId: membershipOf(call).projectId, format, report, at: call.parts.now(), path }, personOf(call).id);
    const stream = createReadStream(path).once('close', remove);
    return { ...file, bytes: Readable.toWeb(stream) as ReadableStream<Uint8Array> };
  } catch (error) {
    remove();
    throw error;
  }
}
