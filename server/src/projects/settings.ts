import { DEFAULT_SETTINGS, readStoredSettings, type ProjectSettings } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

export interface StoredSettings {
  readonly version: number;
  readonly settings: ProjectSettings;
}

const settingsRow = z.object({ version: z.number(), settings: z.unknown() });

/** What a project sets for itself, checked on the way out; a project that never did, and a part that cannot be read, has the defaults. */
export async function readSettings(work: UnitOfWork, projectId: string): Promise<StoredSettings> {
  const [row] = await selectRows(work, settingsRow, 'SELECT settings_version AS version, settings FROM project WHERE id = $1', [projectId]);
  if (row === undefined) throw new Error('Settings belong to a project: expected one, got none');
  return { version: row.version, settings: row.settings === null ? DEFAULT_SETTINGS : readStoredSettings(row.settings).settings };
}
