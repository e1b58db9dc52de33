import { z } from 'zod';
import type { FilesPlace } from './files/index.ts';
import type { MailPlace } from './mail/index.ts';
import { LOOPBACK_NAMES, Proxies, isNet } from './http/index.ts';
import type { DemoSignIn } from './people/index.ts';

const databaseAddress = z.string().regex(/^postgres(ql)?:\/\//, 'must be a postgres:// address');

/** What `npm start` tells the server, through the environment. */
const settingsSchema = z.object({
  DATABASE_URL: databaseAddress,
  DATABASE_DIRECT_URL: databaseAddress.optional(),
  HOST: z.string().min(1).default('127.0.0.1'),
  PORT: z.coerce.number().int().min(0).max(65_535).default(3210),
  CADERNO_WEB: z.string().optional(),
  CADERNO_DEMO: z.string().optional(),
  CADERNO_DEMO_TRACKER: z.url().optional(),
  CADERNO_FRESH: z.enum(['0', '1']).default('0'),
  CADERNO_DEMO_OPEN: z.enum(['0', '1']).default('0'),
  CADERNO_HOSTS: z.string().default(''),
  CADERNO_PROXY: z.string().default('0').refine((text) => text === '0' || text === '1' || listed(text).every(isNet), 'must be 0, 1, or the addresses of proxies'),
  CADERNO_OUTSIDE_HOSTS: z.string().default(''),
  CADERNO_KEY: z.base64().refine((key) => Buffer.from(key, 'base64').length === 32, 'must be 32 bytes in base64').optional(),
  CADERNO_KEY_FILE: z.string().optional(),
  CADERNO_BUCKET: z.string().min(1).optional(),
  CADERNO_BUCKET_ENDPOINT: z.url({ protocol: /^https?$/ }).optional(),
  CADERNO_BUCKET_REGION: z.string().min(1).default('us-east-1'),
  CADERNO_MAIL: z.url({ protocol: /^smtps?$/ }).optional(),
  CADERNO_MAIL_FROM: z.string().min(3).max(200).optional(),
  CADERNO_MAIL_PAGE: z.url({ protocol: /^https?$/ }).optional(),
  CADERNO_ADDRESS: z.url({ protocol: /^https?$/ }).optional(),
  CADERNO_METRICS_TOKEN: z.string().min(16).optional(),
  LOG_LEVEL: z.enum(['debug', 'info', 'warn', 'error', 'silent']).default('warn'),
}).refine((given) => given.CADERNO_MAIL === undefined || given.CADERNO_ADDRESS !== undefined || isLoopback(given.HOST), { path: ['CADERNO_ADDRESS'], message: 'is needed with CADERNO_MAIL: links in mails lead there, as https://notes.example' });

export interface Settings {
  readonly databaseUrl: string;
  /** The same database, without a pool of connections in between. */
  readonly directUrl: string;
  readonly host: string;
  readonly port: number;
  readonly webFolder: string | null;
  /** Folder of the demo to load into an empty installation; null: none. */
  readonly demoFolder: string | null;
  /** Where the demo's story tracker is; null: where its settings say. */
  readonly demoTracker: string | null;
  /** Remove everything of ours first. */
  readonly fresh: boolean;
  readonly demoSignIn: DemoSignIn;
  /** Names under which the server may be called. */
  readonly hosts: ReadonlySet<string>;
  readonly proxies: Proxies;
  readonly outsideHosts: readonly string[];
  /** The key that secrets are sealed with, in base64, or the file it is in. */
  readonly key: string | null;
  readonly keyFile: string | null;
  /** Where mails go; null: none are sent. */
  readonly mail: MailPlace | null;
  /** The word by which others than this machine may read the metrics. */
  readonly metricsToken: string | null;
  /** The bucket that pictures and files are kept in; null: they are in the database. */
  readonly filesPlace: FilesPlace;
  readonly logLevel: string;
}

/** @throws ZodError when a setting cannot be understood. */
export function readSettings(environment: NodeJS.ProcessEnv): Settings {
  const given = settingsSchema.parse(environment);
  return {
    databaseUrl: given.DATABASE_URL,
    directUrl: given.DATABASE_DIRECT_URL ?? given.DATABASE_URL,
    host: given.HOST,
    port: given.PORT,
    webFolder: given.CADERNO_WEB ?? null,
    demoFolder: given.CADERNO_DEMO ?? null,
    demoTracker: given.CADERNO_DEMO_TRACKER ?? null,
    fresh: given.CADERNO_FRESH === '1',
    demoSignIn: given.CADERNO_DEMO_OPEN === '1' ? 'always' : isLoopback(given.HOST) ? 'whileAlone' : 'never',
    hosts: new Set([...LOOPBACK_NAMES, given.HOST.includes(':') ? `[${given.HOST}]` : given.HOST.toLowerCase(), ...listed(given.CADERNO_HOSTS)]),
    proxies: new Proxies(proxiesOf(given.CADERNO_PROXY)),
    outsideHosts: [...listed(given.CADERNO_OUTSIDE_HOSTS), ...(given.CADERNO_DEMO_TRACKER === undefined ? [] : [new URL(given.CADERNO_DEMO_TRACKER).host])],
    key: given.CADERNO_KEY ?? null,
    keyFile: given.CADERNO_KEY_FILE ?? null,
    mail: mailOf(given),
    metricsToken: given.CADERNO_METRICS_TOKEN ?? null,
    filesPlace: given.CADERNO_BUCKET === undefined ? null : { bucket: given.CADERNO_BUCKET, endpoint: given.CADERNO_BUCKET_ENDPOINT ?? null, region: given.CADERNO_BUCKET_REGION },
    logLevel: given.LOG_LEVEL,
  };
}

/** Links in mails lead to where people reach Caderno, which only who starts it knows once others than this machine do. */
function mailOf({ CADERNO_MAIL: server, CADERNO_MAIL_FROM, CADERNO_MAIL_PAGE, CADERNO_ADDRESS, HOST, PORT }: z.infer<typeof settingsSchema>): MailPlace | null {
  if (server === undefined) return null;
  const address = (CADERNO_ADDRESS ?? `http://${HOST.includes(':') ? `[${HOST}]` : HOST}:${PORT}`).replace(/\/+$/, '');
  return { server, address, from: CADERNO_MAIL_FROM ?? `Caderno <caderno@${new URL(address).hostname}>`, page: CADERNO_MAIL_PAGE ?? null };
}

function listed(text: string): string[] {
  return text.split(/[\s,]+/).filter((name) => name !== '').map((name) => name.toLowerCase());
}

/** `1`: a proxy on this machine. */
function proxiesOf(text: string): readonly string[] {
  if (text === '0') return [];
  return text === '1' ? ['127.0.0.0/8', '::1'] : listed(text);
}

function isLoopback(host: string): boolean {
  return host === 'localhost' || host === '::1' || /^127\./.test(host);
}
