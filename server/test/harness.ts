import { afterAll, beforeAll, beforeEach } from '@jest/globals';
import { randomBytes, randomUUID } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import { getRequestListener } from '@hono/node-server';
import { API_ROOT, ROLES, api, type BodyOf, type KindAndContent, type Operation, type ParamsOf, type QueryInputOf, type Refusal, type ResponseOf, type Role } from '@caderno/contract';
import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import { EMPTY_CASE } from '@caderno/core/cases';
import { EMPTY_CONDITION } from '@caderno/core/conditions';
import pg from 'pg';
import type { Sequelize } from 'sequelize';
import { inTransaction, migrate } from '../src/database/index.ts';
import { createApp, createLog, makeParts, type Parts, type PartsGiven } from '../src/http/index.ts';
import { createDemoPerson, joinProject, startSession } from '../src/people/index.ts';
import { createProject } from '../src/projects/index.ts';

const log = createLog('silent');

/** A database of its own on the test run's PostgreSQL. */
export async function makeDatabase(): Promise<{ readonly url: string; drop(): Promise<void> }> {
  const root = process.env.CADERNO_TEST_DATABASE;
  if (root === undefined) throw new Error('Server tests run under Jest’s global setup, which starts PostgreSQL');
  const name = `t${randomBytes(6).toString('hex')}`;
  await onServer(root, `CREATE DATABASE ${name}`);
  return { url: root.replace(/\/postgres$/, `/${name}`), drop: () => onServer(root, `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`) };
}

export async function onServer(url: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(sql);
  await client.end();
}

export interface Answer<T> {
  readonly status: number;
  readonly data: T;
  readonly refusal: Refusal;
}

export interface Caller {
  <N extends Operation>(name: N, input?: { params?: Partial<ParamsOf<N>>; query?: QueryInputOf<N>; body?: BodyOf<N> }, headers?: Record<string, string>): Promise<Answer<ResponseOf<N>>>;
}

/** One server of Caderno on a database, called without a network; `listen` gives it one. */
export interface TestServer {
  readonly parts: Parts;
  readonly db: Sequelize;
  fetch(path: string, init?: RequestInit): Promise<Response>;
  /** Calls as the holder of a session token; the project is `p` unless the params say otherwise. */
  as(token: string | null): Caller;
  listen(): Promise<{ readonly origin: string; close(): Promise<void> }>;
  close(): Promise<void>;
}

export async function startServer(url: string, given: Partial<PartsGiven> = {}): Promise<TestServer> {
  const { parts, close } = makeParts({ databaseUrl: url, log, hosts: new Set(['caderno.test', '127.0.0.1']), demoSignIn: 'always', outsideHosts: ['127.0.0.1:*'], ...given });
  const { db } = parts;
  await migrate(db);
  await parts.feed.start();
  const app = createApp(parts);
  const fetch = async (path: string, init: RequestInit = {}): Promise<Response> => app.fetch(new Request(`http://caderno.test${path}`, init));
  return {
    parts,
    db,
    fetch,
    as: (token) => callerOf(fetch, token),
    listen: async () => {
      const server = createServer(getRequestListener(app.fetch));
      await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
      return {
        origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
        close: () => {
          server.closeAllConnections();
          return new Promise((resolve) => server.close(() => resolve()));
        },
      };
    },
    close,
  };
}

function callerOf(fetch: TestServer['fetch'], token: string | null): Caller {
  return async (name, input = {}, headers = {}) => {
    const { method, path } = api[name];
    const params: Record<string, unknown> = { project: 'p', ...input.params };
    const query = new URLSearchParams(Object.entries(input.query ?? {}).flatMap(([k, v]): [string, string][] => (v === undefined ? [] : [[k, String(v)]]))).toString();
    const response = await fetch(`${API_ROOT}${path.replaceAll(/:(\w+)/g, (_, p: string) => String(params[p]))}${query && `?${query}`}`, {
      method,
      headers: { ...(token === null ? {} : { cookie: `caderno_session=${token}` }), ...(input.body === undefined ? {} : { 'content-type': input.body instanceof Uint8Array ? 'application/octet-stream' : 'application/json' }), ...headers },
      body: input.body === undefined ? null : input.body instanceof Uint8Array ? Uint8Array.from(input.body) : JSON.stringify(input.body),
    });
    const data: unknown = await response.json();
    return { status: response.status, data: data as never, refusal: data as Refusal };
  };
}

