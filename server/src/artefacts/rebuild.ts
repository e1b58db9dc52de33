import { execute, modelsOf, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { rewriteLinks } from './links.ts';
import { writeSearch } from './search.ts';
import { summaryColumns } from '../kinds/index.ts';
import { readHeads } from './write.ts';

/** Derives links, search words and summary columns of a whole project anew from its contents. Changes nothing when all is well. */
export async function rebuildDerived(work: UnitOfWork, projectId: string): Promise<number> {
  const rows = await modelsOf(work.db).Artefact.findAll({ where: { projectId }, order: ['id'], transaction: work.transaction });
  await execute(work, 'DELETE FROM link WHERE from_id IN (SELECT id FROM artefact WHERE project_id = $1)', [projectId]);
  const { riskScale } = (await readSettings(work, projectId)).settings;
  const heads = await readHeads(work, rows);
  for (const row of rows) {
    const value = heads.get(row.id);
    // What cannot be read keeps nothing derived but its name.
    if (value === undefined) continue;
    await row.update(summaryColumns(value, riskScale), { transaction: work.transaction });
    await rewriteLinks(work, projectId, [{ rowId: row.id, value }]);
    await writeSearch(work, row.id, value);
  }
  return rows.length;
}
