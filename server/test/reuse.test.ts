import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { parameterId, plainStep, stepId, type Step } from '@caderno/core/cases';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { inTransaction } from '../src/database/index.ts';
import { revealSecret, sealStoredSecrets } from '../src/secrets/index.ts';
import { makeDatabase, makeProject, startServer, testCase, type Caller, type TestServer } from './harness.ts';

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

const parameter = (name: string) => ({ id: parameterId(name), name, type: 'text' as const, default: '', description: '' });
const use = (shared: string, given: Record<string, string> = {}): Step => ({ kind: 'shared', id: stepId(randomUUID().slice(0, 8)), shared: shared as `S-${number}`, pinned: null, arguments: Object.entries(given).map(([id, value]) => ({ id, value })) });
const made = async (body: Parameters<typeof call<'createArtefact'>>[1] extends infer I ? (I extends { body?: infer B } ? B : never) : never): Promise<string> => (await call('createArtefact', { body })).data.summary.id;
const read = async (id: string) => (await call('readArtefact', { params: { id: id as 'C-1' } })).data;

test('a parameter is renamed in all that knows it, as one entry that one undo takes back; a name in use stops all of it', async () => {
  const content = { ...EMPTY_SHARED, title: 'Sign in', parameters: [parameter('user')], steps: [plainStep(stepId('1'), 'sign in as <user>')] };
  const shared = await made({ kind: 'shared', content });
  const hands = await made(testCase({ title: 'Hands it on', parameters: [parameter('user')], steps: [use(shared), plainStep(stepId('b'), 'greet <user>')] }));
  const gives = await made(testCase({ title: 'Gives it', steps: [use(shared, { user: 'a clerk' })] }));
  const owner = { kind: 'shared' as const, id: shared as `S-${number}`, version: 1, content: { ...content, purpose: 'Typed meanwhile, for <user>' } };
  const order = (to: string, apply: boolean, commandId?: string) => call('renameParameter', { body: { owner, from: 'user', to, apply } }, commandId === undefined ? {} : { 'command-id': commandId });

  const seen = await order('member', false);
  expect(seen.data.renamed.map((r) => [r.id, r.hasIt, r.places])).toEqual([[shared, true, 3], [hands, true, 2], [gives, false, 1]]);
  expect((await read(hands)).summary.version).toBe(1);

  const id = randomUUID();
  const [done, again] = [await order('member', true, id), await order('member', true, id)];
  expect(done.data.change).toMatchObject({ action: 'rename', size: 3, detail: '<user> → <member>' });
  expect(again.data.change?.id).toBe(done.data.change?.id);
  expect((await read(shared)).content).toMatchObject({ purpose: 'Typed meanwhile, for <member>', parameters: [{ name: 'member' }] });
  expect((await read(gives)).content).toMatchObject({ steps: [{ arguments: [{ id: 'member', value: 'a clerk' }] }] });
  expect((await call('undoChange', { params: { change: done.data.change?.id ?? '' }, body: {} })).status).toBe(200);
  expect((await read(hands)).content).toMatchObject({ parameters: [{ name: 'user' }], steps: [{}, { action: 'greet <user>' }] });
  expect((await order('member', true)).data).toMatchObject({ code: 'version_moved' });

  const now = { ...owner, version: (await read(shared)).summary.version, content };
  const other = await made(testCase({ title: 'Knows another', parameters: [parameter('user'), parameter('member')], steps: [use(shared)] }));
  const stopped = await call('renameParameter', { body: { owner: now, from: 'user', to: 'member', apply: true } });
  expect(stopped.data).toMatchObject({ change: null, renamed: [], hindrances: [{ code: 'name_in_use', id: other, name: 'member' }] });
  expect((await read(shared)).summary.version).toBe(now.version);
});

test('cases that would wait for each other are refused with the way; what is depended on cannot be undone away', async () => {
  const first = (await made(testCase({ title: 'First' }))) as `C-${number}`;
  const second = (await made(testCase({ title: 'Second', dependsOn: [{ id: first }] }))) as `C-${number}`;
  const save = (id: `C-${number}`, on: `C-${number}`) => call('saveArtefact', { params: { id }, body: { ...testCase({ title: 'First', dependsOn: [{ id: on }] }), note: '' } }, { 'if-match': '"1"' });
  expect((await save(first, second)).data).toMatchObject({ code: 'dependency_circle', path: [first, second, first] });
  expect((await save(first, first)).data).toMatchObject({ code: 'dependency_circle', path: [first, first] });
  const [change] = (await call('listChanges', { query: { artefact: first } })).data;
  expect((await call('undoChange', { params: { change: change?.id ?? '' }, body: {} })).data).toMatchObject({ code: 'still_used', users: [second] });
});

