import { guessMapping } from '@caderno/core/exchange';
import type { TrackerState } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { inTransaction } from '../database/index.ts';
import { STORIES_FILE, noteTracker, readStoriesFile, readTrackerState } from '../tracker/index.ts';
import { listSources } from './importSource.ts';
import { planEntries, projectKey, readEntries, readFor } from './importing.ts';

/** Notes how many of a tracker's stories are new or have changed there since they were imported. */
export async function planStories(db: Sequelize, projectId: string, bytes: Uint8Array, at: Date): Promise<TrackerState> {
  const { key, remembered, project } = await inTransaction(db, async (work) => ({ project: await readFor(work, projectId), key: await projectKey(work, projectId), remembered: (await listSources(work, projectId)).find((s) => s.name === STORIES_FILE)?.mapping ?? null }));
  const document = readStoriesFile(bytes);
  const entries = readEntries(STORIES_FILE, document, guessMapping(document, key, STORIES_FILE, project.fields, remembered), project);
  return inTransaction(db, async (work) => {
    const { plan } = await planEntries(work, projectId, entries);
    await noteTracker(work, projectId, at, { newStories: plan.added.length, changedStories: plan.changed.length });
    return readTrackerState(work, projectId);
  });
}
