import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

const suiteRow = z.object({ number: z.number(), schema: z.number(), content: z.unknown() });
type SuiteRow = z.infer<typeof suiteRow>;

/** The suites of a project that are not withdrawn, as they were saved last. */
export function liveSuites(work: UnitOfWork, projectId: string): Promise<SuiteRow[]> {
  const sql = `SELECT a.number, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
               WHERE a.project_id = $1 AND a.kind = 'suite' AND a.deleted_at IS NULL AND a.state <> 'withdrawn' ORDER BY a.number`;
  return selectRows(work, suiteRow, sql, [projectId]);
}