test('secrets are sealed where they are stored, stay out of undo data, and are revealed one by one to leads, in the journal', async () => {
  const constant = { id: 'c', name: 'token', value: 's3cret', secret: true, description: '', others: { k: 's4cret' } };
  const saved = async (part: Partial<typeof constant>) => {
    const { version, settings } = (await call('readSettings')).data;
    const before = settings.constants.find((c) => c.id === 'c') ?? constant;
    return (await call('saveSettings', { body: { ...settings, constants: [{ ...before, ...part }] } }, { 'if-match': `"${version}"` })).data.settings.constants[0];
  };
  const reveal = (as: Caller, configuration: string | null = null) => as('revealConstant', { params: { constant: 'c' }, body: { configuration } });
  const lead = server.as(project.lead);
  expect(await saved({})).toMatchObject({ value: '••••••', others: { k: '••••••' } });
  // A mask that comes back is the value that is kept.
  await saved({ description: 'of the meter' });
  expect([(await reveal(lead)).data.value, (await reveal(lead, 'k')).data.value]).toEqual(['s3cret', 's4cret']);
  expect((await reveal(call)).refusal).toMatchObject({ code: 'role_too_low', needed: 'lead' });
  expect((await reveal(lead, 'elsewhere')).refusal.code).toBe('constant_unknown');
  await saved({ value: 's5cret' });
  expect((await reveal(lead)).data.value).toBe('s5cret');
  expect((await lead('listMemberEvents')).data).toMatchObject([1, 2, 3].map(() => ({ action: 'secretRevealed', by: 'lead of p', detail: 'token' })));
  const seen = await Promise.all([call, lead, server.as(project.reader)].map(async (as) => JSON.stringify([(await as('readSettings')).data, (await as('readDesign')).data, (await as('listChanges')).data])));
  const [rows] = await server.db.query(`SELECT (SELECT string_agg(undo::text, ' ') FROM change_part) AS undo, (SELECT string_agg(settings::text, ' ') FROM project) AS settings, (SELECT string_agg(sealed::text, ' ') FROM secret) AS sealed, (SELECT string_agg(answer, ' ') FROM command_answer) AS answers`);
  for (const text of [...seen, JSON.stringify(rows)]) expect(text).not.toMatch(/s[345]cret/);
  // Shown to everybody again it has no value, and what is sealed for one place opens nowhere else.
  expect(await saved({ secret: false })).toMatchObject({ value: '', others: { k: '' } });
  expect((await reveal(lead)).refusal.code).toBe('constant_unknown');
  const box = server.parts.secrets;
  expect([box.open(box.seal('x', 'here'), 'here'), box.open(box.seal('x', 'here'), 'there')]).toEqual(['x', null]);
});

test('what an older release stored readable is sealed at the next start, with its undo data', async () => {
  const { id } = await makeProject(server.db, 'old');
  const constants = [{ id: 'c', name: 'token', value: 's6cret', secret: true, description: '', others: { k: 's7cret' } }];
  const settings = JSON.stringify({ ...DEFAULT_SETTINGS, constants });
  const change = randomUUID();
  await server.db.query('UPDATE project SET settings = $2, revision = 1 WHERE id = $1', { bind: [id, settings] });
  await server.db.query(`INSERT INTO change (id, project_id, revision, action, author_id, at, detail, note, size) SELECT $1, $2, 1, 'settings', id, now(), '', '', 1 FROM person LIMIT 1`, { bind: [change, id] });
  await server.db.query(`INSERT INTO change_part (change_id, place, undo) VALUES ($1, 0, jsonb_build_object('kind', 'settings', 'from', $2::jsonb, 'to', $2::jsonb))`, { bind: [change, settings] });
  await sealStoredSecrets(server.db, server.parts.secrets);
  await sealStoredSecrets(server.db, server.parts.secrets);
  const [rows] = await server.db.query(`SELECT settings::text, (SELECT undo::text FROM change_part WHERE change_id = '${change}') AS undo FROM project WHERE id = '${id}'`);
  expect(JSON.stringify(rows)).not.toMatch(/s[67]cret/);
  const [revealed] = await inTransaction(server.db, async (work) => [await revealSecret(work, server.parts.secrets, id, 'c', null), await revealSecret(work, server.parts.secrets, id, 'c', 'k')]);
  expect(revealed).toBe('s6cret');
});

test('runs and cases nearly alike are found while other questions are answered, and found anew once they are gone', async () => {
  const steps = ['Open the old ledger', 'Enter the number of the day', 'Send it off by hand'].map((action, i) => plainStep(stepId(`s${i}`), action));
  const [one, two] = [await made(testCase({ title: 'One', steps })), await made(testCase({ title: 'Two', steps }))];
  const found = async () => {
    for (;;) {
      const { data } = await call('readAlike');
      if (data.search === null) return data;
    }
  };
  expect((await found()).cases).toContainEqual({ first: one, second: two, likeness: 1 });
  const graph = (await call('readReuseGraph')).data;
  expect(graph.edges.length).toBeGreaterThan(0);
  expect(graph.edges.every((e) => [e.from, e.to].every((id) => graph.nodes.some((n) => n.id === id)))).toBe(true);
  await call('setState', { params: { id: two as `C-${number}` }, body: { state: 'withdrawn' } });
  for (let tries = 0; tries < 100; tries += 1) {
    if (!(await found()).cases.some((pair) => pair.second === two)) return;
    await new Promise((r) => setTimeout(r, 50));
  }
  throw new Error('A withdrawn case is no longer alike to any');
});
