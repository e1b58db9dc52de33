import { HEADS_PAGE, packHeads, type ResponseOf } from '@caderno/contract';
import { selectSummaries } from '../artefacts/index.ts';
import { idRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { countSuspectLinks } from '../projects/index.ts';
import { revisionOf } from './revision.ts';

/** A page of what lists show of all artefacts, in the order in which they were made; `after`: where the page before ended. */
export async function readHeads(work: UnitOfWork, projectId: string, after: string | null): Promise<ResponseOf<'readHeads'>> {
  // Read first: what changes while the pages are read is told again by what changed since.
  const revision = await revisionOf(work, projectId);
  const ids = await selectRows(
    work,
    idRow,
    `SELECT id FROM artefact WHERE project_id = $1 AND deleted_at IS NULL AND id > $2 ORDER BY id LIMIT ${HEADS_PAGE}`,
    [projectId, after ?? '0'],
  );
  const last = ids.at(-1)?.id ?? '0';
  const summaries = await selectSummaries(work, 'a.project_id = $1 AND a.deleted_at IS NULL AND a.id > $2 AND a.id <= $3', [projectId, after ?? '0', last], 'a.kind, a.number');
  return { revision, heads: packHeads(summaries), next: ids.length < HEADS_PAGE ? null : last, suspectLinks: await countSuspectLinks(work, projectId) };
}
