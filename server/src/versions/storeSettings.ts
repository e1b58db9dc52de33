import type { ProjectSettings } from '@caderno/contract';
import type { DeedPart } from '../artefacts/index.ts';
import { execute, selectRows, type Work } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';

/** Puts settings in the place of a project's; the risks of its requirements follow the scale. */
export async function storeSettings(work: Work, projectId: string, settings: ProjectSettings): Promise<DeedPart> {
  const before = await readSettings(work, projectId);
  await execute(work, 'UPDATE project SET settings = $2, settings_version = settings_version + 1 WHERE id = $1', [projectId, JSON.stringify(settings)]);
  await rateRequirements(work, projectId, settings);
  return { artefact: null, fromVersion: null, toVersion: null, undo: { kind: 'settings', from: before.settings, to: settings } };
}

/** Gives every rated requirement the risk its rating has now. */
async function rateRequirements(work: Work, projectId: string, { riskScale }: ProjectSettings): Promise<void> {
  const [first = []] = riskScale.risks;
  await selectRows(
    work,
    `UPDATE artefact a SET risk = coalesce(($2::jsonb -> least((v.content->'rating'->>'likelihood')::int, $3::int)) ->> least((v.content->'rating'->>'impact')::int, $4::int), a.risk)
     FROM artefact_version v WHERE v.artefact_id = a.id AND v.version = a.head AND a.project_id = $1 AND a.kind = 'requirement' AND jsonb_typeof(v.content->'rating') = 'object'`,
    [projectId, JSON.stringify(riskScale.risks), riskScale.risks.length - 1, first.length - 1],
  );
}
