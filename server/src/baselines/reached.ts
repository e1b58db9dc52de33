import { ARTEFACT_KINDS, artefactId, parseArtefactId } from '@caderno/core/artefacts';
import { changedItem, type FrozenChange, type Reached } from '@caderno/core/baselines';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

/** Agreed cases told by name. */
const MOST_REACHED = 200;

const reachedRow = z.object({ number: z.number(), title: z.string(), through: z.array(z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number() })) });

/** The rows of artefacts of a project ($1), named by kind and number ($2, JSON). */
export const CHANGED_ROWS = 'changed AS MATERIALIZED (SELECT a.id, a.kind, a.number FROM jsonb_to_recordset($2::jsonb) AS r(kind text, number int) JOIN artefact a ON a.project_id = $1 AND a.kind = r.kind AND a.number = r.number)';
/** Whether a use (`l`) of something (`t`) means it as it is now: what is pinned to a version, or follows the agreed one (0), is not reached by a later one. */
export const MEANS_LATEST = '(l.pinned IS NULL OR l.pinned = t.head OR (l.pinned = 0 AND coalesce(t.agreed_version, t.head) = t.head))';

/**
 * The cases that are agreed now and use, all the way down, something that changed in meaning or is gone: whoever agreed to
 * them saw something else.
 */
export async function readReached(work: UnitOfWork, projectId: string, changes: readonly FrozenChange[]): Promise<Reached[]> {
  const meant = changes.flatMap((c) => ((c.kind === 'changed' && c.meant) || c.kind === 'gone' ? (parseArtefactId(changedItem(c).id) ?? []) : []));
  const rows = await selectRows(
    work,
    reachedRow,
    `WITH RECURSIVE ${CHANGED_ROWS},
     up AS (
       SELECT id AS source, id AS at FROM changed
       UNION SELECT up.source, l.from_id FROM up JOIN link l ON l.to_id = up.at AND l.type = 'uses' JOIN artefact t ON t.id = l.to_id WHERE ${MEANS_LATEST})
     SELECT a.number, a.title, json_agg(DISTINCT jsonb_build_object('kind', c.kind, 'number', c.number)) AS through
     FROM up JOIN changed c ON c.id = up.source JOIN artefact a ON a.id = up.at AND a.kind = 'case' AND a.state = 'agreed' AND a.deleted_at IS NULL
     WHERE up.at <> up.source GROUP BY a.number, a.title ORDER BY a.number LIMIT ${MOST_REACHED}`,
    [projectId, JSON.stringify(meant)],
  );
  return rows.map(({ number, title, through }) => ({ id: artefactId('case', number), title, through: through.map((t) => artefactId(t.kind, t.number)).sort() }));
}
