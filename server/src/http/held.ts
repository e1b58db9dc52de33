import { api, fileResponse, placedIssues, type AnyEndpoint, type FileAnswer } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import type { z } from 'zod';
import { inTransaction, type UnitOfWork } from '../database/index.ts';
import { accessOfToken, isAccessToken, personOfSession, type DemoSignIn, type SignedIn } from '../people/index.ts';
import { DomainError } from '../domainError.ts';
import type { Call, HeldParts } from './context.ts';
import { admit } from './guard.ts';
import { handlers, type Handler, type HeldOperation, type HeldRequest } from './handlers.ts';
import { isHeavy } from './heavy.ts';
import type { OperationRequest, Sent } from './request.ts';
import { answerOnce, commandOf } from './retries.ts';

export function isHeld(request: OperationRequest): request is HeldRequest {
  return request.name in handlers;
}

/** JSON as it is sent, or a file. */
export type Served = string | FileAnswer;

/** Nothing was done: it is too much for the thread that serves everybody. */
export const HEAVY = Symbol('heavy');

/**
 * Carries out an operation in one transaction, from admission to answer. With `light` what would take long is not
 * begun, and answered with {@link HEAVY}.
 */
export function carryOutHeld(db: Sequelize, parts: HeldParts, request: HeldRequest, setSession: (token: string | null) => void, light: true): Promise<Served | typeof HEAVY>;
export function carryOutHeld(db: Sequelize, parts: HeldParts, request: HeldRequest, setSession: (token: string | null) => void, light: false): Promise<Served>;
export function carryOutHeld(db: Sequelize, parts: HeldParts, request: HeldRequest, setSession: (token: string | null) => void, light: boolean): Promise<Served | typeof HEAVY> {
  const endpoint: AnyEndpoint = api[request.name];
  const handler = handlers[request.name] as Handler<HeldOperation>;
  return inTransaction(db, async (work) => {
    // Who calls is settled before what they send is looked at, so that strangers learn nothing from error messages.
    const call: Call = { ...request, parts, ...(await admission(work, parts, endpoint, request.token, request.params.project ?? null)), session: { token: request.token, set: setSession }, work };
    if (light && (await isHeavy(work, request, call))) return HEAVY;
    const carryOut = (): Promise<unknown> => handler(parseSent(endpoint, request) as never, call);
    if (endpoint.response === fileResponse) return (await carryOut()) as FileAnswer;
    const command = commandOf(call, request.name, endpoint);
    const answer = async (): Promise<string> => JSON.stringify(await carryOut());
    return command === null ? answer() : answerOnce(work, command, answer);
  });
}

/** Who calls, and what they are in the project. @throws {DomainError} when they may not. */
export async function admission(work: UnitOfWork, { demoSignIn }: Pick<HeldParts, 'demoSignIn'>, endpoint: AnyEndpoint, token: string | null, project: string | null): Promise<Pick<Call, 'person' | 'membership'>> {
  if (token !== null && isAccessToken(token)) return admissionByToken(work, demoSignIn, endpoint, token, project);
  const person = await personBehind(work, token, demoSignIn);
  return { person, membership: await admit(work, endpoint, person, project) };
}

/** A program may do what its token allows, in the project of the token, and no more than its person may. */
async function admissionByToken(work: UnitOfWork, demoSignIn: DemoSignIn, endpoint: AnyEndpoint, token: string, project: string | null): Promise<Pick<Call, 'person' | 'membership'>> {
  if (endpoint.access === 'anyone') return { person: null, membership: null };
  const access = await accessOfToken(work, token, demoSignIn);
  if (access === null) throw new DomainError({ code: 'not_signed_in' });
  const needed = endpoint.token ?? null;
  if (needed === null || (needed === 'write' && access.scope === 'read')) throw new DomainError({ code: 'token_not_enough', needed });
  const membership = await admit(work, endpoint, access.person, project);
  if (membership?.projectId !== access.projectId) throw new DomainError({ code: 'token_not_enough', needed });
  return { person: access.person, membership };
}

/** Who a session token belongs to; null when it is nobody's. */
export async function personBehind(work: UnitOfWork, token: string | null, demoSignIn: DemoSignIn): Promise<SignedIn | null> {
  return token === null ? null : personOfSession(work, token, demoSignIn);
}

/** What is sent, by the schemas of the operation. @throws {DomainError} when it is not what they ask for. */
export function parseSent(endpoint: AnyEndpoint, { params, query, body }: Sent): { params: unknown; query: unknown; body: unknown } {
  return { params: parse(endpoint.params, params, 'address'), query: parse(endpoint.query, query, 'query'), body: body === null ? undefined : parse(endpoint.body, parseJson(body), '') };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (cause) {
    throw new DomainError({ code: 'body_unreadable' }, { cause });
  }
}

/** @throws {DomainError} that names what is wrong, and where. */
export function parse<T>(schema: z.ZodType<T>, value: unknown, part: string): T {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  throw new DomainError({ code: 'request_invalid', issues: placedIssues(result.error, part) });
}
