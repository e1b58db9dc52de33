import { artefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import type { Change, ChangeAction } from '@caderno/contract';
import { findArtefact } from '../artefacts/index.ts';
import { selectRows, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';

/** Entries of the journal answered at once; `before` leads on. */
const PAGE = 100;

interface ChangeLine {
  readonly id: string;
  readonly revision: number;
  readonly action: ChangeAction;
  readonly kind: ArtefactKind | null;
  readonly number: number | null;
  readonly title: string | null;
  readonly size: number;
  readonly author: string;
  readonly at: Date;
  readonly fromVersion: number | null;
  readonly toVersion: number | null;
  readonly detail: string;
  readonly note: string;
  readonly undone: boolean;
}

const SELECT = `
  SELECT c.id, c.revision, c.action, a.kind, a.number, a.title, c.size, person.name AS author, c.at, p.from_version AS "fromVersion", p.to_version AS "toVersion",
    c.detail, c.note, c.undone_by IS NOT NULL AS undone
  FROM change c JOIN person ON person.id = c.author_id`;
/** The part shown of a change: its first. */
const FIRST_PART = `LEFT JOIN change_part p ON p.change_id = c.id AND p.place = 0 LEFT JOIN artefact a ON a.id = p.artefact_id`;
/** The part that concerns one artefact ($2): the version it made, if any. */
const OWN_PART = `
  JOIN LATERAL (SELECT * FROM change_part part WHERE part.change_id = c.id AND part.artefact_id = $2 ORDER BY part.to_version IS NULL, part.place LIMIT 1) p ON true
  JOIN artefact a ON a.id = p.artefact_id`;

/** The journal of a project or of one artefact, newest first. */
export async function listChanges(work: Work, projectId: string, filter: { readonly artefact?: ArtefactId | undefined; readonly before?: number | undefined }): Promise<Change[]> {
  const artefact = filter.artefact === undefined ? null : await findArtefact(work, projectId, filter.artefact);
  const lines = await selectRows<ChangeLine>(
    work,
    `${SELECT} ${artefact === null ? FIRST_PART : OWN_PART} WHERE c.project_id = $1 AND ($3::int IS NULL OR c.revision < $3) AND ($2::bigint IS NULL OR true) ORDER BY c.revision DESC LIMIT ${PAGE}`,
    [projectId, artefact?.id ?? null, filter.before ?? null],
  );
  return lines.map(toChange);
}

export async function readChange(work: Work, projectId: string, id: string): Promise<Change> {
  const [line] = await selectRows<ChangeLine>(work, `${SELECT} ${FIRST_PART} WHERE c.project_id = $1 AND c.id = $2`, [projectId, id]);
  if (line === undefined) throw new Refused({ code: 'change_unknown', change: id });
  return toChange(line);
}

function toChange({ number, kind, title, at, ...line }: ChangeLine): Change {
  return { ...line, title: title ?? '', artefact: kind === null || number === null ? null : artefactId(kind, number), at: at.toISOString() };
}
