import { scenarioEffort, type ScenarioEffort } from '@caderno/core/scenarios';
import { selectSummaries } from '../artefacts/index.ts';
import type { UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';

/** What executing all scenarios of a project takes, or of a moment of it; those of withdrawn features are not counted. */
export async function readScenarioEffort(work: UnitOfWork, projectId: string): Promise<ScenarioEffort> {
  const { scenarioExecution } = (await readSettings(work, projectId)).settings;
  const features = await selectSummaries(work, `a.project_id = $1 AND a.kind = 'feature' AND a.deleted_at IS NULL AND a.state <> 'withdrawn'`, [projectId], 'a.number');
  return scenarioEffort(features.flatMap((f) => (f.kind === 'feature' ? f.scenarios : [])), scenarioExecution);
}
