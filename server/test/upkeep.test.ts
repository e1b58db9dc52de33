import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomBytes, randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { inTransaction } from '../src/database/index.ts';
import { SecretBox, readSecretKey, revealSecret } from '../src/secrets/index.ts';
import { checkData, startUpkeep, sweep } from '../src/upkeep/index.ts';
import { makeDatabase, makeProject, requirement, save, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
  call = server.as(project.analyst);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const count = async (sql: string): Promise<number> => ((await server.db.query(`SELECT count(*)::int AS count FROM ${sql}`))[0][0] as { count: number }).count;

describe('what has served its time', () => {
  test('is swept away, and nothing else', async () => {
    const person = project.people.analyst;
    const answer = (id: string, age: string) => server.db.query(`INSERT INTO command_answer (command_id, person_id, operation, answer, at) VALUES ($1, $2, 'x', '{}', now() - $3::interval)`, { bind: [id, person, age] });
    const [old, young] = [randomUUID(), randomUUID()];
    await answer(old, '15 days');
    await answer(young, '13 days');
    await server.db.query(`INSERT INTO session (token_hash, person_id, expires_at) VALUES ('over', $1, now() - interval '1 minute'), ('still', $1, now() + interval '1 minute')`, { bind: [person] });
    await server.db.query(`INSERT INTO reset_link (token_hash, person_id, expires_at) VALUES ('over', $1, now() - interval '1 minute'), ('still', $1, now() + interval '1 minute')`, { bind: [person] });
    await server.db.query(`INSERT INTO sign_in_attempt (account, address, at) VALUES ('a', 'over', now() - interval '2 hours'), ('a', 'still', now())`);
    await server.db.query(`INSERT INTO known_address (person_id, address, at) VALUES ($1, 'over', now() - interval '181 days'), ($1, 'still', now())`, { bind: [person] });
    await server.db.query(`INSERT INTO stored_file (hash, size, kept_at, bytes) VALUES ('empty', 0, now() - interval '3 days', ''), ('unnamed', 0, now() - interval '3 days', ''), ('young', 0, now(), '')`);
    await server.db.query(`INSERT INTO import_file (id, project_id, person_id, name, hash, size, at, state) SELECT gen_random_uuid(), $1, $2, name, 'empty', 0, now() - age, 'waiting' FROM (VALUES ('over', interval '25 hours'), ('still', interval '23 hours')) AS f(name, age)`, { bind: [project.id, person] });
    await sweep(server.db, server.parts.files);
    const left = await Promise.all([
      count(`command_answer WHERE command_id IN ('${old}', '${young}')`), count(`session WHERE token_hash IN ('over', 'still')`), count('reset_link'), count('sign_in_attempt'), count(`known_address WHERE person_id = '${person}'`), count('import_file'), count(`stored_file WHERE hash IN ('empty', 'young')`), count('stored_file'),
    ]);
    expect(left).toEqual([1, 1, 1, 1, 1, 1, 2, 2]);
    expect(await count(`session WHERE token_hash = 'over'`)).toBe(0);
  });

  test('a sweep that fails is told, and does not end the server', async () => {
    const gone = await makeDatabase();
    const other = await startServer(gone.url);
    await other.db.query('DROP TABLE command_answer');
    const told = await new Promise<unknown>((resolve) => {
      const stop = startUpkeep(other.db, other.parts.files, (error) => {
        stop();
        resolve(error);
      });
    });
    expect(told).toBeInstanceOf(Error);
    await other.close();
    await gone.drop();
  });
});

describe('checking the data', () => {
  test('reads all of it, page by page, and finds each fault where it is', async () => {
    const { id } = (await call('createArtefact', { body: testCase({ title: 'Long history' }) })).data.summary;
    for (let version = 1; version < 230; version += 1) {
      const { status, refusal } = await save(call, id, version, testCase({ title: 'Long history', objective: `v${version + 1}` }));
      expect([version, status, refusal.code]).toEqual([version, 200, undefined]);
    }
    await call('keepDraft', { params: { id }, body: { ...testCase({ title: 'Drafted' }), base: 230, sequence: 1 } });
    const before = await checkData(server.db);
    expect([before.checked >= 231, before.faults]).toEqual([true, []]);
    await server.db.query(`UPDATE artefact_version v SET content = '[]' FROM artefact a WHERE a.id = v.artefact_id AND a.title = 'Long history' AND v.version IN (1, 201, 230)`);
    await server.db.query(`UPDATE artefact_version v SET schema = 99 FROM artefact a WHERE a.id = v.artefact_id AND a.title = 'Long history' AND v.version = 7`);
    await server.db.query(`UPDATE draft SET content = '"gone"'`);
    const { faults } = await checkData(server.db);
    expect(faults.map(({ what }) => what)).toEqual([
      ...[1, 7, 201].map((version) => ({ kind: 'version', id, version, head: false })),
      { kind: 'version', id, version: 230, head: true },
      { kind: 'draft', id, person: 'analyst of p' },
    ]);
    expect((await call('listArtefacts', { query: { kind: 'case', query: 'Long' } })).data).toMatchObject([{ id, broken: true }]);
    // What was put right in the database is no longer marked.
    await server.db.query(`UPDATE artefact_version v SET content = w.content FROM artefact a, artefact_version w WHERE a.id = v.artefact_id AND a.title = 'Long history' AND w.artefact_id = a.id AND w.version = 2 AND v.version IN (1, 201, 230)`);
    await checkData(server.db);
    expect((await call('listArtefacts', { query: { kind: 'case', query: 'Long' } })).data).toMatchObject([{ id, broken: false }]);
  });
});

describe('the key that secrets are sealed with', () => {
  const folder = mkdtempSync(join(tmpdir(), 'caderno-key-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  test('is made once, for its owner only, and read again; one from the environment goes first', async () => {
    const file = join(folder, 'key');
    const made = await readSecretKey(null, file);
    expect([made.length, statSync(file).mode & 0o777, (await readSecretKey(null, file)).equals(made)]).toEqual([32, 0o600, true]);
    const given = randomBytes(32);
    expect((await readSecretKey(given.toString('base64'), file)).equals(given)).toBe(true);
    expect(Buffer.from(readFileSync(file, 'utf8'), 'base64').equals(made)).toBe(true);
    expect(() => new SecretBox(randomBytes(16))).toThrow('The key has 32 bytes: got 16');
  });

  test('opens on every server that has it what any of them sealed, and nothing with another or after a change', async () => {
    const key = randomBytes(32);
    const [one, two] = [await startServer(database.url, { secrets: new SecretBox(key) }), await startServer(database.url, { secrets: new SecretBox(key) })];
    const lead = one.as(project.lead);
    const { version } = (await lead('readSettings')).data;
    await lead('saveSettings', { body: { ...DEFAULT_SETTINGS, constants: [{ id: 'c', name: 'token', value: 'sealed well', secret: true, description: '', others: {} }] } }, { 'if-match': `"${version}"` });
    const reveal = (at: TestServer) => at.as(project.lead)('revealConstant', { params: { constant: 'c' }, body: { configuration: null } });
    expect([(await reveal(two)).data.value, (await reveal(server)).refusal.code]).toEqual(['sealed well', 'constant_unknown']);
    await server.db.query(`UPDATE secret SET sealed = set_byte(sealed, 30, (get_byte(sealed, 30) + 1) % 256)`);
    await expect(inTransaction(server.db, (work) => revealSecret(work, one.parts.secrets, project.id, 'c', null))).rejects.toMatchObject({ refusal: { code: 'constant_unknown' } });
    await one.close();
    await two.close();
  });
});

describe('the step of the database that brought safety', () => {
  test('takes over people, sessions and projects of before: those of the demo stay its own, real ones are not its', async () => {
    const old = await makeDatabase();
    const before = await startServer(old.url);
    const demo = await makeProject(before.db, 'demo');
    await before.db.query(`INSERT INTO person (id, name, email, password_hash, administrator) VALUES ($1, 'Real', 'real@p.example', 'x', true)`, { bind: [randomUUID()] });
    await before.as(demo.administrator)('createProject', { body: { key: 'tried', name: 'Tried' } });
    await before.db.query(`INSERT INTO project (id, key, name) VALUES ($1, 'real', 'Real')`, { bind: [randomUUID()] });
    await before.db.query(`INSERT INTO member (project_id, person_id, role) SELECT project.id, person.id, 'lead' FROM project, person WHERE project.key = 'real' AND person.email = 'real@p.example'`);
    // As it was before that step.
    await before.db.query(`ALTER TABLE artefact DROP broken; ALTER TABLE project DROP demo; ALTER TABLE person DROP active; ALTER TABLE session DROP id, DROP started_at, DROP seen_at, DROP agent; ALTER TABLE import_file DROP alive_at;
      DROP TABLE command_answer, reset_link, sign_in_attempt, known_address, person_event, secret; CREATE TABLE sign_in_failure (who text, at timestamptz); DROP INDEX session_person_id_idx; DELETE FROM migration WHERE name = '0006-safety'`);
    await before.close();
    const after = await startServer(old.url);
    const [projects] = await after.db.query('SELECT key, demo FROM project ORDER BY key');
    expect(projects).toEqual([{ key: 'demo', demo: true }, { key: 'real', demo: false }, { key: 'tried', demo: true }]);
    const analyst = after.as(demo.analyst);
    expect((await analyst('createArtefact', { params: { project: 'demo' }, body: requirement() })).status).toBe(200);
    expect((await analyst('listSessions')).data).toMatchObject([{ current: true, agent: '' }]);
    expect((await after.as(demo.administrator)('readProject', { params: { project: 'real' } })).status).toBe(404);
    await after.close();
    await old.drop();
  });
});
