import { guessMapping } from '@caderno/core/exchange';
import type { TrackerState } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { inTransaction } from '../database/index.ts';
import { STORIES_FILE, noteTracker, readStoriesFile, readTrackerState } from '../tracker/index.ts';
import { listSources } from './importSource.ts';
import { ownFieldsIn, planEntries, projectKey, readEntries } from './importing.ts';

/** Notes how many of a tracker's stories are new or have changed there since they were imported. */
export async function planStories(db: Sequelize, projectId: string, bytes: Uint8Array, at: Date): Promise<TrackerState> {
  const { key, remembered, fields } = await inTransaction(db, async (work) => ({ fields: await ownFieldsIn(work, projectId), key: await projectKey(work, projectId), remembered: (await listSources(work, projectId)).find((s) => s.name === STORIES_FILE)?.mapping ?? null }));
  const document = readStoriesFile(bytes);
  const entries = readEntries(STORIES_FILE, document, guessMapping(document, key, STORIES_FILE, fields, remembered), fields);
  return inTransaction(db, async (work) => {
    const { plan } = await planEntries(work, projectId, entries);
    await noteTracker(work, projectId, at, { newStories: plan.added.length, changedStories: plan.changed.length });
    return readTrackerState(work, projectId);
  });
}
