import { COMMAND_ID_HEADER, LIMITS, api, bytesBody, fileResponse, type AnyEndpoint, type FileAnswer, type Operation } from '@caderno/contract';
import { getConnInfo } from '@hono/node-server/conninfo';
import type { Context, Hono } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { z } from 'zod';
import { inTransaction, type Work } from '../database/index.ts';
import { SESSION_COOKIE, SESSION_DAYS, noteFailure, personOfSession, type SignedIn } from '../people/index.ts';
import { Refused } from '../refused.ts';
import type { Call, Parts } from './context.ts';
import { admit, refuseForgedOrigin } from './guard.ts';
import { handlers, type Handler } from './handlers.ts';

/** Mounts every operation of the contract. */
export function mountApi(app: Hono, parts: Parts): void {
  for (const [name, endpoint] of Object.entries<AnyEndpoint>(api)) {
    app.on(endpoint.method, endpoint.path, (c) => serve(c, parts, name as Operation, endpoint));
  }
}

/** Admit, parse once, handle, answer: in one transaction. The body is read before, so that a slow sender holds none. */
async function serve(c: Context, parts: Parts, name: Operation, endpoint: AnyEndpoint): Promise<Response> {
  refuseForgedOrigin(c);
  const session = sessionOf(c);
  const sent = endpoint.body instanceof z.ZodUndefined ? undefined : endpoint.body === bytesBody ? await readBytes(c) : await readBody(c);
  const handler = handlers[name] as Handler<Operation>;
  try {
    const answer = await inTransaction(parts.db, async (work) => {
      // Who calls is settled before what they send is looked at, so that strangers learn nothing from error messages.
      const call = await callOf(c, parts, work, endpoint, session);
      return handler(inputOf(c, endpoint, sent) as never, call);
    });
    // Set only now: a transaction that failed has started no session.
    session.write();
    return endpoint.response === fileResponse ? fileAnswer(answer as FileAnswer) : c.json(answer as object, 200, { 'cache-control': 'no-store' });
  } catch (error) {
    if (name === 'signIn' && error instanceof Refused && error.refusal.code === 'sign_in_failed') await countFailure(c, parts, inputOf(c, endpoint, sent).body);
    throw error;
  }
}

function inputOf(c: Context, endpoint: AnyEndpoint, sent: Sent): { params: unknown; query: unknown; body: unknown } {
  return {
    params: parse(endpoint.params, c.req.param(), 'address'),
    query: parse(endpoint.query, c.req.query(), 'query'),
    body: sent === undefined ? undefined : parse(endpoint.body, typeof sent === 'string' ? parseJson(sent) : sent, ''),
  };
}

async function callOf(c: Context, parts: Parts, work: Work, endpoint: AnyEndpoint, session: Call['session']): Promise<Call> {
  const person = await callerOf(work, session.token);
  const membership = await admit(work, endpoint.access, person, c.req.param('project') ?? null);
  return { parts, work, person, membership, ifMatch: ifMatchOf(c), commandId: commandIdOf(c), session, remote: remoteOf(c) };
}

async function countFailure(c: Context, parts: Parts, body: unknown): Promise<void> {
  const email = typeof body === 'object' && body !== null && 'email' in body ? ` ${String(body.email).toLowerCase()}` : '';
  await inTransaction(parts.db, (work) => noteFailure(work, `${remoteOf(c)}${email}`));
}

export async function callerOf(work: Work, token: string | null): Promise<SignedIn | null> {
  return token === null ? null : personOfSession(work, token);
}

function sessionOf(c: Context): Call['session'] & { write(): void } {
  let next: { token: string | null } | null = null;
  return {
    token: getCookie(c, SESSION_COOKIE) ?? null,
    set: (token) => {
      next = { token };
    },
    write: () => {
      if (next === null) return;
      if (next.token === null) deleteCookie(c, SESSION_COOKIE, { path: '/' });
      else setCookie(c, SESSION_COOKIE, next.token, { httpOnly: true, sameSite: 'Strict', path: '/', maxAge: SESSION_DAYS * 86_400, secure: isSecure(c) });
    },
  };
}

function isSecure(c: Context): boolean {
  return c.req.header('x-forwarded-proto') === 'https' || new URL(c.req.url).protocol === 'https:';
}

/** What came as body: text to be read as JSON, or the bytes of a file. */
type Sent = string | Uint8Array | undefined;

async function readBytes(c: Context): Promise<Uint8Array> {
  if (Number(c.req.header('content-length') ?? '0') > LIMITS.file) throw new Refused({ code: 'file_too_large', limit: LIMITS.file });
  const bytes = new Uint8Array(await c.req.arrayBuffer());
  if (bytes.length > LIMITS.file) throw new Refused({ code: 'file_too_large', limit: LIMITS.file });
  return bytes;
}

function fileAnswer({ name, type, bytes }: FileAnswer): Response {
  const headers = { 'content-type': type, 'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`, 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' };
  return new Response(Buffer.from(bytes), { status: 200, headers });
}

async function readBody(c: Context): Promise<string> {
  if (!(c.req.header('content-type') ?? '').startsWith('application/json')) throw new Refused({ code: 'body_type_unsupported', expected: 'application/json' });
  if (Number(c.req.header('content-length') ?? '0') > LIMITS.body) throw new Refused({ code: 'body_too_large', limit: LIMITS.body });
  const text = await c.req.text();
  if (text.length > LIMITS.body) throw new Refused({ code: 'body_too_large', limit: LIMITS.body });
  return text;
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (cause) {
    throw new Refused({ code: 'body_unreadable' }, { cause });
  }
}

const MOST_ISSUES = 20;

function parse<T>(schema: z.ZodType<T>, value: unknown, part: string): T {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const issues = result.error.issues.slice(0, MOST_ISSUES).map(({ path, message }) => ({ path: [part, ...path].filter((p) => p !== '').join('.'), message }));
  throw new Refused({ code: 'request_invalid', issues });
}

function ifMatchOf(c: Context): number | null {
  const version = /^"?(\d{1,9})"?$/.exec(c.req.header('if-match') ?? '')?.[1];
  return version === undefined ? null : Number(version);
}

function commandIdOf(c: Context): string | null {
  const id = c.req.header(COMMAND_ID_HEADER);
  return id === undefined ? null : parse(z.uuid(), id, COMMAND_ID_HEADER);
}

function remoteOf(c: Context): string {
  return c.env !== undefined && 'incoming' in c.env ? (getConnInfo(c).remote.address ?? 'unknown') : 'local';
}
