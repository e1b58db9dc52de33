import type { Sequelize } from 'sequelize';
import { inTransaction } from './connection.ts';
import { execute } from './query.ts';

/** What questions join by; contents are wide, and nothing is planned by what is in them. */
const JOINED_BY = 'artefact (id, project_id, kind, number, parent_id), artefact_version (artefact_id, version), link (from_id, to_id, type)';

/**
 * Has the database count what it holds, once much has been stored: until it does so by itself, a minute later, it plans
 * as if the project were empty, and what takes milliseconds takes seconds. Others who count just then are not waited for.
 */
export async function refreshStatistics(db: Sequelize): Promise<void> {
  await inTransaction(db, (work) => execute(work, `ANALYZE (SKIP_LOCKED) ${JOINED_BY}`));
}
