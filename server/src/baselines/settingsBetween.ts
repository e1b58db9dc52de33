import type { BaselineNumber } from '@caderno/core/baselines';
import { changedConstants } from '@caderno/core/shared';
import { readStoredSettings, type ProjectSettings } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { readSettings } from '../projects/index.ts';
import { changedParts } from '../versions/index.ts';

interface ChangedSettings {
  readonly parts: readonly (keyof ProjectSettings)[];
  /** The names of constants that stand for another value. */
  readonly constants: readonly string[];
}

/** What of the project's settings is otherwise than at a baseline: at another one, or now (null). */
export async function settingsBetween(work: UnitOfWork, projectId: string, from: BaselineNumber, to: BaselineNumber | null): Promise<ChangedSettings> {
  const before = await settingsAt(work, projectId, from);
  const after = await settingsAt(work, projectId, to);
  return { parts: changedParts(before, after), constants: changedConstants(before.constants, after.constants) };
}

const settingsRow = z.object({ settings: z.unknown() });

async function settingsAt(work: UnitOfWork, projectId: string, number: BaselineNumber | null): Promise<ProjectSettings> {
  if (number === null) return (await readSettings(work, projectId)).settings;
  const [row] = await selectRows(work, settingsRow, 'SELECT settings FROM baseline WHERE project_id = $1 AND number = $2', [projectId, number]);
  if (row === undefined) throw new DomainError({ code: 'baseline_unknown' });
  return readStoredSettings(row.settings).settings;
}
