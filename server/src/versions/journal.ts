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
  readonly kind: ArtefactKind;
  readonly number: number;
  readonly title: string;
  readonly author: string;
  readonly at: Date;
  readonly fromVersion: number | null;
  readonly toVersion: number | null;
  readonly detail: string;
  readonly note: string;
  readonly undone: boolean;
}

const SELECT = `
  SELECT c.id, c.revision, c.action, a.kind, a.number, a.title, person.name AS author, c.at, c.from_version AS "fromVersion", c.to_version AS "toVersion",
    c.detail, c.note, c.undone_by IS NOT NULL AS undone
  FROM change c JOIN artefact a ON a.id = c.artefact_id JOIN person ON person.id = c.author_id`;

/** The journal of a project or of one artefact, newest first. */
export async function listChanges(work: Work, projectId: string, filter: { readonly artefact?: ArtefactId | undefined; readonly before?: number | undefined }): Promise<Change[]> {
  const artefact = filter.artefact === undefined ? null : await findArtefact(work, projectId, filter.artefact);
  const lines = await selectRows<ChangeLine>(
    work,
    `${SELECT} WHERE c.project_id = $1 AND ($2::bigint IS NULL OR c.artefact_id = $2) AND ($3::int IS NULL OR c.revision < $3) ORDER BY c.revision DESC LIMIT ${PAGE}`,
    [projectId, artefact?.id ?? null, filter.before ?? null],
  );
  return lines.map(toChange);
}

export async function readChange(work: Work, projectId: string, id: string): Promise<Change> {
  const [line] = await selectRows<ChangeLine>(work, `${SELECT} WHERE c.project_id = $1 AND c.id = $2`, [projectId, id]);
  if (line === undefined) throw new Refused({ code: 'change_unknown', change: id });
  return toChange(line);
}

function toChange({ number, at, ...line }: ChangeLine): Change {
  return { ...line, artefact: artefactId(line.kind, number), at: at.toISOString() };
}
