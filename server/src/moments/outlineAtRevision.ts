import { outlineBefore } from '@caderno/core/basis';
import { z } from 'zod';
import { storedPlaceSchema } from '../artefacts/index.ts';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';

const outlineRow = z.object({
  now: z.array(z.object({ id: z.string(), parent: z.string().nullable() })).nullable(),
  moves: z.array(z.object({ id: z.string(), from: storedPlaceSchema })).nullable(),
});

/** Puts the requirements of a moment where they stood right after a revision of the project it is of. */
export async function putOutline(work: UnitOfWork, moment: string, projectId: string, revision: number): Promise<void> {
  const [outline] = await selectRows(
    work,
    outlineRow,
    `SELECT
       (SELECT json_agg(json_build_object('id', id::text, 'parent', parent_id::text) ORDER BY position, number) FROM artefact WHERE project_id = $1 AND kind = 'requirement') AS now,
       (SELECT json_agg(json_build_object('id', p.artefact_id::text, 'from', p.undo->'from') ORDER BY c.revision, p.place)
        FROM change c JOIN change_part p ON p.change_id = c.id WHERE c.project_id = $1 AND c.revision > $2 AND p.undo->>'kind' = 'place') AS moves`,
    [projectId, revision],
  );
  if (outline?.now == null || outline.moves === null) return;
  const places = outlineBefore(outline.now, outline.moves.map(({ id, from: { parentId, ...from } }) => ({ id, from: { ...from, parent: parentId } })));
  await execute(
    work,
    `UPDATE artefact m SET position = r.position, parent_id = above.id
     FROM jsonb_to_recordset($2::jsonb) AS r(id bigint, parent bigint, position int) JOIN artefact a ON a.id = r.id
       LEFT JOIN artefact p ON p.id = r.parent LEFT JOIN artefact above ON above.project_id = $1 AND above.kind = 'requirement' AND above.number = p.number
     WHERE m.project_id = $1 AND m.kind = 'requirement' AND m.number = a.number`,
    [moment, JSON.stringify(places)],
  );
}
