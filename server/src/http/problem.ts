import { randomUUID } from 'node:crypto';
import { STATUS_OF_REFUSAL, refusalSentence, type Refusal } from '@caderno/contract';
import { BaseError, ConnectionError, DatabaseError } from 'sequelize';
import { Refused } from '../refused.ts';
import type { Log } from './log.ts';

/** SQLSTATE classes and codes that mean the database is going away or not there. */
const GONE = /^(57P0[1-3]|08...|53300|25006)$/;
const GONE_ERRNO = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ENOTFOUND', 'ETIMEDOUT'];

/** Turns anything thrown into a refusal. Faults of ours are logged with a reference and shown only by it. */
export function refusalOf(error: unknown, log: Log): Refusal {
  if (error instanceof Refused) return error.refusal;
  if (isDatabaseGone(error)) return { code: 'database_unavailable' };
  const reference = randomUUID().slice(0, 8);
  log.error({ reference, err: error }, 'fault');
  return { code: 'fault', reference };
}

/** RFC 9457 problem details of a refusal: the facts lie beside the standard members. */
export function problemResponse(refusal: Refusal): Response {
  const status = STATUS_OF_REFUSAL[refusal.code];
  const problem = { type: `urn:caderno:${refusal.code}`, title: refusal.code.replaceAll('_', ' '), status, detail: refusalSentence(refusal), ...refusal };
  return new Response(JSON.stringify(problem), { status, headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' } });
}

export function isDatabaseGone(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  if (error instanceof DatabaseError && error.parent instanceof Error) return isDatabaseGone(error.parent);
  // Across the worker's border classes are lost; names and codes are not.
  if (!(error instanceof Error)) return false;
  const code = 'code' in error ? String(error.code) : '';
  const named = /^Sequelize(Connection|HostNot|AccessDenied|InvalidConnection)/.test(error.name);
  return named || GONE.test(code) || GONE_ERRNO.includes(code) || /Connection terminated|Client has encountered a connection error/.test(error.message) || (error instanceof BaseError && 'parent' in error && isDatabaseGone(error.parent));
}
