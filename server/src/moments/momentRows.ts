import { z } from 'zod';
import { answersAny, execute, selectRows, type UnitOfWork } from '../database/index.ts';

const parentRow = z.object({ key: z.string(), name: z.string(), revision: z.number() });
const settingsRow = z.object({ settings: z.unknown() });
const stampRow = z.object({ at: z.date() });

/** The project that moments are of. */
export async function parentOf(work: UnitOfWork, projectId: string): Promise<z.infer<typeof parentRow>> {
  const [parent] = await selectRows(work, parentRow, 'SELECT key, name, revision FROM project WHERE id = $1', [projectId]);
  if (parent === undefined) throw new Error(`A moment belongs to a project: expected one, got none with ${projectId}`);
  return parent;
}

/** Whether there is a moment of this key. */
export async function isMade(work: UnitOfWork, key: string): Promise<boolean> {
  return answersAny(work, 'SELECT 1 FROM project WHERE key = $1', [key]);
}

/** When a revision of a project was made; null when there is none, as before anything was done. */
export async function timeOfRevision(work: UnitOfWork, projectId: string, revision: number): Promise<Date | null> {
  const [stamp] = await selectRows(work, stampRow, 'SELECT at FROM change WHERE project_id = $1 AND revision <= $2 ORDER BY revision DESC LIMIT 1', [projectId, revision]);
  return stamp?.at ?? null;
}

/** Somebody looks at it: it is kept for a while from now. */
export async function seenNow(work: UnitOfWork, key: string): Promise<void> {
  await execute(work, 'UPDATE project SET seen_at = now() WHERE key = $1', [key]);
}

/** What was set, as it is stored. */
export async function storedSettings(work: UnitOfWork, sql: string, bind: readonly unknown[]): Promise<unknown> {
  return (await selectRows(work, settingsRow, sql, bind))[0]?.settings;
}

/** What was set right after a revision. */
export async function settingsAt(work: UnitOfWork, projectId: string, revision: number): Promise<unknown> {
  return storedSettings(
    work,
    `SELECT coalesce((SELECT p.undo->'from' FROM change c JOIN change_part p ON p.change_id = c.id WHERE c.project_id = $1 AND c.revision > $2 AND p.undo->>'kind' = 'settings' ORDER BY c.revision, p.place LIMIT 1), settings) AS settings
     FROM project WHERE id = $1`,
    [projectId, revision],
  );
}
