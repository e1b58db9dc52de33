import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { attachmentId, parameterId, plainStep, stepId, type Step } from '@caderno/core/cases';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { API_ROOT, DEFAULT_SETTINGS, LIMITS } from '@caderno/contract';
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

test('a picture is kept once, served as what it is, and named by steps of its project only; what is none is refused', async () => {
  const png = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
  const keep = (bytes: Uint8Array<ArrayBuffer>) => call('keepAttachment', { body: bytes });
  const { id } = (await keep(png)).data;
  expect((await keep(png)).data.id).toBe(id);
  const served = await server.fetch(`${API_ROOT}/projects/p/attachments/${id}`, { headers: { cookie: `caderno_session=${project.analyst}` } });
  expect([served.headers.get('content-type'), served.headers.get('x-content-type-options'), new Uint8Array(await served.arrayBuffer())]).toEqual(['image/png', 'nosniff', png]);
  expect((await keep(new TextEncoder().encode('<svg onload="alert(1)"/>'))).data).toMatchObject({ code: 'attachment_not_picture' });
  expect((await keep(new Uint8Array(LIMITS.picture + 1))).data).toMatchObject({ code: 'attachment_too_large' });
  const step = (attachment: string) => ({ ...plainStep(stepId('s'), 'look'), attachments: [{ id: attachmentId(attachment), name: 'dial.png' }] });
  expect((await call('createArtefact', { body: testCase({ title: 'With it', steps: [step(id)] }) })).status).toBe(200);
  expect((await call('createArtefact', { body: testCase({ title: 'With another', steps: [step('0'.repeat(64))] }) })).data).toMatchObject({ code: 'attachment_unknown', name: 'dial.png' });
  expect((await server.as((await makeProject(server.db, 'q')).analyst)('createArtefact', { params: { project: 'q' }, body: testCase({ title: 'Elsewhere', steps: [step(id)] }) })).data).toMatchObject({ code: 'attachment_unknown' });
});

test('secrets leave the server only for those who may change them', async () => {
  const constants = [{ id: 'c', name: 'token', value: 's3cret', secret: true, description: '', others: { k: 's4cret' } }];
  expect((await call('saveSettings', { body: { ...DEFAULT_SETTINGS, constants } }, { 'if-match': '"0"' })).status).toBe(200);
  const seen = async (as: Caller) => JSON.stringify([(await as('readSettings')).data, (await as('readDesign')).data]);
  expect(await seen(call)).toMatch(/s3cret.*s4cret/);
  expect(await seen(server.as(project.reader))).not.toMatch(/s[34]cret/);
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
