import { ARTEFACT_KINDS, parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { modelsOf, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { idOfRow } from './journalEntry.ts';

/** The artefacts in the order asked for, each once; and those that are not in the project. */
export async function rowsOfIds(work: UnitOfWork, projectId: string, ids: readonly ArtefactId[]): Promise<{ readonly rows: readonly ArtefactRow[]; readonly absent: readonly ArtefactId[] }> {
  const once = [...new Set(ids)];
  const byId = new Map<ArtefactId, ArtefactRow>();
  for (const kind of ARTEFACT_KINDS) {
    const number = once.flatMap((id) => (parseArtefactId(id)?.kind === kind ? [parseArtefactId(id)?.number ?? 0] : []));
    if (number.length === 0) continue;
    const rows = await modelsOf(work.db).Artefact.findAll({ where: { projectId, kind, number, deletedAt: null }, transaction: work.transaction });
    for (const row of rows) byId.set(idOfRow(row), row);
  }
  return { rows: once.flatMap((id) => byId.get(id) ?? []), absent: once.filter((id) => !byId.has(id)) };
}
