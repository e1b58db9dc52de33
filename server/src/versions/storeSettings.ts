import { sameJson } from '@caderno/core/versions';
import { placedIssues, projectSettingsSchema, roleReaches, type ProjectSettings, type Role } from '@caderno/contract';
import { asJson, type DeedPart } from '../artefacts/index.ts';
import { execute, type Work } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { Refused } from '../refused.ts';
import { keepSecrets, type SecretBox } from '../secrets/index.ts';

/** Parts that a lead changes, by hand or by undoing. */
const OF_LEADS: readonly (keyof ProjectSettings)[] = ['riskScale', 'tracker', 'mostItems'];

/** The parts in which two settings differ. */
export function changedParts(before: ProjectSettings, after: ProjectSettings): (keyof ProjectSettings)[] {
  const parts: (keyof ProjectSettings)[] = ['riskScale', 'glossary', 'rulesOff', 'tracker', 'depths', 'mostItems', 'constants'];
  return parts.filter((part) => !sameJson(asJson(before[part]), asJson(after[part])));
}

/** Puts settings in the place of a project's; the risks of its requirements follow the scale. @throws Refused beyond one's role. */
export async function storeSettings(work: Work, box: SecretBox, projectId: string, role: Role, wanted: ProjectSettings): Promise<DeedPart> {
  const before = await readSettings(work, projectId);
  const guarded = changedParts(before.settings, wanted).some((part) => OF_LEADS.includes(part));
  if (guarded && !roleReaches(role, 'lead')) throw new Refused({ code: 'role_too_low', needed: 'lead', have: role });
  const settings = await keepSecrets(work, box, projectId, wanted);
  await execute(work, 'UPDATE project SET settings = $2, settings_version = settings_version + 1 WHERE id = $1', [projectId, JSON.stringify(settings)]);
  await rateRequirements(work, projectId, settings);
  return { artefact: null, fromVersion: null, toVersion: null, undo: { kind: 'settings', from: before.settings, to: settings } };
}

/** Settings that were put together of others'. @throws Refused when they could not be read again. */
export function readableSettings(merged: unknown): ProjectSettings {
  const read = projectSettingsSchema.safeParse(merged);
  if (!read.success) throw new Refused({ code: 'content_invalid', title: 'settings', issues: placedIssues(read.error) });
  return read.data;
}

/** Gives every rated requirement the risk its rating has now. */
async function rateRequirements(work: Work, projectId: string, { riskScale }: ProjectSettings): Promise<void> {
  const [first = []] = riskScale.risks;
  await execute(
    work,
    // Where a rating cannot be read the case comes first: the cast would fail, and with it everybody's.
    `UPDATE artefact a SET risk = CASE WHEN v.content->'rating'->>'likelihood' ~ '^[0-9]$' AND v.content->'rating'->>'impact' ~ '^[0-9]$'
       THEN coalesce(($2::jsonb -> least((v.content->'rating'->>'likelihood')::int, $3::int)) ->> least((v.content->'rating'->>'impact')::int, $4::int), a.risk) ELSE a.risk END
     FROM artefact_version v WHERE v.artefact_id = a.id AND v.version = a.head AND a.project_id = $1 AND a.kind = 'requirement' AND jsonb_typeof(v.content->'rating') = 'object'`,
    [projectId, JSON.stringify(riskScale.risks), riskScale.risks.length - 1, first.length - 1],
  );
}