/** Two servers on a database of their own with a project `p`, as every test of servers that work together needs them. */
export type TwoServers = Awaited<ReturnType<typeof startTwoServers>>;
export async function startTwoServers() {
  const database = await makeDatabase();
  const [server, other] = [await startServer(database.url), await startServer(database.url)];
  const project = await makeProject(server.db);
  const close = async (): Promise<void> => {
    await server.close();
    await other.close();
    await database.drop();
  };
  return { database, server, other, project, close };
}

/** A project `p` with a person of each role; answers their session tokens and ids. */
export async function makeProject(db: Sequelize, key = 'p'): Promise<Record<Role, string> & { readonly id: string; readonly people: Record<Role, string> }> {
  return inTransaction(db, async (work) => {
    const person = (job: string) => createDemoPerson(work, { name: `${job} of ${key}`, email: `${job}@${key}.example`, job, administrator: false });
    const people = { reader: await person('reader'), analyst: await person('analyst'), lead: await person('lead'), administrator: await person('administrator') };
    const { id } = await createProject(work, people.administrator, { key, name: key });
    for (const role of ['reader', 'analyst', 'lead'] as const) await joinProject(work, id, people[role], role);
    const token = (role: Role) => startSession(work, people[role]);
    return { reader: await token('reader'), analyst: await token('analyst'), lead: await token('lead'), administrator: await token('administrator'), id, people };
  });
}

export const requirement = (part: Partial<typeof EMPTY_REQUIREMENT> = {}): KindAndContent & { kind: 'requirement' } => ({ kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title: 'R', ...part } });
export const testCase = (part: Partial<typeof EMPTY_CASE> = {}): KindAndContent & { kind: 'case' } => ({ kind: 'case', content: { ...EMPTY_CASE, title: 'C', ...part } });
export const condition = (requirements: readonly `R-${number}`[], part: object = {}): KindAndContent & { kind: 'condition' } => ({
  kind: 'condition',
  content: { ...EMPTY_CONDITION, title: 'K', requirements: requirements.map((id) => ({ id, seenVersion: 1, anchor: null })), ...part },
});

/** A save with everything it takes. */
export function save(call: Caller, id: string, base: number, value: KindAndContent, note = '', commandId: string = randomUUID(), project = 'p') {
  return call('saveArtefact', { params: { project, id: id as `C-${number}` }, body: { ...value, note } }, { 'if-match': `"${base}"`, 'command-id': commandId });
}


/** Waits until something can be answered; null: not yet. */
export async function until<T>(what: () => T | null | Promise<T | null>, ms = 60_000): Promise<T> {
  for (let waited = 0; waited < ms; waited += 50) {
    const answer = await what();
    if (answer !== null) return answer;
    await sleep(50);
  }
  throw new Error(`Waited ${ms} ms in vain`);
}

/** The bytes of a PNG that says it has so many pixels. */
export function pngOf(width: number, height: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(45);
  const view = new DataView(bytes.buffer);
  bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  view.setUint32(8, 13);
  bytes.set(new TextEncoder().encode('IHDR'), 12);
  view.setUint32(16, width);
  view.setUint32(20, height);
  bytes.set([8, 2, 0, 0, 0], 24);
  return bytes;
}

/** A server with a database of its own for the tests of a file, and for each of them a project with people of every role who call in it. */
export function eachInProject(prefix: string) {
  let database: Awaited<ReturnType<typeof makeDatabase>>;
  let server: TestServer;
  let turn = 0;
  const now = { key: '' } as { key: string; server: TestServer; people: Record<Role, string>; sessions: Record<Role, string> } & Record<Role, Caller>;
  beforeAll(async () => {
    database = await makeDatabase();
    server = await startServer(database.url);
    now.server = server;
  });
  afterAll(async () => {
    await server.close();
    await database.drop();
  });
  beforeEach(async () => {
    const key = `${prefix}-${(turn += 1)}`;
    const made = await makeProject(server.db, key);
    const as = (session: string): Caller => (name, input = {}, headers = {}) => server.as(session)(name, { ...input, params: Object.assign({}, input.params, { project: key }) }, headers);
    Object.assign(now, { key, people: made.people, sessions: made }, Object.fromEntries(ROLES.map((role) => [role, as(made[role])])));
  });
  return now;
}
