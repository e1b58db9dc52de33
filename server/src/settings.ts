import { z } from 'zod';

/** What `npm start` tells the server, through the environment. */
const settingsSchema = z.object({
  DATABASE_URL: z.string().regex(/^postgres(ql)?:\/\//, 'must be a postgres:// address'),
  HOST: z.string().min(1).default('127.0.0.1'),
  PORT: z.coerce.number().int().min(0).max(65_535).default(3210),
  CADERNO_WEB: z.string().optional(),
  CADERNO_DEMO: z.string().optional(),
  CADERNO_DEMO_TRACKER: z.url().optional(),
  CADERNO_FRESH: z.enum(['0', '1']).default('0'),
  LOG_LEVEL: z.enum(['debug', 'info', 'warn', 'error', 'silent']).default('warn'),
});

export interface Settings {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  readonly webFolder: string | null;
  /** Folder of the demo to load into an empty installation; null: none. */
  readonly demoFolder: string | null;
  /** Where the demo's story tracker is; null: where its settings say. */
  readonly demoTracker: string | null;
  /** Remove everything of ours first. */
  readonly fresh: boolean;
  readonly logLevel: string;
}

/** @throws ZodError when a setting cannot be understood. */
export function readSettings(environment: NodeJS.ProcessEnv): Settings {
  const given = settingsSchema.parse(environment);
  return {
    databaseUrl: given.DATABASE_URL,
    host: given.HOST,
    port: given.PORT,
    webFolder: given.CADERNO_WEB ?? null,
    demoFolder: given.CADERNO_DEMO ?? null,
    demoTracker: given.CADERNO_DEMO_TRACKER ?? null,
    fresh: given.CADERNO_FRESH === '1',
    logLevel: given.LOG_LEVEL,
  };
}
