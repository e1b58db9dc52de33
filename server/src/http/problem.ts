import { randomUUID } from 'node:crypto';
import { STATUS_OF_REFUSAL, refusalSentence, type Refusal } from '@caderno/contract';
import { BaseError, ConnectionError, DatabaseError } from 'sequelize';
import { DomainError } from '../domainError.ts';
import type { Log } from './log.ts';

/** SQLSTATE classes and codes that mean the database is going away or not there. */
const GONE = /^(57P0[1-3]|08...|53300|25006)$/;
const GONE_ERRNO = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ENOTFOUND', 'ETIMEDOUT'];
/** Waited too long for a lock, took too long, or two waited for each other: the same may be taken a little later. */
const BUSY = ['55P03', '57014', '40P01'];
/** Ours, and PostgreSQL's: no room on the disk; it may also panic at its log and word it only. */
const DISK_FULL = ['ENOSPC', '53100'];

/** Turns anything thrown into a refusal. Faults of ours are logged with a reference and shown only by it. */
export function refusalOf(error: unknown, log: Log): Refusal {
  if (error instanceof DomainError) return error.refusal;
  if (isDiskFull(error)) {
    log.error({ err: error }, 'the disk is full: free some space; saves are refused until then');
    return { code: 'disk_full' };
  }
  if (errorChain(error).some((e) => 'code' in e && BUSY.includes(String(e.code)))) {
    log.warn({ err: error }, 'a command waited too long in the database');
    return { code: 'project_busy', seconds: 2 };
  }
  if (isDatabaseGone(error)) {
    log.warn({ err: error }, 'the database does not answer');
    return { code: 'database_unavailable' };
  }
  const reference = randomUUID().slice(0, 8);
  log.error({ reference, err: error }, 'fault');
  return { code: 'fault', reference };
}

/** RFC 9457 problem details of a refusal: the facts lie beside the standard members. */
export function problemResponse(refusal: Refusal): Response {
  const status = STATUS_OF_REFUSAL[refusal.code];
  const problem = { type: `urn:caderno:${refusal.code}`, title: refusal.code.replaceAll('_', ' '), status, detail: refusalSentence(refusal), ...refusal };
  return new Response(JSON.stringify(problem), { status, headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store', ...retryHeaders(refusal), ...closingHeaders(refusal) } });
}

/** RFC 9110, 10.2.3: when it is worth trying again. */
function retryHeaders(refusal: Refusal): Record<string, string> {
  switch (refusal.code) {
    case 'too_many_attempts':
    case 'too_much_at_once':
    case 'project_busy':
      return { 'retry-after': String(refusal.seconds) };
    case 'server_stopping':
    case 'database_unavailable':
      return { 'retry-after': '5' };
    case 'disk_full':
      return { 'retry-after': '30' };
    default:
      return {};
  }
}

/** What is still to come of a body that is refused is not read. */
function closingHeaders({ code }: Refusal): Record<string, string> {
  return STATUS_OF_REFUSAL[code] === 413 || code === 'body_too_slow' || code === 'server_stopping' ? { connection: 'close' } : {};
}

export function isDiskFull(error: unknown): boolean {
  return errorChain(error).some((e) => ('code' in e && DISK_FULL.includes(String(e.code))) || /No space left on device/.test(e.message));
}

export function isDatabaseGone(error: unknown): boolean {
  return errorChain(error).some((e) => {
    if (e instanceof ConnectionError) return true;
    // Across the worker's border classes are lost; names and codes are not.
    const code = 'code' in e ? String(e.code) : '';
    const named = /^Sequelize(Connection|HostNot|AccessDenied|InvalidConnection)/.test(e.name);
    return named || GONE.test(code) || GONE_ERRNO.includes(code) || /Connection terminated|Client has encountered a connection error/.test(e.message);
  });
}

/** An error and what it wraps. */
function errorChain(error: unknown): Error[] {
  if (!(error instanceof Error)) return [];
  const inner = error instanceof DatabaseError || error instanceof BaseError || 'parent' in error ? (error as { parent?: unknown }).parent : undefined;
  return [error, ...(inner === error ? [] : errorChain(inner))];
}
