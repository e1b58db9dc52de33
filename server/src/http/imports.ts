import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { setTimeout as sleep } from 'node:timers/promises';
import type { ArtefactId } from '@caderno/core/artefacts';
import type { Mapping, ReadingOptions } from '@caderno/core/exchange';
import type { CoverageReport } from '@caderno/core/coverage';
import { chosenIds } from '../find/index.ts';
import type { BodyOf, CaseDraft, CasePreview, Change, ComesAlong, DesignDraft, FeaturesDraft, FileAnswer, ImportDraft, ImportPreview, ProjectRef, QueryOf, TrackerState } from '@caderno/contract';
import { changeOfRetry, type Actor } from '../artefacts/index.ts';
import { inTransaction, type UnitOfWork } from '../database/index.ts';
import { IMPORTS, readRunEnd, sendImport } from '../exchange/index.ts';
import { DomainError } from '../domainError.ts';
import { STORIES_FILE, fetchStories, noteTracker, readTrackerState, storiesFile, type Story } from '../tracker/index.ts';
import { readChange } from '../versions/index.ts';
import { actorOf, askingOf, membershipOf, personOf, type Admitted } from './context.ts';

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

/** The same for a file of cases. */
export function uploadCases(call: Admitted, name: string, path: string): Promise<CaseDraft> {
  const person = personOf(call).id;
  return call.parts.importer.ask({ kind: 'keepCases', projectId: membershipOf(call).projectId, personId: person, name, path }, person);
}

export function describeCasesAgain(call: Admitted, file: string, reading: ReadingOptions): Promise<CaseDraft> {
  return call.parts.importer.ask({ kind: 'describeCases', projectId: membershipOf(call).projectId, file, reading }, personOf(call).id);
}

export function previewCases(call: Admitted, file: string, { mapping, reading }: BodyOf<'previewCases'>): Promise<CasePreview> {
  return call.parts.importer.ask({ kind: 'previewCases', projectId: membershipOf(call).projectId, file, mapping, reading }, personOf(call).id);
}

export function describeAgain(call: Admitted, file: string, reading: ReadingOptions): Promise<ImportDraft> {
  return call.parts.importer.ask({ kind: 'describe', projectId: membershipOf(call).projectId, file, reading }, personOf(call).id);
}

export function preview(call: Admitted, file: string, mapping: Mapping, reading: ReadingOptions): Promise<ImportPreview> {
  return call.parts.importer.ask({ kind: 'preview', projectId: membershipOf(call).projectId, file, mapping, reading }, personOf(call).id);
}

/** Milliseconds between two looks at whether a run has ended: soon at first, as most are short. */
const LOOKS_MS = { first: 30, longest: 500 };

/**
 * Sends the import on its way and answers when it has ended, whichever server does it. Sent again it goes on waiting
 * for the same run, and answers what the first time did.
 */
export async function run(call: Admitted, file: string, order: BodyOf<'runImport'> | (BodyOf<'runCases'> & { readonly into: 'case' }) | (BodyOf<'runDesign'> & { readonly into: 'design' }) | (BodyOf<'runFeatures'> & { readonly into: 'feature' })): Promise<Change> {
  const { db, jobs } = call.parts;
  // A job that is begun again must find what it did before, whoever sent it.
  const actor = { ...actorOf(call), commandId: call.commandId ?? randomUUID() };
  await jobs.start();
  const earlier = await inTransaction(db, async (work) => {
    const done = await changeOfRetry(work, actor);
    if (done === null) await sendImport(work, jobs, actor, file, order);
    return done;
  });
  if (earlier === null) {
    jobs.wake(IMPORTS);
    await untilEnded(call, file);
  }
  return inTransaction(db, async (work) => readChange(work, actor.projectId, earlier ?? (await changeOf(work, actor, file))));
}

/** @throws {DomainError} what the run was refused for; or that this server ends, so that another one is asked. */
async function untilEnded({ parts }: Admitted, file: string): Promise<void> {
  for (let pause = LOOKS_MS.first; ; pause = Math.min(pause * 1.5, LOOKS_MS.longest)) {
    const end = await inTransaction(parts.db, (work) => readRunEnd(work, file));
    if (end?.kind === 'done') return;
    if (end !== null) throw new DomainError(end.refusal);
    if (parts.stopping.begun) throw new DomainError({ code: 'server_stopping' });
    await sleep(pause);
  }
}

