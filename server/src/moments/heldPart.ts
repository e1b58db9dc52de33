import { idRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { heldAtRevision, type Held } from './held.ts';

/**
 * The rows of what stands in some modules ($2) of a project ($1): a condition in those of its requirements, a question where all that it
 * is about stands there too. Whatever these use comes along, wherever it stands, or they could not be read.
 */
export const SEEN = `
  WITH RECURSIVE standing AS (
    SELECT a.id FROM artefact a WHERE a.project_id = $1 AND a.deleted_at IS NULL AND a.module = ANY($2)
    UNION SELECT c.id FROM artefact c JOIN link l ON l.from_id = c.id JOIN artefact r ON r.id = l.to_id AND r.kind = 'requirement' AND r.module = ANY($2)
      WHERE c.project_id = $1 AND c.kind = 'condition' AND c.deleted_at IS NULL),
  asked AS (
    SELECT q.id FROM artefact q JOIN link l ON l.from_id = q.id AND l.type = 'asks' WHERE q.project_id = $1 AND q.kind = 'question' AND q.deleted_at IS NULL
    GROUP BY q.id HAVING bool_and(l.to_id IN (SELECT id FROM standing))),
  shown AS (SELECT id FROM standing UNION SELECT id FROM asked UNION SELECT l.to_id FROM shown JOIN link l ON l.from_id = shown.id AND l.type = 'uses')
  SELECT id FROM shown`;

/** The rows of what is seen of a project by somebody who sees only some modules. */
export async function seenOf(work: UnitOfWork, projectId: string, modules: readonly string[]): Promise<readonly string[]> {
  return (await selectRows(work, idRow, SEEN, [projectId, modules])).map((row) => row.id);
}

/** These as they are right after a revision: the one of now, so that a save meanwhile does no harm. */
export function heldPart(projectId: string, revision: number, ids: readonly string[]): Held {
  const whole = heldAtRevision(projectId, revision);
  return { sql: `SELECT * FROM (${whole.sql}) whole WHERE whole.old = ANY($5::bigint[])`, bind: [...whole.bind, ids] };
}
