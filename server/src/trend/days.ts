import { z } from 'zod';
import { COMPUTATION } from '../coverage/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';

const dayRow = z.object({ revision: z.number(), at: z.date(), counted: z.boolean() });
/** A day of the past on which something changed: the revision that its last change made. */
export type Day = z.infer<typeof dayRow>;

/** The days (UTC) before this one on which a project changed, in their order, and whether this code counted what it came to then. */
export function daysOf(work: UnitOfWork, projectId: string, now: Date): Promise<Day[]> {
  return selectRows(
    work,
    dayRow,
    `SELECT day.revision, day.at AT TIME ZONE 'UTC' AS at, t.revision IS NOT NULL AS counted
     FROM (SELECT DISTINCT ON (c.at::date) c.revision, c.at FROM (SELECT revision, at AT TIME ZONE 'UTC' AS at FROM change WHERE project_id = $1) c
           WHERE c.at < date_trunc('day', $2::timestamptz AT TIME ZONE 'UTC') ORDER BY c.at::date, c.revision DESC) day
       LEFT JOIN trend_point t ON t.project_id = $1 AND t.revision = day.revision AND t.computation = $3
     ORDER BY day.revision`,
    [projectId, now, COMPUTATION],
  );
}
