import { execute, modelsOf, type Work } from '../database/index.ts';
import { rewriteLinks } from './links.ts';
import { writeSearch } from './search.ts';
import { readContent } from './store.ts';
import { summaryColumns } from './summary.ts';

/** Derives links, search words and summary columns of a whole project anew from its contents. Changes nothing when all is well. */
export async function rebuildDerived(work: Work, projectId: string): Promise<number> {
  const rows = await modelsOf(work.db).Artefact.findAll({ where: { projectId }, order: ['id'], transaction: work.transaction });
  await execute(work, 'DELETE FROM link WHERE from_id IN (SELECT id FROM artefact WHERE project_id = $1)', [projectId]);
  for (const row of rows) {
    const value = await readContent(work, row, row.head);
    await row.update(summaryColumns(value), { transaction: work.transaction });
    await rewriteLinks(work, projectId, row.id, value);
    await writeSearch(work, row.id, value);
  }
  return rows.length;
}
