import { GUESS_ALL, guessMapping } from '@caderno/core/exchange';
import type { TrackerState } from '@caderno/contract';
import type { Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { STORIES_FILE, fetchStories, noteTracker, readStoriesFile, readTrackerState, storiesFile } from '../tracker/index.ts';
import { listSources } from './importFile.ts';
import { planFile, projectKey } from './importing.ts';

/** Asks the tracker and notes how many stories are new or have changed there since they were imported. */
export async function checkStories(work: Work, projectId: string, at: Date): Promise<TrackerState> {
  try {
    const bytes = storiesFile(await fetchStories(work, projectId));
    const remembered = (await listSources(work, projectId)).find((s) => s.name === STORIES_FILE)?.mapping ?? null;
    const mapping = guessMapping(readStoriesFile(bytes), await projectKey(work, projectId), STORIES_FILE, remembered);
    const { plan } = await planFile(work, projectId, { name: STORIES_FILE, bytes }, mapping, GUESS_ALL);
    await noteTracker(work, projectId, at, { newStories: plan.added.length, changedStories: plan.changed.length });
  } catch (error) {
    if (!(error instanceof Refused) || error.refusal.code !== 'tracker_failed') throw error;
    await noteTracker(work, projectId, at, { failure: error.refusal.failure });
  }
  return readTrackerState(work, projectId);
}
