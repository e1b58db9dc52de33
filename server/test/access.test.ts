import { plainStep, stepId } from '@caderno/core/cases';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { API_ROOT, LIMITS, ROLES, api, roleReaches, type AnyEndpoint, type Operation, type Role } from '@caderno/contract';
import { makeDatabase, makeProject, requirement, startServer, testCase, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let other: Awaited<ReturnType<typeof makeProject>>;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
  other = await makeProject(server.db, 'other');
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const operations = Object.entries<AnyEndpoint>(api) as [Operation, AnyEndpoint][];
const below = operations.filter(([, e]) => e.path.startsWith('/projects/:project'));
const isRole = (access: string): access is Role => ROLES.some((r) => r === access);

async function status(endpoint: AnyEndpoint, token: string | null, headers: Record<string, string> = {}): Promise<number> {
  const path = endpoint.path.replace(':project', 'p').replace(':id', 'R-1').replace(':version', '1').replace(':change', randomUUID());
  const response = await server.fetch(API_ROOT + path, {
    method: endpoint.method,
    headers: { ...(token === null ? {} : { cookie: `caderno_session=${token}` }), 'content-type': 'application/json', ...headers },
    body: endpoint.method === 'GET' ? null : '{}',
  });
  return response.status;
}

describe('every route', () => {
  test('below a project is known to this walk', () => expect(below.length).toBeGreaterThan(15));

  test.each(operations.filter(([, e]) => e.access !== 'anyone'))('%s needs a session', async (_, endpoint) => {
    expect(await status(endpoint, null)).toBe(401);
    expect(await status(endpoint, 'forged')).toBe(401);
  });

  test.each(below)('%s asks for its role, and no more', async (_, endpoint) => {
    expect(isRole(endpoint.access)).toBe(true);
    for (const role of ROLES) {
      const answered = await status(endpoint, project[role]);
      // Admitted, a bare request may still be refused for what it says.
      if (isRole(endpoint.access) && roleReaches(role, endpoint.access)) expect([role, [401, 403].includes(answered)]).toEqual([role, false]);
      else expect([role, answered]).toEqual([role, 403]);
    }
  });

  test.each(below)('%s does not know another project’s people', async (_, endpoint) => {
    for (const role of ROLES) expect(await status(endpoint, other[role])).toBe(404);
  });

  test.each(operations.filter(([, e]) => e.method !== 'GET'))('%s refuses a forged origin', async (_, endpoint) => {
    expect(await status(endpoint, project.administrator, { origin: 'https://elsewhere.example' })).toBe(403);
    expect(await status(endpoint, project.administrator, { origin: 'null' })).toBe(403);
    expect(await status(endpoint, project.administrator, { 'sec-fetch-site': 'cross-site' })).toBe(403);
  });

  test('the event stream is for members only', async () => {
    const open = async (token: string | null) => {
      const response = await server.fetch(`${API_ROOT}/projects/p/events`, { headers: token === null ? {} : { cookie: `caderno_session=${token}` } });
      await response.body?.cancel();
      return response.status;
    };
    expect([await open(null), await open(other.reader), await open(project.reader)]).toEqual([401, 404, 200]);
  });

  test('stands in the OpenAPI document', async () => {
    const document = (await (await server.fetch('/api/openapi.json')).json()) as { paths: Record<string, Record<string, { operationId: string }>> };
    const documented = Object.values(document.paths).flatMap((p) => Object.values(p).map((o) => o.operationId));
    expect(documented.sort()).toEqual(operations.map(([name]) => name).sort());
  });

  test('that does not exist is 404, not the application', async () => {
    const response = await server.fetch('/api/v1/nowhere');
    expect([response.status, response.headers.get('content-type')]).toEqual([404, 'application/problem+json']);
  });
});

describe('signing in', () => {
  const signIn = (body: object) => server.as(null)('signIn', { body: body as never });
  beforeAll(() => server.as(project.administrator)('addMember', { body: { name: 'Clara T.', email: 'Clara@p.example', password: 'a long password', role: 'analyst' } }));

  test('by address, in any case, and password', async () => {
    const response = await server.fetch(`${API_ROOT}/session`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ email: 'clara@P.example', password: 'a long password' }) });
    expect(response.headers.get('set-cookie')).toMatch(/^caderno_session=[\w-]{43}; .*HttpOnly; SameSite=Strict/);
    expect(await response.json()).toMatchObject({ person: { name: 'Clara T.' }, projects: [{ key: 'p', role: 'analyst' }] });
  });
  test('passwords are kept as argon2id only', async () => {
    const [rows] = await server.db.query(`SELECT password_hash FROM person WHERE email = 'clara@p.example'`);
    expect(rows).toEqual([{ password_hash: expect.stringMatching(/^\$argon2id\$/) }]);
  });
  test('a wrong password and an unknown address are answered alike; too many close the door', async () => {
    expect((await signIn({ email: 'clara@p.example', password: 'wrong' })).refusal).toEqual((await signIn({ email: 'nobody@p.example', password: 'wrong' })).refusal);
    for (let i = 0; i < 9; i += 1) await signIn({ email: 'clara@p.example', password: 'wrong' });
    expect((await signIn({ email: 'clara@p.example', password: 'a long password' })).refusal).toMatchObject({ code: 'too_many_attempts', seconds: 60 });
  });
  test('a person with an account is nobody to sign in as by a click', async () => {
    const [rows] = await server.db.query(`SELECT id FROM person WHERE email = 'clara@p.example'`);
    expect((await signIn({ demoPerson: (rows[0] as { id: string }).id })).refusal.code).toBe('sign_in_failed');
  });
  test('signing out ends the session', async () => {
    const token = (await makeProject(server.db, 'brief')).reader;
    await server.as(token)('signOut');
    expect((await server.as(token)('readProject', { params: { project: 'brief' } })).status).toBe(401);
  });
  test('set-up is over once there is anybody', async () => {
    expect((await server.as(null)('setUp', { body: { name: 'X', email: 'x@p.example', password: 'a long password', word: 'any' } })).refusal.code).toBe('set_up_already');
  });
});

