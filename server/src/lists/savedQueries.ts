import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { MOST_SAVED_QUERIES, countsViewSchema, roleReaches, type BodyOf, type Role, type SavedQuery } from '@caderno/contract';
import { z } from 'zod';
import { countRow, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

/** Whose queries: a person's own in a project, and the project's. */
export interface Asker {
  readonly projectId: string;
  readonly personId: string;
  readonly role: Role;
}

const savedRow = z.object({ id: z.string(), kind: z.enum(ARTEFACT_KINDS), name: z.string(), query: z.string(), everybody: z.boolean(), counts: countsViewSchema.nullable() });

/** The queries that somebody can choose from, by name. */
export function listSavedQueries(work: UnitOfWork, { projectId, personId }: Asker): Promise<SavedQuery[]> {
  return selectRows(work, savedRow, `SELECT id, kind, name, query, person_id IS NULL AS everybody, counts FROM saved_query WHERE project_id = $1 AND (person_id IS NULL OR person_id = $2) ORDER BY lower(name), id`, [projectId, personId]);
}

/**
 * Keeps a query, or changes one; with the same id again it is the same.
 * @throws {DomainError} when it is to be everybody's, or was, and the role does not reach; when there are too many.
 */
export async function saveQuery(work: UnitOfWork, asker: Asker, id: string, { kind, name, query, everybody, counts }: BodyOf<'saveQuery'>): Promise<SavedQuery[]> {
  const { projectId, personId } = asker;
  if (everybody) needsAnalyst(asker);
  await execute(work, 'SELECT 1 FROM project WHERE id = $1 FOR NO KEY UPDATE', [projectId]);
  await needsRightOn(work, asker, id);
  const [kept] = await selectRows(work, countRow, 'SELECT count(*)::int AS count FROM saved_query WHERE project_id = $1 AND person_id IS NOT DISTINCT FROM $2 AND id <> $3', [projectId, everybody ? null : personId, id]);
  if ((kept?.count ?? 0) >= MOST_SAVED_QUERIES) throw new DomainError({ code: 'too_many_queries', of: everybody ? 'project' : 'person', limit: MOST_SAVED_QUERIES });
  await execute(
    work,
    `INSERT INTO saved_query (id, project_id, person_id, kind, name, query, counts) VALUES ($1, $2, $3, $4, $5, $6, $7)
     ON CONFLICT (id) DO UPDATE SET person_id = EXCLUDED.person_id, kind = EXCLUDED.kind, name = EXCLUDED.name, query = EXCLUDED.query, counts = EXCLUDED.counts WHERE saved_query.project_id = EXCLUDED.project_id`,
    [id, projectId, everybody ? null : personId, kind, name, query, counts === null ? null : JSON.stringify(counts)],
  );
  return listSavedQueries(work, asker);
}

export async function removeQuery(work: UnitOfWork, asker: Asker, id: string): Promise<SavedQuery[]> {
  await needsRightOn(work, asker, id);
  await execute(work, 'DELETE FROM saved_query WHERE id = $1 AND project_id = $2', [id, asker.projectId]);
  return listSavedQueries(work, asker);
}

/** A query of everybody is the analysts' to change; somebody else's own, or one of another project, is not there. */
async function needsRightOn(work: UnitOfWork, asker: Asker, id: string): Promise<void> {
  const [there] = await selectRows(work, z.object({ everybody: z.boolean(), here: z.boolean() }), 'SELECT person_id IS NULL AS everybody, project_id = $2 AND coalesce(person_id = $3, true) AS here FROM saved_query WHERE id = $1', [id, asker.projectId, asker.personId]);
  if (there?.here === false) throw new DomainError({ code: 'query_unknown' });
  if (there?.everybody === true) needsAnalyst(asker);
}

function needsAnalyst({ role }: Asker): void {
  if (!roleReaches(role, 'analyst')) throw new DomainError({ code: 'role_too_low', needed: 'analyst', have: role });
}

