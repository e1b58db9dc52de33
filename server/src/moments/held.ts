import type { BaselineNumber } from '@caderno/core/baselines';
import { baselineHead } from '../baselines/index.ts';
import type { UnitOfWork } from '../database/index.ts';

/**
 * What a moment holds, as a query whose parameters count from $3: `old` (the row of an artefact), its `version` then,
 * `meaning_since` (null: to be told from its contents), `agreed_version`, `state`, `title`, `module`, `parent_id` and `position`.
 */
export interface Held {
  readonly sql: string;
  readonly bind: readonly unknown[];
}

export async function heldByBaseline(work: UnitOfWork, projectId: string, number: BaselineNumber): Promise<Held> {
  const { id } = await baselineHead(work, projectId, number);
  return { sql: 'SELECT artefact_id AS old, version, meaning_since, agreed_version, state, title, module, parent_id, position FROM baseline_item WHERE baseline_id = $3', bind: [id] };
}

/**
 * What a project held right after a revision: what the journal did later is taken back from what is there now, in one
 * statement, so that somebody who saves meanwhile does no harm. Title and module are those of now where the version is another.
 */
export function heldAtRevision(projectId: string, revision: number): Held {
  const first = (what: string, where: string): string => `SELECT DISTINCT ON (artefact_id) artefact_id, ${what} FROM later WHERE ${where} ORDER BY artefact_id, revision, place`;
  return {
    sql: `
      WITH later AS MATERIALIZED (
        SELECT p.artefact_id, p.undo, p.undo->>'kind' AS kind, c.revision, p.place FROM change c JOIN change_part p ON p.change_id = c.id
        WHERE c.project_id = $3 AND c.revision > $4 AND p.artefact_id IS NOT NULL),
      content AS (${first(`(undo->>'from')::int AS version`, `kind = 'content'`)}),
      existence AS (${first(`(undo->>'exists')::boolean AS exists`, `kind = 'existence'`)}),
      standing AS (${first(`CASE kind WHEN 'state' THEN undo->>'from' ELSE undo->>'state' END AS state`, `kind = 'state' OR (kind = 'content' AND undo ? 'state')`)}),
      agreed AS (${first(`(undo->'agreed'->>'from')::int AS version`, `kind = 'state' AND undo ? 'agreed'`)})
      SELECT a.id AS old, past.version, CASE WHEN a.meaning_since <= past.version THEN a.meaning_since END AS meaning_since,
        CASE WHEN agreed.artefact_id IS NULL THEN a.agreed_version ELSE agreed.version END AS agreed_version,
        coalesce(standing.state, a.state) AS state, a.title, a.module, a.parent_id, a.position
      FROM artefact a LEFT JOIN content ON content.artefact_id = a.id LEFT JOIN existence ON existence.artefact_id = a.id
        LEFT JOIN standing ON standing.artefact_id = a.id LEFT JOIN agreed ON agreed.artefact_id = a.id
        CROSS JOIN LATERAL (SELECT coalesce(content.version, a.head) AS version) past
      WHERE a.project_id = $3 AND coalesce(existence.exists, a.deleted_at IS NULL)`,
    bind: [projectId, revision],
  };
}