describe('hostile input', () => {
  const create = (text: string) => server.as(project.analyst)('createArtefact', { body: requirement({ text }) });

  test.each(['<script>alert(1)</script>', '<img src=x onerror=alert(1)>', '<>', '\u202Eright to left', '💧🚰 e\u0301', `'; DROP TABLE person; --`, '{{7*7}}', '\u0001\u0085'])('%j comes back as it was', async (text) => {
    expect((await create(text)).data.content).toMatchObject({ text });
  });
  test.each([
    ['a megabyte in one field', 'x'.repeat(1_000_000)],
    ['a NUL character', 'a\0b'],
    ['half a surrogate pair', 'a\ud800b'],
  ])('%s is refused with its place', async (_, text) => {
    expect((await create(text)).refusal).toMatchObject({ code: 'request_invalid', issues: [{ path: expect.stringContaining('content.text') }] });
  });
  test('repeated ids, unknown fields and wrong kinds are refused', async () => {
    const step = plainStep(stepId('s'), '');
    const send = async (body: object) => (await server.as(project.analyst)('createArtefact', { body: body as never })).status;
    expect([await send(testCase({ steps: [step, step] })), await send({ ...testCase(), content: { ...testCase().content, more: 1 } }), await send({ kind: 'plan', content: {} })]).toEqual([400, 400, 400]);
  });
  test('bodies that are no JSON, of another type, or too large', async () => {
    const post = async (body: string, type = 'application/json') =>
      (await server.fetch(`${API_ROOT}/projects/p/artefacts`, { method: 'POST', headers: { cookie: `caderno_session=${project.analyst}`, 'content-type': type }, body })).status;
    expect([await post('{'), await post('a=1', 'text/plain'), await post(`"${'x'.repeat(LIMITS.body)}"`)]).toEqual([400, 415, 413]);
  });
});
