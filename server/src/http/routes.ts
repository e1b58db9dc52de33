import { parseArtefactId } from '@caderno/core/artefacts';
import { COMMAND_ID_HEADER, LIMITS, api, bytesBody, fileResponse, type AnyEndpoint, type FileAnswer, type Operation } from '@caderno/contract';
import type { Context, Hono } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { z } from 'zod';
import { markBroken } from '../artefacts/index.ts';
import { inTransaction, type UnitOfWork } from '../database/index.ts';
import { SESSION_COOKIE, SESSION_DAYS, isAccessToken } from '../people/index.ts';
import { DomainError } from '../domainError.ts';
import { apartHandlers, isApart, type ApartHandler, type ApartOperation } from './apart.ts';
import { AtOnce } from './atOnce.ts';
import { announcedLength, readBody, refuseAnnounced, saveBody, type SavedBody } from './body.ts';
import type { Admitted, Call, Parts } from './context.ts';
import { refuseForgedOrigin } from './guard.ts';
import type { HeldOperation, HeldRequest } from './handlers.ts';
import { HEAVY, admission, carryOutHeld, parse, parseSent, type Served } from './held.ts';
import type { Caller } from './request.ts';
import { addressOf } from './proxies.ts';
import { commandOf, keepAnswer, keptAnswer } from './retries.ts';

/** Mounts every operation of the contract. */
export function mountApi(app: Hono, parts: Parts): void {
  for (const [name, endpoint] of Object.entries<AnyEndpoint>(api)) {
    app.on(endpoint.method, endpoint.path, (c) => serve({ c, parts, name: name as Operation, endpoint, session: sessionOf(c, parts) }));
  }
}

interface Serving {
  readonly c: Context;
  readonly parts: Parts;
  readonly name: Operation;
  readonly endpoint: AnyEndpoint;
  readonly session: ReturnType<typeof sessionOf>;
}

/** Admit, read, parse once, handle, answer. Nobody's large body is read before it is known that they may send it. */
async function serve(serving: Serving): Promise<Response> {
  const { c, name, endpoint, session } = serving;
  refuseForgedOrigin(c);
  const limit = endpoint.most ?? LIMITS.request;
  refuseAnnounced(c, limit, tooLarge(name, limit));
  try {
    const answer = isApart(name) ? await serveApart(serving, name, limit) : await serveHeld(serving, name, limit);
    // Only now: what failed has started no session.
    session.write();
    return typeof answer === 'string' || answer instanceof Uint8Array ? c.body(answer, 200, { 'content-type': 'application/json', 'cache-control': 'no-store' }) : fileAnswer(answer);
  } catch (error) {
    if (error instanceof DomainError && error.refusal.code === 'artefact_broken') await noteBroken(serving, error.refusal);
    throw error;
  }
}

/** An operation that works in one transaction, from admission to answer; a large one in a thread. */
async function serveHeld(serving: Serving, name: HeldOperation, limit: number): Promise<Served | Uint8Array<ArrayBuffer>> {
  const { c, parts, endpoint, session } = serving;
  const hasBody = !(endpoint.body instanceof z.ZodUndefined);
  if (hasBody) refuseOtherTypes(c, endpoint);
  if (hasBody && announcedLength(c) > LIMITS.request) await admitted(serving);
  const body = hasBody ? await readBody(c, limit, tooLarge(name, limit)) : null;
  const request: HeldRequest = { name, params: c.req.param(), query: c.req.query(), body, ...callerOf(serving) };
  const answer = await carryOutHeld(parts.db, parts, request, session.set, true);
  return answer === HEAVY ? parts.heavy.carryOut({ request, at: parts.now() }) : answer;
}

/** What a person may have under way of what takes long: a page asks several questions at once, and few files are read. */
const QUESTIONS = new AtOnce(24);
const FILES = new AtOnce(4);

/** An operation that works or waits for long: it holds no transaction and takes one only where it needs it. */
async function serveApart(serving: Serving, name: ApartOperation, limit: number): Promise<Served> {
  const { parts, endpoint } = serving;
  const call = await admitted(serving);
  const { handle, line } = apartHandlers[name] as { readonly handle: ApartHandler<ApartOperation>; readonly line: 'questions' | 'files' };
  const whose = call.person?.id ?? call.remote;
  return (line === 'files' ? FILES : QUESTIONS).run(whose, async () => {
    const command = commandOf(call, name, endpoint);
    const kept = command === null ? null : await inTransaction(parts.db, (work) => keptAnswer(work, command));
    if (kept !== null) return kept;
    const answer = await carryOut(serving, limit, (input, saved) => handle(input as never, call, saved));
    if (command !== null && typeof answer === 'string') await inTransaction(parts.db, (work) => keepAnswer(work, command, answer));
    return answer;
  });
}

/** Reads the body, whichever it is, has it handled, and makes the answer of it. */
async function carryOut({ c, parts, name, endpoint }: Serving, limit: number, handle: (input: unknown, saved: SavedBody | null) => Promise<unknown>): Promise<Served> {
  if (endpoint.body === bytesBody) {
    const saved = await saveBody(c, parts.spool, limit, tooLarge(name, limit));
    return removing(saved, async () => JSON.stringify(await handle(inputOf(c, endpoint, null), saved)));
  }
  const hasBody = !(endpoint.body instanceof z.ZodUndefined);
  if (hasBody) refuseOtherTypes(c, endpoint);
  const answer = await handle(inputOf(c, endpoint, hasBody ? await readBody(c, limit, tooLarge(name, limit)) : null), null);
  return endpoint.response === fileResponse ? (answer as FileAnswer) : JSON.stringify(answer);
}

