import { z } from 'zod';
import { mailStandingSchema } from './mail.ts';

const count = z.int().min(0);

/** How a server and the database behind it stand, for administrators. */
export const serverStateSchema = z.object({
  version: z.string(),
  startedAt: z.iso.datetime(),
  /** Servers that hear of changes in this database. */
  servers: count,
  /** People who look at a project through this server, and on how many pages. */
  people: count,
  pages: count,
  imports: z.object({ running: count, waiting: count }),
  /** Projects whose coverage is behind their changes. */
  coverageBehind: count,
  /** Bytes of the database, and of the attached files in it. */
  bytes: count,
  attachmentBytes: count,
  /** When `npm run backup` last went through; null: never. */
  lastBackup: z.iso.datetime().nullable(),
  mail: mailStandingSchema,
});
/** See {@link serverStateSchema}. */
export type ServerState = z.infer<typeof serverStateSchema>;
