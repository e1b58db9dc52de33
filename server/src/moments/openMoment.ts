import { momentKey, type Moment, type OpenedMoment } from '@caderno/contract';
import { z } from 'zod';
import { baselineHead } from '../baselines/index.ts';
import { execute, idRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { Membership } from '../people/index.ts';
import { heldAgreed } from './heldAgreed.ts';
import { heldAtRevision, heldByBaseline } from './held.ts';
import { makeMoment } from './makeMoment.ts';
import { isMade, parentOf, seenNow, settingsAt, storedSettings, timeOfRevision } from './momentRows.ts';
import { isTheirPart } from './openPart.ts';
import { putOutline } from './outlineAtRevision.ts';

/** How long one that nobody opens is kept; it is made again when it is wanted. */
const KEPT_DAYS = 7;
/** Moments of the journal that a project has at a time: each is a copy of it. Beyond, the one that was opened longest ago goes. */
const MOST_OF_JOURNAL = 12;

const stampRow = z.object({ at: z.date() });
const partRow = z.object({ sees: z.array(z.string()).nullable() });

/**
 * Opens the whole project as it was at a moment: a project of its own beside it, which all chapters read like any other
 * and nobody changes. It is made of the versions of then when somebody first opens it; a part is only made of now.
 * @throws {DomainError} when there is no such baseline, the journal was not there yet, or somebody does not see all of it.
 */
export async function openMoment(work: UnitOfWork, { projectId, sees }: Pick<Membership, 'projectId' | 'sees'>, moment: Moment): Promise<OpenedMoment> {
  if (sees !== null && !isTheirPart(moment, sees)) throw new DomainError({ code: 'part_only' });
  return open(work, projectId, moment);
}

async function open(work: UnitOfWork, projectId: string, moment: Moment): Promise<OpenedMoment> {
  const parent = await parentOf(work, projectId);
  const at = await timeOf(work, projectId, parent.revision, moment);
  const key = momentKey(parent.key, moment);
  if (!(await isMade(work, key))) await make(work, projectId, parent.key, moment);
  await seenNow(work, key);
  if (moment.kind === 'revision') await keepFew(work, projectId, key);
  const [{ sees } = { sees: null }] = await selectRows(work, partRow, 'SELECT part AS sees FROM project WHERE key = $1', [key]);
  return { key, name: parent.name, role: 'reader', sees, at: at.toISOString() };
}

/** The row of the project that a moment is read as; it is made when it is not there. @throws {DomainError} when there is no such moment. */
export async function momentProject(work: UnitOfWork, projectId: string, moment: Moment): Promise<string> {
  const { key } = await open(work, projectId, moment);
  const [made] = await selectRows(work, idRow, 'SELECT id FROM project WHERE key = $1', [key]);
  if (made === undefined) throw new Error(`A moment that was opened is there: expected ${key}, got none`);
  return made.id;
}

/** Whether opening it would take long, as it is not made yet. */
export async function isMomentToBeMade(work: UnitOfWork, projectId: string, text: string): Promise<boolean> {
  return (await selectRows(work, idRow, `SELECT m.id FROM project p JOIN project m ON m.key = p.key || '@' || $2 WHERE p.id = $1`, [projectId, text])).length === 0;
}

/** Removes those that nobody opened for long. */
export async function sweepMoments(work: UnitOfWork): Promise<void> {
  await execute(work, `DELETE FROM project WHERE moment_of IS NOT NULL AND seen_at < now() - interval '${KEPT_DAYS} days'`);
}

async function timeOf(work: UnitOfWork, projectId: string, revisionNow: number, moment: Moment): Promise<Date> {
  switch (moment.kind) {
    case 'baseline': {
      const [stamp] = await selectRows(work, stampRow, 'SELECT at FROM baseline WHERE project_id = $1 AND number = $2', [projectId, moment.baseline]);
      if (stamp === undefined) throw new DomainError({ code: 'baseline_unknown' });
      return stamp.at;
    }
    case 'revision': {
      const at = moment.revision > revisionNow ? null : await timeOfRevision(work, projectId, moment.revision);
      if (at === null) throw new DomainError({ code: 'moment_unknown' });
      return at;
    }
    case 'part':
      // There is one of a project in which nothing was done yet, too.
      return (await timeOfRevision(work, projectId, moment.revision)) ?? new Date();
  }
}

async function make(work: UnitOfWork, projectId: string, projectKey: string, moment: Moment): Promise<void> {
  const key = momentKey(projectKey, moment);
  if (moment.kind === 'baseline') {
    const [settings, { revision }] = [await storedSettings(work, 'SELECT settings FROM baseline WHERE project_id = $1 AND number = $2', [projectId, moment.baseline]), await baselineHead(work, projectId, moment.baseline)];
    await makeMoment(work, { key, parent: projectId, settings, revision }, await heldByBaseline(work, projectId, moment.baseline));
    return;
  }
  if (moment.kind === 'part') throw new DomainError({ code: 'moment_unknown' });
  const { revision, agreedOnly } = moment;
  if (!agreedOnly) {
    await makeAtRevision(work, projectId, key, revision);
    return;
  }
  // What was agreed then is told from the moment, which nobody changes meanwhile.
  const then = momentKey(projectKey, { kind: 'revision', revision, agreedOnly: false });
  if (!(await isMade(work, then))) await make(work, projectId, projectKey, { kind: 'revision', revision, agreedOnly: false });
  const [source] = await selectRows(work, idRow, 'SELECT id FROM project WHERE key = $1', [then]);
  if (source === undefined) throw new Error(`What is agreed is told from a moment: expected ${then}, got none`);
  await makeMoment(work, { key, parent: projectId, settings: await storedSettings(work, 'SELECT settings FROM project WHERE id = $1', [source.id]), revision }, await heldAgreed(work, source.id));
}

/** Makes a project, under a key of its own, of what another one was right after a revision; answers its row, or null when somebody else made it. */
export async function makeAtRevision(work: UnitOfWork, projectId: string, key: string, revision: number): Promise<string | null> {
  const made = await makeMoment(work, { key, parent: projectId, settings: await settingsAt(work, projectId, revision), revision }, heldAtRevision(projectId, revision));
  if (made !== null) await putOutline(work, made, projectId, revision);
  return made;
}

async function keepFew(work: UnitOfWork, projectId: string, key: string): Promise<void> {
  await execute(
    work,
    `DELETE FROM project WHERE id IN (SELECT id FROM project WHERE moment_of = $1 AND key <> $2 AND key !~ '@B-' AND part IS NULL ORDER BY seen_at DESC OFFSET ${MOST_OF_JOURNAL - 1})`,
    [projectId, key],
  );
}
