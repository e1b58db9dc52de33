import { artefactId, parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { linksOf } from '@caderno/core/kinds';
import type { KindAndContent } from '@caderno/contract';
import { artefactKeyRow, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { storedPin } from './storedPin.ts';

/** Whose links are to be written. */
export interface Linking {
  readonly rowId: string;
  readonly value: KindAndContent;
}

const RECORDS = `jsonb_to_recordset($1::jsonb) AS r(from_id bigint, kind text, number int, type text, seen int, pinned int)`;

/** Writes the links of artefacts anew. @throws {DomainError} when a target is not in the project. */
export async function writeLinks(work: UnitOfWork, projectId: string, linkings: readonly Linking[]): Promise<void> {
  const records = recordsOf(linkings);
  if (records.length > 0) {
    const [missing] = await selectRows(
      work,
      artefactKeyRow,
      `SELECT r.kind, r.number FROM ${RECORDS} LEFT JOIN artefact a ON a.project_id = $2 AND a.kind = r.kind AND a.number = r.number AND a.deleted_at IS NULL WHERE a.id IS NULL LIMIT 1`,
      [JSON.stringify(records), projectId],
    );
    if (missing !== undefined) throw new DomainError({ code: 'link_unknown', id: artefactId(missing.kind, missing.number) });
  }
  await rewriteLinks(work, projectId, linkings);
}

/** The same without asking whether targets were deleted since: what was linked once stays so. */
export async function rewriteLinks(work: UnitOfWork, projectId: string, linkings: readonly Linking[]): Promise<void> {
  await execute(work, 'DELETE FROM link WHERE from_id = ANY($1)', [linkings.map((l) => l.rowId)]);
  const records = recordsOf(linkings);
  if (records.length === 0) return;
  await execute(
    work,
    `INSERT INTO link (from_id, to_id, type, seen_version, pinned) SELECT r.from_id, a.id, r.type, r.seen, r.pinned FROM ${RECORDS} JOIN artefact a ON a.project_id = $2 AND a.kind = r.kind AND a.number = r.number`,
    [JSON.stringify(records), projectId],
  );
}

function recordsOf(linkings: readonly Linking[]) {
  return linkings.flatMap(({ rowId, value }) => linksOf(value).flatMap(({ to, type, seenVersion, pinned }) => {
    const target = parseArtefactId(to);
    return target === null ? [] : [{ from_id: rowId, kind: target.kind, number: target.number, type, seen: seenVersion, pinned: storedPin(pinned) }];
  }));
}

/** The artefacts that depend on one, deleted ones left out: what links to it, relations aside, and what stands below it. */
export async function usersOf(work: UnitOfWork, rowIds: readonly string[]): Promise<ArtefactId[]> {
  const rows = await selectRows(
    work,
    artefactKeyRow,
    `SELECT kind, number FROM artefact
     WHERE deleted_at IS NULL AND NOT id = ANY($1) AND (id IN (SELECT from_id FROM link WHERE to_id = ANY($1) AND type <> 'relates') OR parent_id = ANY($1)) ORDER BY kind, number`,
    [rowIds],
  );
  return rows.map((r) => artefactId(r.kind, r.number));
}
