import type { BaselineNumber } from '@caderno/core/baselines';
import type { HandOffNumber } from '@caderno/core/handOffs';
import { suiteIdSchema, type AskHandOff, type FileAnswer, type HandOffListed, type HandOffPreview, type HandedOffPart, type NewHandOff, type QueryOf, type ReturnedNotes } from '@caderno/contract';
import { baselineHead } from '../baselines/index.ts';
import { inTransaction, type UnitOfWork } from '../database/index.ts';
import { featuresOf, readStored, type WhichHandOff } from '../handOffs/index.ts';
import { momentProject } from '../moments/index.ts';
import { actorOf, membershipOf, personOf, type Admitted } from './context.ts';
import { writtenFile } from './imports.ts';

/** What would be handed off, told in the thread for files: every case is opened. */
export async function previewHandOff(call: Admitted, { of, configurations, since }: AskHandOff): Promise<HandOffPreview> {
  const from = await whereFrom(call, of);
  const earlier = since === undefined ? null : await earlierOf(call, since);
  return call.parts.importer.ask({ kind: 'previewHandOff', projectId: from.projectId, asked: { of: from.of, configurations }, now: call.parts.now().getTime(), earlier }, personOf(call).id);
}

export async function handOff(call: Admitted, wanted: NewHandOff): Promise<HandOffListed> {
  const from = await whereFrom(call, wanted.of);
  return call.parts.importer.ask({ kind: 'makeHandOff', actor: actorOf(call), order: { wanted, from } }, personOf(call).id);
}

export async function exportHandOff(call: Admitted, number: HandOffNumber, { format, person }: QueryOf<'exportHandOff'>): Promise<FileAnswer> {
  const { projectId } = membershipOf(call);
  const part = person ?? null;
  const { moment, features } = await inTransaction(call.parts.db, async (work) => {
    const { baseline } = await readStored(work, projectId, number);
    return { moment: await momentOf(work, projectId, baseline), features: format === 'features' ? await featuresOf(work, projectId, number, part) : [] };
  });
  const who = personOf(call).id;
  if (format === 'features') return writtenFile(call, (path) => call.parts.importer.ask({ kind: 'exportFeatures', projectId: moment, ids: features, form: 'zip', path }, who));
  return writtenFile(call, (path) => call.parts.importer.ask({ kind: 'writeHandOff', projectId, moment, number, format, person: part, path }, who));
}

/** What executors noted in a file of the hand-off. */
export async function returned(call: Admitted, number: HandOffNumber, name: string, path: string): Promise<ReturnedNotes> {
  return call.parts.importer.ask({ kind: 'readReturned', ...(await earlierOf(call, number)), name, path }, personOf(call).id);
}

/** A hand-off, with the moment that it is read from. */
function earlierOf(call: Admitted, number: HandOffNumber): Promise<WhichHandOff> {
  const { projectId } = membershipOf(call);
  return inTransaction(call.parts.db, async (work) => ({ projectId, number, moment: await momentOf(work, projectId, (await readStored(work, projectId, number)).baseline) }));
}

function momentOf(work: UnitOfWork, projectId: string, baseline: BaselineNumber): Promise<string> {
  return momentProject(work, projectId, { kind: 'baseline', baseline });
}

/** The project whose members are handed off, and how they are asked for there: of a baseline its moment, and the suite that it is of, if it is of one. */
function whereFrom(call: Admitted, of: HandedOffPart): Promise<{ readonly projectId: string; readonly of: HandedOffPart }> {
  const { projectId } = membershipOf(call);
  if ('suite' in of) return Promise.resolve({ projectId, of });
  return inTransaction(call.parts.db, async (work) => {
    const suite = suiteIdSchema.safeParse((await baselineHead(work, projectId, of.baseline)).part);
    return { projectId: await momentOf(work, projectId, of.baseline), of: suite.success ? { suite: suite.data } : of };
  });
}
