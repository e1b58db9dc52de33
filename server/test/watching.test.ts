import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Writable } from 'node:stream';
import { inTransaction } from '../src/database/index.ts';
import { createLog, Proxies } from '../src/http/index.ts';
import { readServerState } from '../src/upkeep/index.ts';
import { makeDatabase, makeProject, onServer, requirement, startServer, until, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let written = '';

beforeAll(async () => {
  database = await makeDatabase();
  const log = createLog('info', new Writable({ write: (chunk, _, done) => ((written += String(chunk)), done()) }));
  server = await startServer(database.url, { log, proxies: new Proxies(['127.0.0.1']), metricsToken: 'a word of sixteen' });
  project = await makeProject(server.db);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const metrics = async (headers: Record<string, string>): Promise<Response> => server.fetch('/metrics', { headers });
const counted = async (name: string): Promise<number> => Number(new RegExp(`^${name.replaceAll(/[{}":/.]/g, String.raw`\$&`)} (\\S+)$`, 'm').exec(await (await metrics({})).text())?.[1] ?? 0);

test('every request is counted by its route, written down with its id, and nothing of what it carries is', async () => {
  const response = await server.fetch('/api/v1/projects/p/artefacts', { method: 'POST', headers: { cookie: `caderno_session=${project.analyst}`, 'content-type': 'application/json', 'x-request-id': 'from-the-proxy-1' }, body: JSON.stringify(requirement({ title: 'Nobody reads this in a log' })) });
  expect([response.status, response.headers.get('x-request-id')]).toEqual([200, 'from-the-proxy-1']);
  expect(await counted('caderno_request_seconds_count{route="POST /api/v1/projects/:project/artefacts",status="200"}')).toBe(1);
  const refused = await server.as(null)('readProject');
  expect([refused.status, await counted('caderno_request_seconds_count{route="GET /api/v1/projects/:project",status="401"}')]).toEqual([401, 1]);
  const lines = written.trim().split('\n').map((line) => JSON.parse(line) as { msg: string; id: string; route: string; status: number; ms: number });
  expect(lines.find((l) => l.id === 'from-the-proxy-1')).toMatchObject({ msg: 'request', route: 'POST /api/v1/projects/:project/artefacts', status: 200 });
  expect([written.includes('Nobody reads this'), written.includes(project.analyst)]).toEqual([false, false]);
  // A name that no proxy gives is not taken over.
  const forged = await server.fetch('/api/v1/session', { headers: { 'x-request-id': 'a b\u00e9' } });
  expect(forged.headers.get('x-request-id')).toMatch(/^[0-9a-f-]{36}$/);
});

test('what is open and waited for is counted: streams, connections, how late pages and coverage are told', async () => {
  const before = await counted('caderno_event_lag_seconds_count');
  const stream = await server.fetch('/api/v1/projects/p/events', { headers: { cookie: `caderno_session=${project.reader}` } });
  expect(await counted('caderno_event_streams')).toBe(1);
  await server.as(project.analyst)('createArtefact', { body: requirement() });
  await until(async () => ((await counted('caderno_event_lag_seconds_count')) > before && (await counted('caderno_coverage_lag_seconds_count')) > 0 ? true : null));
  expect(await counted('caderno_pool_connections')).toBeGreaterThan(0);
  expect(await counted('process_resident_memory_bytes')).toBeGreaterThan(1e7);
  await stream.body?.cancel();
  expect(await counted('caderno_event_streams')).toBe(0);
});

test('the counts are for this machine and whoever has the word', async () => {
  const stranger = { 'x-forwarded-for': '10.1.2.3' };
  expect([(await metrics({})).status, (await metrics(stranger)).status, (await metrics({ ...stranger, authorization: 'Bearer a word of sixteen' })).status, (await metrics({ ...stranger, authorization: 'Bearer a word of sixteem' })).status]).toEqual([200, 404, 200, 404]);
  // Somebody who says that they are passed on for this machine is still passed on.
  expect((await metrics({ 'x-forwarded-for': '127.0.0.1' })).status).toBe(404);
});

test('a server that hears of no changes lives and is not ready; it is again once it hears', async () => {
  const ask = async (path: string): Promise<number> => (await server.fetch(path)).status;
  expect([await ask('/livez'), await ask('/healthz')]).toEqual([200, 200]);
  await onServer(database.url, `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE application_name = 'caderno changes' AND datname = current_database()`);
  await until(async () => ((await ask('/healthz')) === 503 ? true : null), 2_000);
  expect(await ask('/livez')).toBe(200);
  await until(async () => ((await ask('/healthz')) === 200 ? true : null));
});

test('a query that takes long is named, without anything that stands in it', async () => {
  await server.db.query(`SELECT pg_sleep(0.55), 'a word that somebody''s hand wrote'`);
  await server.db.query(`SELECT 'quick'`);
  const slow = written.trim().split('\n').map((line) => JSON.parse(line) as { msg: string; ms: number; sql: string }).filter((l) => l.msg === 'a slow query');
  expect(slow).toEqual([expect.objectContaining({ sql: expect.stringContaining(`SELECT pg_sleep(0.55), '…'`) })]);
  expect([slow[0]!.ms > 500, written.includes('hand wrote')]).toEqual([true, false]);
});

test('how the server stands is told to its administrators: who looks, what waits, what is stored, the last backup', async () => {
  expect((await server.as(project.administrator)('readServerState')).status).toBe(403);
  const server2 = await startServer(database.url);
  const stream = await server.fetch('/api/v1/projects/p/events', { headers: { cookie: `caderno_session=${project.reader}` } });
  const read = () => inTransaction(server.db, (work) => readServerState(work, { version: '1', startedAt: '2026-01-01T00:00:00.000Z', people: server.parts.feed.streams.people, pages: server.parts.feed.streams.count }, null));
  const state = await read();
  expect(state).toMatchObject({ servers: 2, people: 1, pages: 1, imports: { running: 0, waiting: 0 }, coverageBehind: 0, attachmentBytes: 0, lastBackup: null });
  expect(state.bytes).toBeGreaterThan(1e6);
  await onServer(database.url, `INSERT INTO caderno.server_mark VALUES ('backup', '2026-11-27T01:00:00Z'); UPDATE caderno.coverage_state SET revision = revision - 1`);
  expect(await read()).toMatchObject({ lastBackup: '2026-11-27T01:00:00.000Z', coverageBehind: 1 });
  await stream.body?.cancel();
  await server2.close();
});
