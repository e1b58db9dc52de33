import { RISKS, effectiveRisk } from '@caderno/core/basis';
import { isOwnKindPattern } from '@caderno/core/scenarios';
import { asJson, sameJson } from '@caderno/core/versions';
import { SETTINGS_PARTS, placedIssues, projectSettingsSchema, roleReaches, type ProjectSettings, type Role } from '@caderno/contract';
import { z } from 'zod';
import { contentOrBroken, type JournalEntryPart } from '../artefacts/index.ts';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { DomainError } from '../domainError.ts';
import { keepSecrets, type SecretBox } from '../secrets/index.ts';

/** Parts that a lead changes, by hand or by undoing. */
const OF_LEADS: readonly (keyof ProjectSettings)[] = ['riskScale', 'tracker', 'mostItems', 'agreement', 'keepers'];

/** The parts in which two settings differ. */
export function changedParts(before: ProjectSettings, after: ProjectSettings): (keyof ProjectSettings)[] {
  return SETTINGS_PARTS.filter((part) => !sameJson(asJson(before[part]), asJson(after[part])));
}

/** Puts settings in the place of a project's; the risks of its requirements follow the scale. @throws {DomainError} beyond one's role, and for a pattern that is none. */
export async function storeSettings(work: UnitOfWork, box: Pick<SecretBox, 'seal'>, projectId: string, role: Role, wanted: ProjectSettings): Promise<JournalEntryPart> {
  const before = await readSettings(work, projectId);
  const guarded = changedParts(before.settings, wanted).some((part) => OF_LEADS.includes(part));
  if (guarded && !roleReaches(role, 'lead')) throw new DomainError({ code: 'role_too_low', needed: 'lead', have: role });
  refuseNoPatterns(wanted);
  const settings = await keepSecrets(work, box, projectId, wanted);
  await execute(work, 'UPDATE project SET settings = $2, settings_version = settings_version + 1 WHERE id = $1', [projectId, JSON.stringify(settings)]);
  if (changedParts(before.settings, settings).includes('riskScale')) await rateRequirements(work, projectId, settings);
  return { artefact: null, fromVersion: null, toVersion: null, undo: { kind: 'settings', from: before.settings, to: settings } };
}

/** Held here and not by the contract, as browsers would fetch all of RE2 to read settings. Stored as none, a pattern finds nothing. */
function refuseNoPatterns({ valueKinds }: ProjectSettings): void {
  const issues = valueKinds.flatMap(({ pattern }, i) => (isOwnKindPattern(pattern) ? [] : [{ path: `valueKinds.${i}.pattern`, message: 'must be words with bars between them, or a pattern that something must match' }]));
  if (issues.length > 0) throw new DomainError({ code: 'content_invalid', title: 'settings', issues });
}

/** Settings that were put together of others'. @throws {DomainError} when they could not be read again. */
export function readableSettings(merged: unknown): ProjectSettings {
  const read = projectSettingsSchema.safeParse(merged);
  if (!read.success) throw new DomainError({ code: 'content_invalid', title: 'settings', issues: placedIssues(read.error) });
  return read.data;
}

const ratedRow = z.object({ id: z.string(), schema: z.number(), content: z.unknown(), risk: z.enum(RISKS).nullable() });

/** Gives every rated requirement the risk its rating has now. */
async function rateRequirements(work: UnitOfWork, projectId: string, { riskScale }: ProjectSettings): Promise<void> {
  const rated = await selectRows(
    work,
    ratedRow,
    `SELECT a.id, a.risk, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'requirement' AND jsonb_typeof(v.content->'rating') = 'object'`,
    [projectId],
  );
  const others = rated.flatMap(({ id, schema, content, risk }) => {
    const read = contentOrBroken('requirement', schema, content);
    const now = read === null ? risk : effectiveRisk(riskScale, read);
    return now === risk ? [] : [{ id, risk: now }];
  });
  if (others.length === 0) return;
  await execute(work, 'UPDATE artefact SET risk = r.risk FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, risk text) WHERE artefact.id = r.id', [JSON.stringify(others)]);
}
