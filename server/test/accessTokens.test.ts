import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { API_ROOT, LIMITS, api, type AnyEndpoint, type Refusal, type TokenScope } from '@caderno/contract';
import { makeDatabase, makeProject, onServer, startServer, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let people: Awaited<ReturnType<typeof makeProject>>;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  people = await makeProject(server.db);
  await makeProject(server.db, 'other');
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const make = async (scope: TokenScope, role: 'reader' | 'analyst' | 'lead' = 'analyst', more = {}) => (await server.as(people[role])('makeToken', { body: { name: 'pipeline', project: 'p', scope, days: 30, ...more } })).data;

/** Asks an operation as a program does; answers its status and why it was refused. */
async function ask(endpoint: AnyEndpoint, token: string, { project = 'p', body = null as string | null, cookie = '' } = {}): Promise<[number, Refusal['code'] | null, unknown]> {
  const path = endpoint.path.replaceAll(':project', project).replaceAll(/:\w+/g, '00000000-0000-4000-8000-000000000000');
  const response = await server.fetch(`${API_ROOT}${path}`, { method: endpoint.method, headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json', ...(cookie === '' ? {} : { cookie }) }, body });
  const text = await response.text();
  const refusal = response.ok ? null : (JSON.parse(text) as Refusal);
  return [response.status, refusal?.code ?? null, refusal !== null && 'needed' in refusal ? refusal.needed : null];
}
const ALL = JSON.stringify({ of: { kind: 'feature', query: '' }, form: 'zip' });

test('a token opens what it is for in its project, and nothing else', async () => {
  const [{ token: reads }, { token: writes }] = [await make('read'), await make('write')];
  expect(await ask(api.exportFeatures, reads, { body: ALL })).toEqual([200, null, null]);
  expect(await ask(api.readProject, writes)).toEqual([200, null, null]);
  expect(await ask(api.cancelImport, reads)).toEqual([403, 'token_not_enough', 'write']);
  expect((await ask(api.cancelImport, writes))[1]).toBe('import_unknown');
  expect(await ask(api.readProject, writes, { project: 'other' })).toEqual([404, 'project_unknown', null]);
  const closed = Object.entries<AnyEndpoint>(api).filter(([, e]) => e.access !== 'anyone' && e.token === undefined);
  expect(closed.length).toBeGreaterThan(80);
  for (const [name, endpoint] of closed) expect([name, ...(await ask(endpoint, writes, { body: endpoint.method === 'GET' ? null : '{}' }))]).toEqual([name, 403, 'token_not_enough', null]);
});

test('one that is made for another project opens nothing here, whatever its person may do in both', async () => {
  const both = await makeProject(server.db, 'second');
  const token = (await server.as(both.lead)('makeToken', { body: { name: 't', project: 'second', scope: 'write', days: 1 } })).data.token;
  await onServer(database.url, `INSERT INTO member (project_id, person_id, role) VALUES ('${people.id}', '${both.people.lead}', 'analyst')`);
  expect(await ask(api.readProject, token, { project: 'second' })).toEqual([200, null, null]);
  expect(await ask(api.readProject, token)).toEqual([403, 'token_not_enough', 'read']);
});

test('it may no more than its person: a reader’s does not write, and with the membership or the account it ends', async () => {
  const { token, tokens } = await make('write', 'reader');
  expect(await ask(api.cancelImport, token)).toEqual([403, 'role_too_low', 'analyst']);
  expect(tokens).toMatchObject([{ name: 'pipeline', project: 'p', scope: 'write', usedAt: null }]);
  expect(await ask(api.readProject, token)).toEqual([200, null, null]);
  await onServer(database.url, `UPDATE person SET active = false WHERE id = '${people.people.reader}'`);
  expect(await ask(api.readProject, token)).toEqual([401, 'not_signed_in', null]);
  await onServer(database.url, `UPDATE person SET active = true WHERE id = '${people.people.reader}'`);
  await onServer(database.url, `DELETE FROM member WHERE person_id = '${people.people.reader}'`);
  expect(await ask(api.readProject, token)).toEqual([404, 'project_unknown', null]);
});

test('withdrawn or ended it opens nothing from the next request on; nobody else’s is withdrawn, and nothing stands in for it', async () => {
  const lead = server.as(people.lead);
  const { token, tokens } = await make('read', 'lead');
  const id = tokens[0]?.id ?? '';
  expect((await server.as(people.analyst)('withdrawToken', { params: { token: id } })).refusal).toMatchObject({ code: 'token_unknown' });
  expect(await ask(api.readProject, token)).toEqual([200, null, null]);
  expect((await lead('listTokens')).data[0]?.usedAt).not.toBeNull();
  expect((await lead('withdrawToken', { params: { token: id } })).data).toEqual([]);
  expect(await ask(api.readProject, token)).toEqual([401, 'not_signed_in', null]);
  expect(await ask(api.readProject, token, { cookie: `caderno_session=${people.lead}` })).toEqual([401, 'not_signed_in', null]);
  const late = await make('read', 'lead');
  await onServer(database.url, `UPDATE access_token SET expires_at = now() - interval '1 second' WHERE id = '${late.tokens[0]?.id ?? ''}'`);
  expect(await ask(api.readProject, late.token)).toEqual([401, 'not_signed_in', null]);
  const events = (await server.as(people.administrator)('listMemberEvents')).data.filter((e) => e.by === 'lead of p').map((e) => [e.action, e.detail]);
  expect(events).toEqual([['tokenMade', 'pipeline'], ['tokenWithdrawn', 'pipeline'], ['tokenMade', 'pipeline']]);
});

test('a session is no token and a token no session; the database holds neither in the clear', async () => {
  const { token } = await make('write');
  expect((await server.as(token)('readProject')).status).toBe(401);
  expect(await ask(api.readProject, people.lead)).toEqual([401, 'not_signed_in', null]);
  await expect(onServer(database.url, `SELECT 1 / (SELECT (count(*) = 0)::int FROM access_token WHERE token_hash = '${token}')`)).resolves.toBeUndefined();
});

test('nobody has more than so many, and only of projects they are in', async () => {
  const lead = server.as(people.lead);
  expect((await lead('makeToken', { body: { name: 't', project: 'other', scope: 'read', days: 1 } })).refusal).toMatchObject({ code: 'project_unknown' });
  while ((await lead('listTokens')).data.length < LIMITS.accessTokens) await make('read', 'lead');
  expect((await lead('makeToken', { body: { name: 't', project: 'p', scope: 'read', days: 1 } })).refusal).toMatchObject({ code: 'tokens_too_many', limit: LIMITS.accessTokens });
});
