import { idRow, selectRows, type UnitOfWork } from '../database/index.ts';

/** The rows of artefacts and of all that they use, all the way down. */
export async function reachedBy(work: UnitOfWork, rows: readonly string[]): Promise<string[]> {
  const reached = await selectRows(
    work,
    idRow,
    `WITH RECURSIVE reached AS (SELECT unnest($1::bigint[]) AS id UNION SELECT l.to_id FROM link l JOIN reached r ON l.from_id = r.id WHERE l.type = 'uses') SELECT id FROM reached`,
    [rows],
  );
  return reached.map((r) => r.id);
}
