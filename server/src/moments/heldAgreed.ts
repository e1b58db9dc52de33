import { ARTEFACT_KINDS, artefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { linksOf } from '@caderno/core/kinds';
import { z } from 'zod';
import { readVersions } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import type { Held } from './held.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 500;

const row = z.object({ id: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), head: z.number(), agreed: z.number().nullable() });
type Row = z.infer<typeof row>;
const linkRow = z.object({ from: z.string(), to: z.string() });

/** What tests are designed from: it is there as it stands where nobody agreed to it, or nobody would know what is not shown yet. */
const BASIS: readonly ArtefactKind[] = ['requirement', 'condition', 'question'];

/** What is agreed in a project, each at the version agreed last, with the basis and with what that uses, which stand as they are where nobody ever agreed to them. */
export async function heldAgreed(work: UnitOfWork, projectId: string): Promise<Held> {
  const rows = await selectRows(
    work,
    row,
    `SELECT id, kind, number, head, CASE WHEN state <> 'withdrawn' THEN agreed_version END AS agreed FROM artefact WHERE project_id = $1 AND deleted_at IS NULL ORDER BY id`,
    [projectId],
  );
  const used = await usedBy(work, projectId, rows);
  const held = new Set(rows.filter((r) => r.agreed !== null || BASIS.includes(r.kind)).map((r) => r.id));
  for (const id of held) for (const other of used.get(id) ?? []) held.add(other);
  return {
    sql: `
      SELECT a.id AS old, chosen.version, CASE WHEN a.meaning_since <= chosen.version THEN a.meaning_since END AS meaning_since, a.agreed_version,
        CASE WHEN chosen.is_agreed THEN 'agreed' ELSE a.state END AS state, a.title, a.module, a.parent_id, a.position
      FROM artefact a
        CROSS JOIN LATERAL (SELECT a.state <> 'withdrawn' AND a.agreed_version IS NOT NULL AS is_agreed, CASE WHEN a.state <> 'withdrawn' THEN coalesce(a.agreed_version, a.head) ELSE a.head END AS version) chosen
      WHERE a.id = ANY($3::bigint[])`,
    bind: [[...held]],
  };
}

/** What each uses: in the version that is held, which may use something else than the one of now. */
async function usedBy(work: UnitOfWork, projectId: string, rows: readonly Row[]): Promise<Map<string, readonly string[]>> {
  const used = new Map<string, string[]>();
  for (const { from, to } of await selectRows(work, linkRow, `SELECT l.from_id AS from, l.to_id AS to FROM link l JOIN artefact a ON a.id = l.from_id WHERE a.project_id = $1 AND l.type = 'uses'`, [projectId])) {
    used.set(from, [...(used.get(from) ?? []), to]);
  }
  const ids = new Map<ArtefactId, string>(rows.map((r) => [artefactId(r.kind, r.number), r.id]));
  const earlier = rows.flatMap(({ id, agreed, head }) => (agreed === null || agreed === head ? [] : [{ id, version: agreed }]));
  for (let from = 0; from < earlier.length; from += AT_A_TIME) {
    for (const [id, value] of await readVersions(work, earlier.slice(from, from + AT_A_TIME))) used.set(id, linksOf(value).flatMap((link) => (link.type === 'uses' ? (ids.get(link.to) ?? []) : [])));
  }
  return used;
}
