import { z } from 'zod';
import { idOfRow } from '../artefacts/index.ts';
import { selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { tellPages } from '../projects/index.ts';

const movedRow = z.object({ id: z.string() });

/** What was said of steps goes along with them when they are taken out into shared steps; the steps keep their ids. */
export async function takeRemarksAlong(work: UnitOfWork, projectId: string, from: ArtefactRow, to: ArtefactRow, steps: readonly string[]): Promise<void> {
  const moved = await selectRows(
    work,
    movedRow,
    `UPDATE remark SET artefact_id = $2, taken_from = $1
     WHERE thread_id IN (SELECT id FROM remark WHERE artefact_id = $1 AND split_part(place->>'path', '/', 1) = 'steps' AND split_part(place->>'path', '/', 2) = ANY($3)) RETURNING id`,
    [from.id, to.id, steps],
  );
  if (moved.length > 0) for (const row of [from, to]) await tellPages(work, projectId, { event: 'remarked', data: { id: idOfRow(row) } });
}

/** Where taking out is undone (`exists` false), or done again, they go back to where they were before. */
export async function returnRemarks(work: UnitOfWork, projectId: string, rows: readonly ArtefactRow[], exists: boolean): Promise<void> {
  const ids = rows.map((r) => r.id);
  const moved = await selectRows(work, movedRow, `UPDATE remark r SET artefact_id = t.taken_from, taken_from = t.artefact_id FROM remark t WHERE t.id = r.thread_id AND t.taken_from IS NOT NULL AND t.${exists ? 'taken_from' : 'artefact_id'} = ANY($1) RETURNING r.id`, [ids]);
  if (moved.length > 0) for (const row of rows) await tellPages(work, projectId, { event: 'remarked', data: { id: idOfRow(row) } });
}
