import { asJson, mergeContent } from '@caderno/core/versions';
import type { ProjectSettings, Role } from '@caderno/contract';
import { z } from 'zod';
import { changeOfRetry, lockProject, undoPlanSchema, writeJournalEntry, type Actor } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings, type StoredSettings } from '../projects/index.ts';
import { DomainError } from '../domainError.ts';
import type { SecretBox } from '../secrets/index.ts';
import { changedParts, readableSettings, storeSettings } from '../versions/index.ts';

/**
 * Saves settings that grew from `base`. What others changed meanwhile elsewhere in them stays; what both changed is
 * refused. The scale, its weights and the tracker are a lead's to change; rules and glossary are everyone's who edits.
 */
export async function saveSettings(work: UnitOfWork, box: SecretBox, actor: Actor, role: Role, base: number, wanted: ProjectSettings): Promise<StoredSettings> {
  await lockProject(work, actor.projectId);
  const now = await readSettings(work, actor.projectId);
  if ((await changeOfRetry(work, actor)) !== null) return now;
  const settings = now.version === base ? wanted : await merged(work, actor.projectId, base, wanted, now);
  if (JSON.stringify(asJson(settings)) === JSON.stringify(asJson(now.settings))) return now;
  const part = await storeSettings(work, box, actor.projectId, role, settings);
  await writeJournalEntry(work, actor, { action: 'settings', parts: [part], detail: changedParts(now.settings, settings).join(', '), note: '' });
  return readSettings(work, actor.projectId);
}

async function merged(work: UnitOfWork, projectId: string, base: number, wanted: ProjectSettings, now: StoredSettings): Promise<ProjectSettings> {
  const grewFrom = await settingsAt(work, projectId, base, now);
  const merge = mergeContent(asJson(grewFrom), asJson(wanted), asJson(now.settings));
  if (merge.conflicts.length > 0) throw new DomainError({ code: 'settings_moved', paths: merge.conflicts.map((c) => c.path) });
  return readableSettings(merge.content);
}

const undoRow = z.object({ undo: undoPlanSchema });

/** Settings as they were at a version: each change since says what it changed from. */
async function settingsAt(work: UnitOfWork, projectId: string, version: number, now: StoredSettings): Promise<ProjectSettings> {
  const since = await selectRows(
    work,
    undoRow,
    `SELECT p.undo FROM change c JOIN change_part p ON p.change_id = c.id WHERE c.project_id = $1 AND p.artefact_id IS NULL ORDER BY c.revision DESC, p.place DESC LIMIT $2`,
    [projectId, Math.max(0, now.version - version)],
  );
  const oldest = since.at(-1)?.undo;
  return oldest?.kind === 'settings' ? oldest.from : now.settings;
}
