import { trackerStateSchema, type Defect, type TrackerConnection, type TrackerFailure, type TrackerState } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { DomainError } from '../domainError.ts';
import { readOutsideHosts } from './outsideHosts.ts';
import { storyboard } from './storyboard.ts';
import type { Story, StoryTracker } from './storyTracker.ts';
import { TrackerFailed } from './trackerFailed.ts';

/** An adapter for every kind of tracker. */
const ADAPTERS: Record<TrackerConnection['kind'], (connection: TrackerConnection, allowedHosts: readonly string[]) => StoryTracker> = { storyboard };

/** The project's tracker, with all that is needed to ask it: no transaction is held meanwhile. @throws {DomainError} when the project has none. */
async function trackerOf(db: Sequelize, projectId: string, moreHosts: readonly string[]): Promise<StoryTracker> {
  return inTransaction(db, async (work) => {
    const { tracker } = (await readSettings(work, projectId)).settings;
    if (tracker === null) throw new DomainError({ code: 'tracker_absent' });
    return ADAPTERS[tracker.kind](tracker, [...moreHosts, ...(await readOutsideHosts(work))]);
  });
}

/** The stories of the tracker. @throws {DomainError} when it does not give them. */
export async function fetchStories(db: Sequelize, projectId: string, moreHosts: readonly string[]): Promise<Story[]> {
  const tracker = await trackerOf(db, projectId, moreHosts);
  return refusing(() => tracker.stories());
}

export async function findDefects(db: Sequelize, projectId: string, words: string, moreHosts: readonly string[]): Promise<Defect[]> {
  const tracker = await trackerOf(db, projectId, moreHosts);
  return refusing(() => tracker.defects(words));
}

async function refusing<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (cause) {
    if (cause instanceof TrackerFailed) throw new DomainError({ code: 'tracker_failed', failure: cause.failure }, { cause });
    throw cause;
  }
}

const trackerRow = z.object({ checkedAt: z.date(), failure: trackerStateSchema.shape.failure, newStories: z.number(), changedStories: z.number() });

/** What was found when the tracker was last asked. */
export async function readTrackerState(work: UnitOfWork, projectId: string): Promise<TrackerState> {
  const connected = (await readSettings(work, projectId)).settings.tracker !== null;
  const [row] = await selectRows(
    work,
    trackerRow,
    'SELECT checked_at AS "checkedAt", failure, new_stories AS "newStories", changed_stories AS "changedStories" FROM tracker_state WHERE project_id = $1',
    [projectId],
  );
  if (row === undefined || !connected) return { connected, checkedAt: null, failure: null, newStories: 0, changedStories: 0 };
  return { connected, checkedAt: row.checkedAt.toISOString(), failure: row.failure, newStories: row.newStories, changedStories: row.changedStories };
}

/** Notes what a check found; a failure keeps what the last good one found. */
export async function noteTracker(work: UnitOfWork, projectId: string, at: Date, found: { readonly failure: TrackerFailure } | { readonly newStories: number; readonly changedStories: number }): Promise<void> {
  const good = 'failure' in found ? null : found;
  await execute(
    work,
    `INSERT INTO tracker_state (project_id, checked_at, failure, new_stories, changed_stories) VALUES ($1, $2, $3, coalesce($4, 0), coalesce($5, 0))
     ON CONFLICT (project_id) DO UPDATE SET checked_at = excluded.checked_at, failure = excluded.failure,
       new_stories = coalesce($4, tracker_state.new_stories), changed_stories = coalesce($5, tracker_state.changed_stories)`,
    [projectId, at, 'failure' in found ? found.failure : null, good?.newStories ?? null, good?.changedStories ?? null],
  );
}
