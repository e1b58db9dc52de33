import { ARTEFACT_KINDS, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { linksOf } from '@caderno/core/kinds';
import { z } from 'zod';
import { readVersions } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import type { Held } from './held.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 500;

const row = z.object({ id: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), head: z.number(), agreed: z.number().nullable(), parent: z.string().nullable() });
type Row = z.infer<typeof row>;
const linkRow = z.object({ from: z.string(), to: z.string() });

/**
 * What is agreed in a project, each at the version agreed last. What it cannot be read without is there too, as it
 * stands, where nobody ever agreed to it: what it uses, what it derives from, and the headings above that.
 */
export async function heldAgreed(work: UnitOfWork, projectId: string): Promise<Held> {
  const rows = await selectRows(
    work,
    row,
    `SELECT id, kind, number, head, CASE WHEN state <> 'withdrawn' THEN agreed_version END AS agreed, parent_id AS parent FROM artefact WHERE project_id = $1 AND deleted_at IS NULL ORDER BY id`,
    [projectId],
  );
  const needed = await neededBy(work, projectId, rows);
  const byId = new Map(rows.map((r) => [r.id, r]));
  const held = new Set(rows.filter((r) => r.agreed !== null).map((r) => r.id));
  for (const id of held) {
    const parent = byId.get(id)?.parent ?? null;
    for (const other of [...(needed.get(id) ?? []), ...(parent === null ? [] : [parent])]) held.add(other);
  }
  const records = rows.flatMap(({ id, head, agreed }) => (held.has(id) ? [{ id, version: agreed ?? head, agreed: agreed !== null }] : []));
  return {
    sql: `
      SELECT a.id AS old, r.version, CASE WHEN a.meaning_since <= r.version THEN a.meaning_since END AS meaning_since, a.agreed_version,
        CASE WHEN r.agreed THEN 'agreed' ELSE a.state END AS state, a.title, a.module, a.parent_id, a.position
      FROM jsonb_to_recordset($3::jsonb) AS r(id bigint, version int, agreed boolean) JOIN artefact a ON a.id = r.id`,
    bind: [JSON.stringify(records)],
  };
}

/** What each cannot be read without: of the version that is held, which may lead elsewhere than the one of now. */
async function neededBy(work: UnitOfWork, projectId: string, rows: readonly Row[]): Promise<Map<string, readonly string[]>> {
  const needed = new Map<string, string[]>();
  const links = await selectRows(work, linkRow, `SELECT l.from_id AS from, l.to_id AS to FROM link l JOIN artefact a ON a.id = l.from_id WHERE a.project_id = $1 AND l.type IN ('uses', 'derives')`, [projectId]);
  for (const { from, to } of links) needed.set(from, [...(needed.get(from) ?? []), to]);
  const ids = new Map<ArtefactId, string>(rows.map((r) => [artefactId(r.kind, r.number), r.id]));
  const earlier = rows.flatMap(({ id, agreed, head }) => (agreed === null || agreed === head ? [] : [{ id, version: agreed }]));
  for (let from = 0; from < earlier.length; from += AT_A_TIME) {
    for (const [id, value] of await readVersions(work, earlier.slice(from, from + AT_A_TIME))) {
      needed.set(id, linksOf(value).flatMap((link) => (link.type === 'uses' || link.type === 'derives' ? (ids.get(link.to) ?? []) : [])));
    }
  }
  return needed;
}