/** The change that a command made. */
async function changeOf(work: UnitOfWork, actor: Actor, file: string): Promise<string> {
  const change = await changeOfRetry(work, actor);
  if (change === null) throw new Error(`An import that has ended made a change: expected one of ${file}, got none`);
  return change;
}

export function exportBasisFile(call: Admitted, { format, files }: QueryOf<'exportBasis'>, report: CoverageReport | null): Promise<FileAnswer> {
  return writtenFile(call, (path) => call.parts.importer.ask({ kind: 'exportBasis', projectId: membershipOf(call).projectId, format, report, files: files === 'yes', at: call.parts.now(), path }, personOf(call).id));
}

export async function exportCasesFile(call: Admitted, { of, ...order }: BodyOf<'exportCases'>): Promise<FileAnswer> {
  const ids = await idsOf(call, of);
  return writtenFile(call, (path) => call.parts.importer.ask({ kind: 'exportCases', projectId: membershipOf(call).projectId, ids, order, path }, personOf(call).id));
}

/** Keeps a design file that was brought, and answers what it would do. */
export function uploadDesign(call: Admitted, name: string, path: string): Promise<DesignDraft> {
  const person = personOf(call).id;
  return call.parts.importer.ask({ kind: 'keepDesign', projectId: membershipOf(call).projectId, personId: person, name, path }, person);
}

/** Keeps features that were brought, and answers what they would do. */
export function uploadFeatures(call: Admitted, name: string, path: string): Promise<FeaturesDraft> {
  const person = personOf(call).id;
  return call.parts.importer.ask({ kind: 'keepFeatures', projectId: membershipOf(call).projectId, personId: person, name, path }, person);
}

/** Notes which features stand in the code as they stand here. */
export async function rememberFeatures(call: Admitted, path: string): Promise<{ readonly remembered: number }> {
  return { remembered: await call.parts.importer.ask({ kind: 'rememberFeatures', projectId: membershipOf(call).projectId, name: 'features.zip', path }, personOf(call).id) };
}

export async function exportFeatureFiles(call: Admitted, { of, form }: BodyOf<'exportFeatures'>): Promise<FileAnswer> {
  const ids = await idsOf(call, of);
  return writtenFile(call, (path) => call.parts.importer.ask({ kind: 'exportFeatures', projectId: membershipOf(call).projectId, ids, form, path }, personOf(call).id));
}

export async function comesAlong(call: Admitted, { of }: BodyOf<'readAlong'>): Promise<ComesAlong> {
  return call.parts.importer.ask({ kind: 'alongDesign', projectId: membershipOf(call).projectId, ids: await idsOf(call, of) }, personOf(call).id);
}

function idsOf(call: Admitted, of: BodyOf<'readAlong'>['of']): Promise<readonly ArtefactId[]> {
  return inTransaction(call.parts.db, (work) => chosenIds(work, { projectId: membershipOf(call).projectId, asking: askingOf(call) }, of));
}

export async function exportDesignFile(call: Admitted, { of, ...order }: BodyOf<'exportDesign'>): Promise<FileAnswer> {
  const ids = await idsOf(call, of);
  return writtenFile(call, (path) => call.parts.importer.ask({ kind: 'exportDesign', projectId: membershipOf(call).projectId, ids, order, path }, personOf(call).id));
}

/** All that a baseline holds, as a zip. */
export function exportFolderFile(call: Admitted, baseline: number): Promise<FileAnswer> {
  return writtenFile(call, (path) => call.parts.importer.ask({ kind: 'exportFolder', projectId: membershipOf(call).projectId, baseline, path }, personOf(call).id));
}

/** A project of the zip of a baseline, with its maker as administrator. */
export function projectFromFolder(call: Admitted, { changed, ...project }: QueryOf<'createProjectFromFolder'>, path: string): Promise<ProjectRef> {
  const maker = { personId: personOf(call).id, at: call.parts.now(), commandId: null };
  return call.parts.importer.ask({ kind: 'makeProject', maker, project, accepted: changed === 'yes', path }, maker.personId);
}

/** Has a file written and sends it piece by piece; it goes away with the answer. */
export async function writtenFile(call: Admitted, write: (path: string) => Promise<{ readonly name: string; readonly type: string }>): Promise<FileAnswer> {
  const path = join(call.parts.spool, `export-${randomUUID()}`);
  const remove = (): void => void rm(path, { force: true });
  try {
    const file = await write(path);
    const stream = createReadStream(path).once('close', remove);
    return { ...file, bytes: Readable.toWeb(stream) as ReadableStream<Uint8Array> };
  } catch (error) {
    remove();
    throw error;
  }
}
