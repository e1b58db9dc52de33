import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

const revisionRow = z.object({ revision: z.number() });

/** How far a project has come. */
export async function revisionOf(work: UnitOfWork, projectId: string): Promise<number> {
  const [project] = await selectRows(work, revisionRow, 'SELECT revision FROM project WHERE id = $1', [projectId]);
  return project?.revision ?? 0;
}
