import { mergeContent } from '@caderno/core/versions';
import type { ProjectSettings, Role } from '@caderno/contract';
import { asJson, changeOfRetry, lockProject, recordDeed, type Commander } from '../artefacts/index.ts';
import { selectRows, type Work } from '../database/index.ts';
import { readSettings, type StoredSettings } from '../projects/index.ts';
import { Refused } from '../refused.ts';
import type { SecretBox } from '../secrets/index.ts';
import { changedParts, readableSettings, storeSettings } from '../versions/index.ts';
import type { UndoPlan } from '../versions/undoPlan.ts';

/**
 * Saves settings that grew from `base`. What others changed meanwhile elsewhere in them stays; what both changed is
 * refused. The scale, its weights and the tracker are a lead's to change; rules and glossary are everyone's who edits.
 */
export async function saveSettings(work: Work, box: SecretBox, commander: Commander, role: Role, base: number, wanted: ProjectSettings): Promise<StoredSettings> {
  await lockProject(work, commander.projectId);
  const now = await readSettings(work, commander.projectId);
  if ((await changeOfRetry(work, commander)) !== null) return now;
  const settings = now.version === base ? wanted : await merged(work, commander.projectId, base, wanted, now);
  if (JSON.stringify(asJson(settings)) === JSON.stringify(asJson(now.settings))) return now;
  const part = await storeSettings(work, box, commander.projectId, role, settings);
  await recordDeed(work, commander, { action: 'settings', parts: [part], detail: changedParts(now.settings, settings).join(', '), note: '' });
  return readSettings(work, commander.projectId);
}

async function merged(work: Work, projectId: string, base: number, wanted: ProjectSettings, now: StoredSettings): Promise<ProjectSettings> {
  const grewFrom = await settingsAt(work, projectId, base, now);
  const merge = mergeContent(asJson(grewFrom), asJson(wanted), asJson(now.settings));
  if (merge.conflicts.length > 0) throw new Refused({ code: 'settings_moved', paths: merge.conflicts.map((c) => c.path) });
  return readableSettings(merge.content);
}

/** Settings as they were at a version: each change since says what it changed from. */
async function settingsAt(work: Work, projectId: string, version: number, now: StoredSettings): Promise<ProjectSettings> {
  const since = await selectRows<{ undo: UndoPlan }>(
    work,
    `SELECT p.undo FROM change c JOIN change_part p ON p.change_id = c.id WHERE c.project_id = $1 AND p.artefact_id IS NULL ORDER BY c.revision DESC, p.place DESC LIMIT $2`,
    [projectId, Math.max(0, now.version - version)],
  );
  const oldest = since.at(-1)?.undo;
  return oldest?.kind === 'settings' ? oldest.from : now.settings;
}
