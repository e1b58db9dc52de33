import { ARTEFACT_KINDS, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { CHANGE_ACTIONS, type Change } from '@caderno/contract';
import { z } from 'zod';
import { findArtefact } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

/** Entries of the journal answered at once; `before` leads on. */
const PAGE = 100;

const entryLine = z.object({
  action: z.enum(CHANGE_ACTIONS),
  kind: z.enum(ARTEFACT_KINDS).nullable(),
  number: z.number().nullable(),
  title: z.string().nullable(),
  size: z.number(),
  toVersion: z.number().nullable(),
  detail: z.string(),
});
type EntryLine = z.infer<typeof entryLine>;

const changeLine = entryLine.extend({
  id: z.string(),
  revision: z.number(),
  author: z.string(),
  at: z.date(),
  fromVersion: z.number().nullable(),
  note: z.string(),
  undone: z.boolean(),
  undid: entryLine.nullable(),
});
type ChangeLine = z.infer<typeof changeLine>;

const SELECT = `
  SELECT c.id, c.revision, c.action, a.kind, a.number, a.title, c.size, person.name AS author, c.at, p.from_version AS "fromVersion", p.to_version AS "toVersion",
    c.detail, c.note, c.undone_by IS NOT NULL AS undone, undid.line AS undid
  FROM change c JOIN person ON person.id = c.author_id
  LEFT JOIN LATERAL (
    SELECT json_build_object('action', u.action, 'kind', ua.kind, 'number', ua.number, 'title', ua.title, 'size', u.size, 'toVersion', up.to_version, 'detail', u.detail) AS line
    FROM change u LEFT JOIN change_part up ON up.change_id = u.id AND up.place = 0 LEFT JOIN artefact ua ON ua.id = up.artefact_id
    WHERE u.id = CASE WHEN c.action = 'undo' THEN c.detail::uuid END
  ) undid ON true`;
/** The part shown of a change: its first. */
const FIRST_PART = `LEFT JOIN change_part p ON p.change_id = c.id AND p.place = 0 LEFT JOIN artefact a ON a.id = p.artefact_id`;
/** The part that concerns one artefact ($2): the version it made, if any. */
const OWN_PART = `
  JOIN LATERAL (SELECT * FROM change_part part WHERE part.change_id = c.id AND part.artefact_id = $2 ORDER BY part.to_version IS NULL, part.place LIMIT 1) p ON true
  JOIN artefact a ON a.id = p.artefact_id`;

/** The journal of a project or of one artefact, newest first; `before` and `after`: revisions that are not in it. */
export async function listChanges(work: UnitOfWork, projectId: string, filter: { readonly artefact?: ArtefactId | undefined; readonly before?: number | undefined; readonly after?: number | undefined }): Promise<Change[]> {
  const artefact = filter.artefact === undefined ? null : await findArtefact(work, projectId, filter.artefact);
  const lines = await selectRows(
    work,
    changeLine,
    `${SELECT} ${artefact === null ? FIRST_PART : OWN_PART} WHERE c.project_id = $1 AND ($3::int IS NULL OR c.revision < $3) AND ($4::int IS NULL OR c.revision > $4) AND ($2::bigint IS NULL OR true) ORDER BY c.revision DESC LIMIT ${PAGE}`,
    [projectId, artefact?.id ?? null, filter.before ?? null, filter.after ?? null],
  );
  return lines.map(toChange);
}

export async function readChange(work: UnitOfWork, projectId: string, id: string): Promise<Change> {
  const [line] = await selectRows(work, changeLine, `${SELECT} ${FIRST_PART} WHERE c.project_id = $1 AND c.id = $2`, [projectId, id]);
  if (line === undefined) throw new DomainError({ code: 'change_unknown', change: id });
  return toChange(line);
}

function toChange({ at, undid, ...line }: ChangeLine): Change {
  return { ...toEntry(line), at: at.toISOString(), undid: undid === null ? null : toEntry(undid) };
}

function toEntry<Line extends EntryLine>({ number, kind, title, ...line }: Line): Omit<Line, 'number' | 'kind' | 'title'> & { readonly title: string; readonly artefact: ArtefactId | null } {
  return { ...line, title: title ?? '', artefact: kind === null || number === null ? null : artefactId(kind, number) };
}
