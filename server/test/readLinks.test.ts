import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { plainStep, stepId } from '@caderno/core/cases';
import { fieldId } from '@caderno/core/conditions';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import type { HeavyLane } from '../src/http/heavyLane.ts';
import { condition, makeDatabase, makeProject, requirement, save, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;
let now = new Date('2027-01-05T09:00:00Z');
const DAY = 86_400_000;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url, { now: () => now });
  project = await makeProject(server.db);
  call = server.as(project.analyst);
  const secret = { id: 'c', name: 'pass', value: 'open sesame', secret: true, description: '', others: {} };
  expect((await server.as(project.lead)('saveSettings', { body: { ...DEFAULT_SETTINGS, constants: [secret] } }, { 'if-match': '"0"' })).status).toBe(200);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const written = (action: string) => testCase({ title: 'Reading', steps: [plainStep(stepId('a'), action)] });
const give = async (id: string, days = 7) => (await call('makeReadLink', { body: { id: id as 'C-1', forWhom: ' The well keeper ', days } })).data;
const open = (token: string) => server.as(null)('openReadLink', { body: { token } });

test('whoever has the link reads the thing in its version of now, nothing secret, and nothing that is not saved', async () => {
  const { id } = (await call('createArtefact', { body: written('Type <pass>') })).data.summary;
  const { token, links } = await give(id);
  expect(links).toMatchObject([{ of: id, title: 'Reading', forWhom: 'The well keeper', opened: 0, openedAt: null, endsAt: new Date(now.getTime() + 7 * DAY).toISOString() }]);
  await call('keepDraft', { params: { id: id as 'C-1' }, body: { ...written('never saved'), base: 1, sequence: 1 } });
  const first = await open(token);
  expect(first.data).toMatchObject({ id, version: 1, state: 'draft', copy: { title: 'Reading', instances: [{ steps: [{ action: [{ kind: 'text', text: 'Type ' }, { kind: 'value' }] }] }] } });
  expect(JSON.stringify(first.data)).not.toMatch(/open sesame|never saved/);
  await save(call, id, 1, written('Saved since'));
  expect(JSON.stringify((await open(token)).data.copy)).toContain('Saved since');
  expect((await call('listReadLinks')).data).toMatchObject([{ opened: 2, openedAt: now.toISOString() }]);
  // Who reads the database finds no word that opens anything.
  expect(JSON.stringify((await server.db.query('SELECT * FROM read_link'))[0])).not.toContain(token);
  // The word is for this alone.
  for (const name of ['readSession', 'listMembers', 'readHeads'] as const) expect(JSON.stringify((await server.as(token)(name, {})).data)).not.toContain('Reading');
});

test('a combination is worked out in a thread of its own, and a link is opened so many times a minute', async () => {
  const values = (n: number) => Array.from({ length: n }, (_, i) => ({ id: `v${i}`, value: `${i}`, aliases: [], valid: true, base: false, outcome: '' }));
  const model = { kind: 'combination' as const, factors: ['x', 'y'].map((name) => ({ id: fieldId(name), name, values: values(3) })), constraints: [{ id: 'c', text: 'if x = 0 then y = 0' }], strength: 'pairs' as const, groups: [], seed: 1 };
  await call('createArtefact', { body: requirement() });
  const { id } = (await call('createArtefact', { body: condition(['R-1'], { model }) })).data.summary;
  const { heavy } = server.parts as { heavy: HeavyLane };
  const [carryOut, inThreads] = [heavy.carryOut.bind(heavy), [] as string[]];
  heavy.carryOut = (job) => (inThreads.push(job.request.name), carryOut(job));
  const { token } = await give(id);
  const answers = [];
  for (let i = 0; i < 11; i += 1) answers.push(await open(token));
  expect(answers.slice(0, 10).map((a) => [a.status, JSON.stringify(a.data.copy)])).toEqual(Array.from({ length: 10 }, () => [200, expect.stringMatching(/1 × 2(?!.*0 × 1)/)]));
  expect(answers[10]?.refusal).toMatchObject({ code: 'too_many_attempts', seconds: 60 });
  expect((await open((await give(id)).token)).status).toBe(200);
  expect(inThreads.filter((name) => name === 'openReadLink')).toHaveLength(12);
  const plain = (await call('createArtefact', { body: written('x') })).data.summary.id;
  await open((await give(plain)).token);
  expect(inThreads).toHaveLength(12);
  heavy.carryOut = carryOut;
  for (const link of (await call('listReadLinks')).data.filter((l) => l.of !== 'C-1')) await call('endReadLink', { params: { link: link.id } });
});

test('a link that is ended, has run out, was guessed, or whose giver may change nothing any more opens nothing; who reads gives none', async () => {
  const { id } = (await call('createArtefact', { body: written('x') })).data.summary;
  const opens = async (token: string) => (await open(token)).status;
  const { token, links } = await give(id);
  const link = links.find((l) => l.of === id)!.id;
  expect(await opens(token)).toBe(200);
  expect(await opens(`${token.slice(0, -1)}${token.endsWith('A') ? 'B' : 'A'}`)).toBe(410);
  // Of another project nobody ends it.
  const other = await makeProject(server.db, 'other');
  await server.as(other.administrator)('endReadLink', { params: { project: 'other', link } });
  expect(await opens(token)).toBe(200);
  expect((await server.as(project.reader)('makeReadLink', { body: { id: id as 'C-1', forWhom: '', days: 7 } })).status).toBe(403);

  const administrator = server.as(project.administrator);
  const role = (to: 'reader' | 'analyst') => administrator('changeRole', { params: { person: project.people.analyst }, body: { role: to } });
  await role('reader');
  expect(await opens(token)).toBe(410);
  await role('analyst');
  expect(await opens(token)).toBe(200);

  await call('endReadLink', { params: { link } });
  await call('endReadLink', { params: { link } });
  expect(await opens(token)).toBe(410);

  const short = await give(id, 1);
  const gone = await give(id, 30);
  now = new Date(now.getTime() + DAY - 1);
  expect(await opens(short.token)).toBe(200);
  now = new Date(now.getTime() + 1);
  expect([await opens(short.token), await opens(gone.token)]).toEqual([410, 200]);
  // What is withdrawn says so; what was undone is not there.
  await call('writeArtefacts', { body: { made: [], changed: [], withdrawn: [id], detail: 'd' } });
  expect((await open(gone.token)).data.state).toBe('withdrawn');
  const undone = (await call('createArtefact', { body: written('y') })).data.summary.id;
  const toUndone = await give(undone);
  const made = (await call('listChanges', {})).data.find((c) => c.action === 'create' && c.artefact === undone);
  await call('undoChange', { params: { change: made!.id }, body: {} });
  expect(await opens(toUndone.token)).toBe(410);
  expect((await call('listReadLinks')).data.map((l) => l.of).toSorted()).toEqual(['C-1', id]);
  const told = (await server.as(project.lead)('listMemberEvents', {})).data.map((e) => `${e.action} ${e.detail}`);
  expect(told.filter((t) => t.endsWith(id))).toEqual([`readLinkMade ${id}`, `readLinkMade ${id}`, `readLinkEnded ${id}`, `readLinkMade ${id}`]);
});
