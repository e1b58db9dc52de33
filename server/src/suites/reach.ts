import { ARTEFACT_KINDS, artefactId, type ArtefactId, type SuiteId } from '@caderno/core/artefacts';
import { ownerOf, suiteMembers, type SuiteContent } from '@caderno/core/suites';
import { contentOrBroken, findArtefact, reachedBy, rowsOfIds } from '../artefacts/index.ts';
import { artefactKeyRow, idRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { z } from 'zod';
import { rulesFind } from './rules.ts';

const contentRow = z.object({ schema: z.number(), content: z.unknown() });

/** A suite as it was saved last. @throws {DomainError} when it is not there, or cannot be read. */
export async function readSuite(work: UnitOfWork, projectId: string, suite: SuiteId): Promise<{ readonly rowId: string; readonly content: SuiteContent }> {
  const { id, head } = await findArtefact(work, projectId, suite);
  const [stored] = await selectRows(work, contentRow, 'SELECT schema, content FROM artefact_version WHERE artefact_id = $1 AND version = $2', [id, head]);
  const content = stored === undefined ? null : contentOrBroken('suite', stored.schema, stored.content);
  if (content === null) throw new DomainError({ code: 'artefact_broken', id: suite, version: head });
  return { rowId: id, content };
}

/** A suite, its members as they are now, those that rules find too, and whatever these use; the suite first, nothing that is withdrawn. */
export async function readReachOfSuite(work: UnitOfWork, projectId: string, suite: SuiteId, now: number): Promise<ArtefactId[]> {
  const { rowId, content } = await readSuite(work, projectId, suite);
  const members = suiteMembers(content, await rulesFind(work, projectId, content.entries, now)).map((m) => ownerOf(m.of));
  const { rows } = await rowsOfIds(work, projectId, [...new Set([suite, ...members])]);
  const reached = await selectRows(
    work,
    artefactKeyRow,
    `SELECT kind, number FROM artefact WHERE id = ANY($1) AND deleted_at IS NULL AND state <> 'withdrawn' ORDER BY id <> $2, array_position($3::text[], kind), number`,
    [await reachedBy(work, rows.map((row) => row.id)), rowId, ARTEFACT_KINDS],
  );
  return reached.map((row) => artefactId(row.kind, row.number));
}

/** The rows of the conditions that artefacts cover or serve, and of the requirements these are derived from. */
export async function basisOf(work: UnitOfWork, rows: readonly string[]): Promise<string[]> {
  const above = await selectRows(
    work,
    idRow,
    `WITH RECURSIVE above AS (SELECT unnest($1::bigint[]) AS id UNION SELECT l.to_id FROM link l JOIN above b ON l.from_id = b.id WHERE l.type IN ('covers', 'serves', 'derives')) SELECT id FROM above`,
    [rows],
  );
  return above.map((row) => row.id);
}