async function removing<T>(saved: SavedBody, action: () => Promise<T>): Promise<T> {
  try {
    return await action();
  } finally {
    await saved.remove();
  }
}

function tooLarge(name: Operation, limit: number): () => DomainError {
  return () => {
    if (name === 'uploadImport') return new DomainError({ code: 'file_too_large', limit });
    if (name === 'keepAttachment') return new DomainError({ code: 'attachment_too_large', limit });
    return new DomainError({ code: 'body_too_large', limit });
  };
}

function inputOf(c: Context, endpoint: AnyEndpoint, body: string | null): { params: unknown; query: unknown; body: unknown } {
  return parseSent(endpoint, { params: c.req.param(), query: c.req.query(), body });
}

/** Who calls, settled in a transaction of its own. */
function admitted(serving: Serving): Promise<Admitted> {
  return inTransaction(serving.parts.db, (work) => admittedIn(work, serving));
}

async function admittedIn(work: UnitOfWork, serving: Serving): Promise<Admitted> {
  const { c, parts, endpoint, session } = serving;
  return { parts, ...callerOf(serving), ...(await admission(work, parts, endpoint, session.token, c.req.param('project') ?? null)), session };
}

function callerOf({ c, parts, session }: Serving): Caller {
  return { token: session.token, ifMatch: ifMatchOf(c), commandId: commandIdOf(c), remote: remoteOf(c, parts), agent: (c.req.header('user-agent') ?? '').slice(0, 300) };
}

/** Lists say from now on that it cannot be read. */
async function noteBroken(serving: Serving, { id, version }: { readonly id: string; readonly version: number }): Promise<void> {
  const broken = parseArtefactId(id);
  await inTransaction(serving.parts.db, async (work) => {
    const { membership } = await admittedIn(work, serving);
    // Coverage may still count what it read before: it reads everything again.
    if (membership !== null && broken !== null && (await markBroken(work, membership.projectId, [{ ...broken, version }]))) serving.parts.coverage.forget(membership.projectId);
  });
}

function sessionOf(c: Context, parts: Parts): Call['session'] & { write(): void } {
  let next: { token: string | null } | null = null;
  return {
    token: bearerOf(c) ?? sessionIn(c),
    set: (token) => {
      next = { token };
    },
    write: () => {
      if (next === null) return;
      if (next.token === null) deleteCookie(c, SESSION_COOKIE, { path: '/' });
      else setCookie(c, SESSION_COOKIE, next.token, { httpOnly: true, sameSite: 'Strict', path: '/', maxAge: SESSION_DAYS * 86_400, secure: isSecure(c, parts) });
    },
  };
}

/** The session of a browser; an access token is not taken from there. */
function sessionIn(c: Context): string | null {
  const token = getCookie(c, SESSION_COOKIE) ?? null;
  return token !== null && isAccessToken(token) ? null : token;
}

/** The access token that a program sends; a session is not taken from there. */
function bearerOf(c: Context): string | null {
  const token = /^Bearer (\S{1,200})$/i.exec(c.req.header('authorization') ?? '')?.[1];
  return token !== undefined && isAccessToken(token) ? token : null;
}

/** Whether the browser speaks https with us, or with whoever passes it on. */
export function isSecure(c: Context, { proxies }: Pick<Parts, 'proxies'>): boolean {
  return proxies.passedOn(c) ? c.req.header('x-forwarded-proto') === 'https' : new URL(c.req.url).protocol === 'https:';
}

/** A browser keeps what never changes, for the person who may see it and for nobody in between. */
const FOR_EVER = 'private, max-age=31536000, immutable';

function fileAnswer({ name, type, bytes, neverChanges = false }: FileAnswer): Response {
  const headers = { 'content-type': type, 'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`, 'cache-control': neverChanges ? FOR_EVER : 'no-store', 'x-content-type-options': 'nosniff' };
  return new Response(bytes instanceof ReadableStream ? bytes : Buffer.from(bytes), { status: 200, headers });
}

function refuseOtherTypes(c: Context, endpoint: AnyEndpoint): void {
  if (endpoint.body === bytesBody) return;
  if (!(c.req.header('content-type') ?? '').startsWith('application/json')) throw new DomainError({ code: 'body_type_unsupported', expected: 'application/json' });
}

function ifMatchOf(c: Context): number | null {
  const version = /^"?(\d{1,9})"?$/.exec(c.req.header('if-match') ?? '')?.[1];
  return version === undefined ? null : Number(version);
}

function commandIdOf(c: Context): string | null {
  const id = c.req.header(COMMAND_ID_HEADER);
  return id === undefined ? null : parse(z.uuid(), id, COMMAND_ID_HEADER).toLowerCase();
}

/** Where a call comes from; by a proxy the last address it was passed on for, as anybody may write those before. */
export function remoteOf(c: Context, { proxies }: Pick<Parts, 'proxies'>): string {
  const passedOn = proxies.passedOn(c) ? c.req.header('x-forwarded-for')?.split(',').at(-1)?.trim() : undefined;
  if (passedOn !== undefined && passedOn !== '') return passedOn.slice(0, 60);
  return addressOf(c) ?? 'local';
}
