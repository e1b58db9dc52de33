import { parseArtefactId } from '@caderno/core/artefacts';
import { COMMAND_ID_HEADER, LIMITS, api, bytesBody, fileResponse, placedIssues, type AnyEndpoint, type FileAnswer, type Operation } from '@caderno/contract';
import type { Context, Hono } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { z } from 'zod';
import { markBroken } from '../artefacts/index.ts';
import { inTransaction, type UnitOfWork } from '../database/index.ts';
import { SESSION_COOKIE, SESSION_DAYS, personOfSession, type SignedIn } from '../people/index.ts';
import { DomainError } from '../domainError.ts';
import { apartHandlers, isApart, type ApartHandler, type ApartOperation } from './apart.ts';
import { AtOnce } from './atOnce.ts';
import { announcedLength, readBody, refuseAnnounced, saveBody, type SavedBody } from './body.ts';
import type { Admitted, Call, Parts } from './context.ts';
import { admit, refuseForgedOrigin } from './guard.ts';
import { handlers, type Handler, type HeldOperation } from './handlers.ts';
import { addressOf } from './proxies.ts';
import { answerOnce, keepAnswer, keptAnswer, type NamedCommand } from './retries.ts';

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
    return typeof answer === 'string' ? c.body(answer, 200, { 'content-type': 'application/json', 'cache-control': 'no-store' }) : fileAnswer(answer);
  } catch (error) {
    if (error instanceof DomainError && error.refusal.code === 'artefact_broken') await noteBroken(serving, error.refusal);
    throw error;
  }
}

/** JSON as it is sent, or a file. */
type Served = string | FileAnswer;

/** Answers that hold what is stored nowhere readable. */
const NEVER_KEPT: ReadonlySet<Operation> = new Set(['revealConstant', 'makeResetLink']);

/** An operation that works in one transaction, from admission to answer. */
async function serveHeld(serving: Serving, name: HeldOperation, limit: number): Promise<Served> {
  const { c, parts, endpoint } = serving;
  const hasBody = !(endpoint.body instanceof z.ZodUndefined);
  if (hasBody) refuseOtherTypes(c, endpoint);
  if (hasBody && announcedLength(c) > LIMITS.request) await admitted(serving);
  const sent = hasBody ? await readBody(c, limit, tooLarge(name, limit)) : null;
  const handler = handlers[name] as Handler<HeldOperation>;
  return inTransaction(parts.db, async (work): Promise<Served> => {
    // Who calls is settled before what they send is looked at, so that strangers learn nothing from error messages.
    const call: Call = { ...(await admittedIn(work, serving)), work };
    const carryOut = (): Promise<unknown> => handler(inputOf(c, endpoint, sent) as never, call);
    if (endpoint.response === fileResponse) return (await carryOut()) as FileAnswer;
    const command = commandOf(call, serving);
    const answer = async (): Promise<string> => JSON.stringify(await carryOut());
    return command === null ? answer() : answerOnce(work, command, answer);
  });
}

/** What a person may have under way of what takes long: a page asks several questions at once, and few files are read. */
const QUESTIONS = new AtOnce(24);
const FILES = new AtOnce(4);

/** An operation that works or waits for long: it holds no transaction and takes one only where it needs it. */
async function serveApart(serving: Serving, name: ApartOperation, limit: number): Promise<Served> {
  const { parts } = serving;
  const call = await admitted(serving);
  const { handle, line } = apartHandlers[name] as { readonly handle: ApartHandler<ApartOperation>; readonly line: 'questions' | 'files' };
  const whose = call.person?.id ?? call.remote;
  return (line === 'files' ? FILES : QUESTIONS).run(whose, async () => {
    const command = commandOf(call, serving);
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

/** The command a call carries out, when its answer is to be kept for whoever sends it again. */
function commandOf({ commandId, person }: Admitted, { name, endpoint }: Serving): NamedCommand | null {
  if (endpoint.method === 'GET' || commandId === null || person === null || NEVER_KEPT.has(name)) return null;
  return { id: commandId, person: person.id, operation: name };
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

function inputOf(c: Context, endpoint: AnyEndpoint, sent: string | null): { params: unknown; query: unknown; body: unknown } {
  return {
    params: parse(endpoint.params, c.req.param(), 'address'),
    query: parse(endpoint.query, c.req.query(), 'query'),
    body: sent === null ? undefined : parse(endpoint.body, parseJson(sent), ''),
  };
}

/** Who calls, settled in a transaction of its own. */
function admitted(serving: Serving): Promise<Admitted> {
  return inTransaction(serving.parts.db, (work) => admittedIn(work, serving));
}

async function admittedIn(work: UnitOfWork, { c, parts, endpoint, session }: Serving): Promise<Admitted> {
  const person = await callerOf(work, parts, session.token);
  const membership = await admit(work, endpoint.access, person, c.req.param('project') ?? null);
  return { parts, person, membership, ifMatch: ifMatchOf(c), commandId: commandIdOf(c), session, remote: remoteOf(c, parts), agent: (c.req.header('user-agent') ?? '').slice(0, 300) };
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

export async function callerOf(work: UnitOfWork, parts: Pick<Parts, 'demoSignIn'>, token: string | null): Promise<SignedIn | null> {
  return token === null ? null : personOfSession(work, token, parts.demoSignIn);
}

function sessionOf(c: Context, parts: Parts): Call['session'] & { write(): void } {
  let next: { token: string | null } | null = null;
  return {
    token: getCookie(c, SESSION_COOKIE) ?? null,
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

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (cause) {
    throw new DomainError({ code: 'body_unreadable' }, { cause });
  }
}

function parse<T>(schema: z.ZodType<T>, value: unknown, part: string): T {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  throw new DomainError({ code: 'request_invalid', issues: placedIssues(result.error, part) });
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
