import { selectRows, type UnitOfWork } from '../database/index.ts';

/** How far a project has come. */
export async function revisionOf(work: UnitOfWork, projectId: string): Promise<number> {
  const [project] = await selectRows<{ revision: number }>(work, 'SELECT revision FROM project WHERE id = $1', [projectId]);
  return project?.revision ?? 0;
}
