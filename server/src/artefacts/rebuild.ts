import { execute, modelsOf, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { deriveAnew } from './derive.ts';
import { readHeads } from './write.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 500;

/** Derives links, search words and summary columns of a whole project anew from its contents. Changes nothing when all is well; what cannot be read keeps nothing derived but its name. */
export async function rebuildDerived(work: UnitOfWork, projectId: string): Promise<number> {
  const rows = await modelsOf(work.db).Artefact.findAll({ where: { projectId }, order: ['id'], transaction: work.transaction });
  await execute(work, 'DELETE FROM link WHERE from_id IN (SELECT id FROM artefact WHERE project_id = $1)', [projectId]);
  const { riskScale } = (await readSettings(work, projectId)).settings;
  for (let from = 0; from < rows.length; from += AT_A_TIME) {
    const heads = await readHeads(work, rows.slice(from, from + AT_A_TIME));
    await deriveAnew(work, projectId, riskScale, [...heads].map(([rowId, value]) => ({ rowId, value })));
  }
  return rows.length;
}
