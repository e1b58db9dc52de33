import type { ServerState } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readMailStanding, type MailPlace } from '../mail/index.ts';

const storedRow = z.object({
  servers: z.number(),
  running: z.number(),
  waiting: z.number(),
  coverageBehind: z.number(),
  bytes: z.number(),
  attachmentBytes: z.number(),
  lastBackup: z.date().nullable(),
});

/** How the database stands, and what the server says of itself. */
export async function readServerState(work: UnitOfWork, server: Pick<ServerState, 'version' | 'startedAt' | 'people' | 'pages'>, mail: MailPlace | null): Promise<ServerState> {
  const [stored] = await selectRows(
    work,
    storedRow,
    `SELECT (SELECT count(*)::int FROM pg_stat_activity WHERE datname = current_database() AND application_name = 'caderno changes') AS servers,
       (SELECT count(*)::int FROM import_file WHERE state = 'running') AS running,
       (SELECT count(*)::int FROM import_file WHERE state = 'waiting') AS waiting,
       (SELECT count(*)::int FROM project p JOIN coverage_state s ON s.project_id = p.id WHERE s.revision < p.revision) AS "coverageBehind",
       pg_database_size(current_database())::float8 AS bytes,
       (SELECT coalesce(sum(size), 0)::float8 FROM attachment) AS "attachmentBytes",
       (SELECT at FROM server_mark WHERE name = 'backup') AS "lastBackup"`,
  );
  if (stored === undefined) throw new Error('The state of the server is one row: expected it, got none');
  const { running, waiting, lastBackup, ...counts } = stored;
  return { ...server, ...counts, imports: { running, waiting }, lastBackup: lastBackup?.toISOString() ?? null, mail: await readMailStanding(work, mail) };
}
