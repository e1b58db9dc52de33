import type { ArtefactId, CoveringId } from '@caderno/core/artefacts';
import { changedRows, type CoverageRow, type CoverageRowId, type CoverageRows } from '@caderno/core/coverage';
import { artefactIdSchema, coveringIdSchema, packRows, rowFromWire, toWire, wireRowSchema, type CoverageSince, type WireRow } from '@caderno/contract';
import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { revisionOf } from '../log/index.ts';

/** The channel on which servers tell each other that coverage has been written. */
export const COVERAGE_CHANNEL = 'caderno_coverage';

/** Which code computed the rows: what another one left is computed anew. Set when the server is bundled. */
export const COMPUTATION = process.env.CADERNO_COMPUTATION ?? 'sources';

/** Rows written by one statement. */
const IN_ONE_STATEMENT = 5_000;

/** How far the rows of a project are: `edition` counts the writings, `revision` is the project's that they are of. */
const coverageStateRow = z.object({ edition: z.number(), revision: z.number() });
export type CoverageState = z.infer<typeof coverageStateRow>;

/** How far the rows are, of whatever this code computed; null: there are none. */
export async function coverageState(work: UnitOfWork, projectId: string): Promise<CoverageState | null> {
  const [state] = await selectRows(work, coverageStateRow, 'SELECT edition, revision FROM coverage_state WHERE project_id = $1 AND computation = $2', [projectId, COMPUTATION]);
  return state ?? null;
}

/** Whether the rows tell of the project as it is now. */
export async function isUpToDate(work: UnitOfWork, projectId: string): Promise<boolean> {
  return hasComeTo(work, projectId, await revisionOf(work, projectId));
}

/** Whether the rows tell of a project as it was at a revision, or later. */
export async function hasComeTo(work: UnitOfWork, projectId: string, revision: number): Promise<boolean> {
  return ((await coverageState(work, projectId))?.revision ?? -1) >= revision;
}

const lockRow = z.object({ ours: z.boolean() });

/** Whether this transaction may compute the rows: no other does until it ends. */
export async function isOurs(work: UnitOfWork, projectId: string): Promise<boolean> {
  const [lock] = await selectRows(work, lockRow, `SELECT pg_try_advisory_xact_lock(hashtextextended('caderno coverage ' || $1, 0)) AS ours`, [projectId]);
  return lock?.ours === true;
}

const wireRow = z.object({ id: z.union([artefactIdSchema, coveringIdSchema]), row: wireRowSchema.nullable() });

/** The rows that were written since an edition; of none, or of one that is not to come yet, all. */
export async function readRowsSince(work: UnitOfWork, projectId: string, asked: number | null): Promise<CoverageSince> {
  const state = (await coverageState(work, projectId)) ?? { edition: 0, revision: 0 };
  const since = asked === null || asked > state.edition ? null : asked;
  const stored = await selectRows(
    work,
    wireRow,
    `SELECT id, row FROM coverage_row WHERE project_id = $1 AND edition > $2 AND edition <= $3 ${since === null ? 'AND row IS NOT NULL' : ''}`,
    [projectId, since ?? -1, state.edition],
  );
  const rows = inOrder(stored);
  return { since, ...state, rows: packRows(rows.flatMap((r) => r.row ?? [])), gone: rows.flatMap((r) => (r.row === null ? [r.id] : [])) };
}

/** By kind and number, so that ids that follow each other stand together and pack well. */
function inOrder<R extends { readonly id: ArtefactId | CoveringId }>(rows: readonly R[]): R[] {
  const numbered = rows.map((row) => ({ row, kind: row.id.slice(0, 1), number: Number(/\d+$/.exec(row.id)?.[0] ?? 0) }));
  return numbered.sort((a, b) => (a.kind === b.kind ? a.number - b.number : a.kind < b.kind ? -1 : 1)).map((n) => n.row);
}

const coverageRow = z.object({ row: z.unknown() });

/** All rows as they are stored, to tell what changes; one that cannot be read is left out, and thereby written anew. */
export async function storedRows(work: UnitOfWork, projectId: string): Promise<Map<CoverageRowId, CoverageRow>> {
  const stored = await selectRows(work, coverageRow, 'SELECT row FROM coverage_row WHERE project_id = $1 AND row IS NOT NULL', [projectId]);
  return new Map(stored.flatMap(({ row }) => readable(row).map((r) => [r.id, r] as const)));
}

function readable(row: unknown): CoverageRow[] {
  try {
    return [rowFromWire(row)];
  } catch {
    // Rows are derived: what another build wrote and this one cannot read is simply written again.
    return [];
  }
}

const computedStateRow = coverageStateRow.extend({ computation: z.string() });

/**
 * Writes what differs from `before` as a new edition and tells the other servers. Answers null when somebody else has
 * written since `expected` (null: nothing was there of this code): what is stored is then not what `before` says.
 */
export async function writeRows(work: UnitOfWork, projectId: string, expected: CoverageState | null, revision: number, before: CoverageRows, after: CoverageRows): Promise<CoverageState | null> {
  await execute(work, `INSERT INTO coverage_state (project_id, edition, revision, computation) VALUES ($1, 0, 0, '') ON CONFLICT DO NOTHING`, [projectId]);
  const [now] = await selectRows(work, computedStateRow, 'SELECT edition, revision, computation FROM coverage_state WHERE project_id = $1 FOR NO KEY UPDATE', [projectId]);
  if (now === undefined) throw new Error(`Rows belong to a project: expected its state, got none of ${projectId}`);
  const known = now.computation === COMPUTATION ? now.edition : null;
  if (known !== (expected?.edition ?? null)) return null;
  const edition = now.edition + 1;
  const { changed, gone } = changedRows(before, after);
  await putRows(work, projectId, edition, [...changed.map((row) => ({ id: row.id, row: toWire(row) })), ...gone.map((id) => ({ id, row: null }))]);
  await execute(work, 'UPDATE coverage_state SET edition = $2, revision = $3, computation = $4 WHERE project_id = $1', [projectId, edition, revision, COMPUTATION]);
  await execute(work, `SELECT pg_notify($1, json_build_object('project', key, 'edition', $3::int)::text) FROM project WHERE id = $2`, [COVERAGE_CHANNEL, projectId, edition]);
  return { edition, revision };
}

async function putRows(work: UnitOfWork, projectId: string, edition: number, rows: readonly { readonly id: CoverageRowId; readonly row: WireRow | null }[]): Promise<void> {
  for (let at = 0; at < rows.length; at += IN_ONE_STATEMENT) {
    await execute(
      work,
      `INSERT INTO coverage_row (project_id, id, edition, row) SELECT $1, r.id, $2, nullif(r.row, 'null'::jsonb) FROM jsonb_to_recordset($3::jsonb) AS r(id text, row jsonb)
       ON CONFLICT (project_id, id) DO UPDATE SET edition = EXCLUDED.edition, row = EXCLUDED.row`,
      [projectId, edition, JSON.stringify(rows.slice(at, at + IN_ONE_STATEMENT))],
    );
  }
}
