import type { Defect, TrackerConnection, TrackerFailure, TrackerState } from '@caderno/contract';
import { execute, selectRows, type Work } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { Refused } from '../refused.ts';
import { storyboard } from './storyboard.ts';
import { TrackerFailed, type Story, type StoryTracker } from './storyTracker.ts';

/** An adapter for every kind of tracker. */
const ADAPTERS: Record<TrackerConnection['kind'], (connection: TrackerConnection) => StoryTracker> = { storyboard };

/** @throws Refused when the project has none. */
export async function trackerOf(work: Work, projectId: string): Promise<StoryTracker> {
  const { tracker } = (await readSettings(work, projectId)).settings;
  if (tracker === null) throw new Refused({ code: 'tracker_absent' });
  return ADAPTERS[tracker.kind](tracker);
}

/** The stories of the tracker. @throws Refused when it does not give them. */
export async function fetchStories(work: Work, projectId: string): Promise<Story[]> {
  return refusing(async () => (await trackerOf(work, projectId)).stories());
}

export async function findDefects(work: Work, projectId: string, words: string): Promise<Defect[]> {
  return refusing(async () => (await trackerOf(work, projectId)).defects(words));
}

async function refusing<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (cause) {
    if (cause instanceof TrackerFailed) throw new Refused({ code: 'tracker_failed', failure: cause.failure }, { cause });
    throw cause;
  }
}

/** What was found when the tracker was last asked. */
export async function readTrackerState(work: Work, projectId: string): Promise<TrackerState> {
  const connected = (await readSettings(work, projectId)).settings.tracker !== null;
  const [row] = await selectRows<{ checkedAt: Date; failure: TrackerFailure | null; newStories: number; changedStories: number }>(
    work,
    'SELECT checked_at AS "checkedAt", failure, new_stories AS "newStories", changed_stories AS "changedStories" FROM tracker_state WHERE project_id = $1',
    [projectId],
  );
  if (row === undefined || !connected) return { connected, checkedAt: null, failure: null, newStories: 0, changedStories: 0 };
  return { connected, checkedAt: row.checkedAt.toISOString(), failure: row.failure, newStories: row.newStories, changedStories: row.changedStories };
}

/** Notes what a check found; a failure keeps what the last good one found. */
export async function noteTracker(work: Work, projectId: string, at: Date, found: { readonly failure: TrackerFailure } | { readonly newStories: number; readonly changedStories: number }): Promise<void> {
  const good = 'failure' in found ? null : found;
  await execute(
    work,
    `INSERT INTO tracker_state (project_id, checked_at, failure, new_stories, changed_stories) VALUES ($1, $2, $3, coalesce($4, 0), coalesce($5, 0))
     ON CONFLICT (project_id) DO UPDATE SET checked_at = excluded.checked_at, failure = excluded.failure,
       new_stories = coalesce($4, tracker_state.new_stories), changed_stories = coalesce($5, tracker_state.changed_stories)`,
    [projectId, at, 'failure' in found ? found.failure : null, good?.newStories ?? null, good?.changedStories ?? null],
  );
}
