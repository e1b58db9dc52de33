import { pino, type Logger } from 'pino';

export type Log = Pick<Logger, 'info' | 'warn' | 'error'>;

/** Structured logs on standard error, so that standard output stays for the person who started it. */
export function createLog(level: string): Logger {
  return pino({ level, base: null }, pino.destination(2));
}
