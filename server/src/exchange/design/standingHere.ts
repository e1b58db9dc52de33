import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId, parseArtefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { latestOf, type CarriedArtefact, type FirstWritten, type StandsHere } from '@caderno/core/carrying';
import { z } from 'zod';
import { kindAndContentOrBroken, type CarriedHere } from '../../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import { readCarried } from '../../versions/index.ts';

/** What a project has of what a design file carries. */
export interface Standing {
  readonly of: (first: FirstWritten) => StandsHere | null;
  /** What is remembered of one that was carried here; of one that was written here nothing is. */
  readonly carried: (id: ArtefactId) => CarriedHere | undefined;
}

const standingRow = z.object({
  rowId: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), state: z.enum(ARTEFACT_STATES), head: z.number(), schema: z.number(), content: z.unknown(),
  leftSchema: z.number().nullable(), left: z.unknown(),
});

/** Reads it all at once, however much a file carries. @throws {DomainError} when something that stands here cannot be read: it cannot be told apart from what comes. */
export async function readStanding(work: UnitOfWork, projectId: string, artefacts: readonly CarriedArtefact[]): Promise<Standing> {
  const ours = artefacts.flatMap((a) => (a.first.project === projectId ? [{ ...keyOf(a.first.id), left: latestOf<ArtefactKind>(a).first ?? 0 }] : []));
  const theirs = artefacts.flatMap((a) => (a.first.project === projectId ? [] : [{ project: a.first.project, first: a.first.id }]));
  const rows = await selectRows(
    work,
    standingRow,
    `WITH wanted AS (
       SELECT a.id, r."left" FROM jsonb_to_recordset($2::jsonb) AS r(kind text, number int, "left" int) JOIN artefact a ON a.project_id = $1 AND a.kind = r.kind AND a.number = r.number
       UNION SELECT c.artefact_id, 0 FROM jsonb_to_recordset($3::jsonb) AS r(project text, first text) JOIN carried c ON c.first_project = r.project AND c.first_id = r.first
     )
     SELECT a.id AS "rowId", a.kind, a.number, a.state, a.head, v.schema, v.content, l.schema AS "leftSchema", l.content AS "left"
     FROM wanted JOIN artefact a ON a.id = wanted.id AND a.project_id = $1 AND a.deleted_at IS NULL
     JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head LEFT JOIN artefact_version l ON l.artefact_id = a.id AND l.version = wanted."left" ORDER BY a.id`,
    [projectId, JSON.stringify(ours), JSON.stringify(theirs)],
  );
  const carried = await readCarried(work, rows.map((row) => row.rowId));
  const byFirst = new Map<string, StandsHere>();
  const byId = new Map<ArtefactId, CarriedHere>();
  for (const { rowId, kind, number, head, schema, content, leftSchema, left } of rows) {
    const id = artefactId(kind, number);
    const value = kindAndContentOrBroken(kind, schema, content);
    if (value === null) throw new DomainError({ code: 'artefact_broken', id, version: head });
    const from = carried.get(rowId);
    if (from === undefined) {
      // Its own versions are what they are.
      const versions = new Map(Array.from({ length: head }, (_, i) => [i + 1, i + 1]));
      byFirst.set(nameOf({ project: projectId, id }), { id, head, value, base: leftSchema === null ? null : kindAndContentOrBroken(kind, leftSchema, left), versions });
    } else {
      byId.set(id, from);
      byFirst.set(nameOf(from.first), { id, head, value, base: kindAndContentOrBroken(kind, from.schema, from.base), versions: new Map(from.versions) });
    }
  }
  return { of: (first) => byFirst.get(nameOf(first)) ?? null, carried: (id) => byId.get(id) };
}

function nameOf({ project, id }: FirstWritten): string {
  return `${project} ${id}`;
}

function keyOf(id: ArtefactId): { readonly kind: ArtefactKind; readonly number: number } {
  const parsed = parseArtefactId(id);
  if (parsed === null) throw new Error(`An id was read by its schema: expected one, got ${id}`);
  return parsed;
}
