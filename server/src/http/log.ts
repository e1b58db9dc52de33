import { pino, type Logger } from 'pino';

export type Log = Pick<Logger, 'info' | 'warn' | 'error'>;

/** Structured logs on standard error, so that standard output stays for the person who started it. */
export function createLog(level: string, destination: NodeJS.WritableStream | null = null): Logger {
  const options = { level, base: null, serializers: { err: describeError } };
  return destination === null ? pino(options, pino.destination(2)) : pino(options, destination);
}

/** What the log says of an error. Of those of the database only what names no value: their texts and members hold contents. */
export function describeError(error: unknown): object {
  if (!(error instanceof Error)) return { type: typeof error };
  const code = 'code' in error && typeof error.code === 'string' ? error.code : undefined;
  const database = fromDatabase(error);
  const stack = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line)).map((line) => line.trim());
  return { type: error.name, code, ...(database ?? { message: error.message }), stack, ...(error.cause === undefined ? {} : { cause: describeError(error.cause) }) };
}

const NAMES = ['code', 'severity', 'schema', 'table', 'column', 'constraint', 'routine'] as const;

/** The names that PostgreSQL tells of an error; null when it is none of the database's. */
function fromDatabase(error: Error): object | null {
  const inner: unknown = 'parent' in error ? error.parent : 'severity' in error ? error : null;
  const told = inner instanceof Error ? inner : null;
  if (told === null && !error.name.startsWith('Sequelize')) return null;
  return { database: Object.fromEntries(NAMES.flatMap((name) => (told !== null && name in told ? [[name, (told as unknown as Record<string, unknown>)[name]]] : []))) };
}
