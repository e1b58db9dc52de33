import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { Pin } from '@caderno/core/artefacts';
import { newCover, parameterId, stepId, plainStep, type Step } from '@caderno/core/cases';
import { remarkId } from '@caderno/core/remarks';
import { EMPTY_SHARED, type Used } from '@caderno/core/shared';
import { condition, makeDatabase, makeProject, requirement, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let call: Caller;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  call = server.as((await makeProject(server.db)).analyst);
  await call('createArtefact', { body: requirement() });
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const line = (id: string, action: string, expected = ''): Step => plainStep(stepId(id), action, expected);
const use = (shared: string, pinned: Pin = null): Step => ({ kind: 'shared', id: stepId(randomUUID().slice(0, 8)), shared: shared as `S-${number}`, pinned, arguments: [] });
const callOf = (id: string): Step => ({ kind: 'call', id: stepId(randomUUID().slice(0, 8)), case: id as `C-${number}`, pinned: null, rows: { kind: 'every' }, arguments: [] });
const shared = (title: string, steps: readonly Step[]) => ({ kind: 'shared' as const, content: { ...EMPTY_SHARED, title, steps } });
const made = async (body: Parameters<typeof call<'createArtefact'>>[1] extends infer I ? (I extends { body?: infer B } ? B : never) : never): Promise<string> => (await call('createArtefact', { body })).data.summary.id;
const save = (id: string, body: object, version: number) => call('saveArtefact', { params: { id: id as 'S-1' }, body: { ...body, note: '' } as never }, { 'if-match': `"${version}"` });

const stepsOf = (used: Used): readonly Step[] => (used.kind === 'dataSet' ? [] : used.content.steps);

test('a circle is refused with its path, and nothing of it stays; a pinned version of the same is none', async () => {
  const [a, b] = [await made(shared('A', [line('1', 'a')])), await made(shared('B', []))];
  const c = await made(testCase({ title: 'C', steps: [use(a)] }));
  expect((await save(b, shared('B', [callOf(c)]), 1)).status).toBe(200);
  const refused = await save(a, shared('A', [line('1', 'a'), use(b)]), 1);
  expect([refused.status, refused.data]).toMatchObject([422, { code: 'use_circle', path: [a, b, c, a] }]);
  expect((await call('readArtefact', { params: { id: a as 'S-1' } })).data.summary.version).toBe(1);
  expect((await save(a, shared('A', [use(a)]), 1)).data).toMatchObject({ code: 'use_circle', path: [a, a] });
  expect((await save(a, shared('A', [use(a, 1)]), 1)).status).toBe(200);
  // Two commands at the same time that are a circle only together: one of them is refused.
  const [d, e] = [await made(shared('D', [])), await made(shared('E', []))];
  const both = await Promise.all([save(d, shared('D', [use(e)]), 1), save(e, shared('E', [use(d)]), 1)]);
  expect(both.map((r) => r.status).sort()).toEqual([200, 422]);
});

test('who uses it and what it uses: directly, through others, following or behind a pin; the library holds what each means', async () => {
  const leaf = await made(shared('Leaf', [line('1', 'old')]));
  const middle = await made(shared('Middle', [use(leaf)]));
  const following = await made(testCase({ title: 'Following', steps: [use(middle)] }));
  const pinned = await made(testCase({ title: 'Pinned', steps: [use(leaf, 1)] }));
  expect((await save(leaf, shared('Leaf', [line('1', 'new')]), 1)).status).toBe(200);
  const { users } = (await call('readReuse', { params: { id: leaf as 'S-1' } })).data;
  expect(users.map((u) => [u.id, u.distance, u.follows, u.pinned])).toEqual([[pinned, 1, false, 1], [middle, 1, true, null], [following, 2, true, null]]);
  expect((await call('readReuse', { params: { id: following as 'C-1' } })).data.uses.map((u) => u.id)).toEqual([middle, leaf]);
  const library = (await call('readLibrary', { query: { uses: `${middle},${leaf}@1,S-999` } })).data;
  expect(library.map(({ key, used }) => [key, used.version, stepsOf(used).map((s) => (s.kind === 'step' ? s.action : s.kind))]).sort()).toEqual([[leaf, 2, ['new']], [`${leaf}@1`, 1, ['old']], [middle, 1, ['shared']]].sort());
  // What is used cannot be undone away.
  const [change] = (await call('listChanges', { query: { artefact: middle as 'S-1' } })).data;
  expect((await call('undoChange', { params: { change: change?.id ?? '' }, body: {} })).data).toMatchObject({ code: 'still_used', users: [following] });
});

test('a use that follows the agreed version means that one, whatever is saved, agreed, or taken back; nothing comes to use itself by it', async () => {
  const k = (await made(condition(['R-1'], { title: 'Shown by the agreed steps' }))) as `K-${number}`;
  const s = await made(shared('Read it', [line('1', 'read')]));
  const inner = await made(shared('Around it', [use(s, 'agreed')]));
  const c = await made(testCase({ title: 'Follows', steps: [use(inner)], covers: [{ ...newCover(k, 1), expects: [stepId('told')] }] }));
  const state = (id: string, to: string) => call('setState', { params: { id: id as 'S-1' }, body: { state: to as 'agreed' } });
  const now = async (): Promise<unknown[]> => {
    const library = (await call('readLibrary', { query: { uses: inner } })).data;
    const item = (await call('listItems', { query: { requirement: 'R-1' } })).data.items.find((i) => i.condition === k);
    return [library.find(({ key }) => key === `${s}@agreed`)?.used.version, item?.standing];
  };
  // Until something is agreed it is the latest.
  expect(await now()).toEqual([1, 'linked']);
  await save(s, shared('Read it', [line('told', 'read', 'it is told')]), 1);
  expect(await now()).toEqual([2, 'shown']);
  await state(s, 'agreed');
  await save(s, shared('Read it', [line('1', 'read once more')]), 2);
  expect(await now()).toEqual([2, 'shown']);
  await state(s, 'agreed');
  expect(await now()).toEqual([3, 'linked']);
  const [agreeing] = (await call('listChanges', { query: { artefact: s as 'S-1' } })).data;
  await call('undoChange', { params: { change: agreeing?.id ?? '' }, body: {} });
  expect(await now()).toEqual([2, 'shown']);
  expect((await call('readReuse', { params: { id: s as 'S-1' } })).data.users).toMatchObject([{ id: inner, follows: false, pinned: 'agreed' }, { id: c, follows: false }]);

  expect((await save(s, shared('Read it', [use(inner)]), 3)).data).toMatchObject({ code: 'use_circle', path: [s, inner, s] });
  // What is agreed of both uses nothing; agreed to both as they are they would use each other.
  const [x, y] = [await made(shared('X', [])), await made(shared('Y', []))];
  for (const id of [x, y]) await state(id, 'agreed');
  expect((await save(y, shared('Y', [use(x, 'agreed')]), 1)).status).toBe(200);
  expect((await save(x, shared('X', [use(y, 'agreed')]), 1)).status).toBe(200);
  expect((await state(y, 'agreed')).status).toBe(200);
  expect((await state(x, 'agreed')).data).toMatchObject({ code: 'use_circle', path: [x, y, x] });
  expect((await call('readArtefact', { params: { id: x as 'S-1' } })).data.summary.state).toBe('draft');
});

test('steps are taken out as one entry that one undo takes back; what they speak for stays shown, through calls too', async () => {
  const k = (await made(condition(['R-1'], { title: 'Spoken for' }))) as `K-${number}`;
  const steps = [line('one', 'enter <x>'), line('two', 'confirm <x>', 'it is taken'), line('three', 'leave')];
  const parameters = [{ id: parameterId('p'), name: 'x', type: 'text' as const, default: '7', description: '' }];
  const content = testCase({ title: 'Long', steps, parameters, covers: [{ ...newCover(k, 1), expects: [stepId('two')] }] });
  const c = await made(content);
  const standing = async () => (await call('listItems', { query: { requirement: 'R-1' } })).data.items.find((i) => i.condition === k);
  expect((await standing())?.standing).toBe('shown');
  const body = { shared: { ...EMPTY_SHARED, title: 'Enter and confirm', steps: steps.slice(0, 2), parameters }, users: [{ ...content, id: c as 'C-1', kind: 'case' as const, content: { ...content.content, steps: steps.slice(2) }, version: 1, uses: [{ at: 0, step: stepId('use'), arguments: [] }] }] };
  // What was said of the steps goes along, answers too, and comes back with the undo.
  const remark = remarkId(randomUUID());
  const sayAt = (path: string, id: typeof remark) => call('beginThread', { params: { id: c as 'C-1' }, body: { remark: id, place: { path, words: null }, said: '', version: 1, text: path } });
  await sayAt('steps/two/expected', remark);
  await sayAt('steps/three', remarkId(randomUUID()));
  const saidOf = async (id: string | undefined) => (await call('listRemarks', { params: { id: (id ?? '') as 'S-1' } })).data.map((t) => [t.place.path, t.remarks.length]);
  const command = randomUUID();
  const taken = (await call('takeOut', { body }, { 'command-id': command })).data;
  const [s] = taken.made;
  expect((await call('readArtefact', { params: { id: c as 'C-1' } })).data.content).toMatchObject({ steps: [{ kind: 'shared', shared: s }, { id: 'three' }] });
  expect(await standing()).toMatchObject({ standing: 'shown', cases: [c] });
  await call('answerRemark', { params: { remark }, body: { remark: remarkId(randomUUID()), text: 'Yes.' } });
  expect([await saidOf(c), await saidOf(s)]).toEqual([[['steps/three', 1]], [['steps/two/expected', 2]]]);
  const caller = await made(testCase({ title: 'Caller', steps: [callOf(c)] }));
  expect(await standing()).toMatchObject({ standing: 'shown', instances: 2, cases: [c, caller] });
  // A change of the shared steps reaches the coverage of those who use them.
  await save(s ?? '', shared('Enter and confirm', [line('one', 'enter')]), 1);
  expect(await standing()).toMatchObject({ standing: 'linked', instances: 0 });
  const [saved] = (await call('listChanges', {})).data;
  await call('undoChange', { params: { change: saved?.id ?? '' }, body: {} });
  expect(await standing()).toMatchObject({ standing: 'shown' });

  expect((await call('takeOut', { body }, { 'command-id': command })).data).toMatchObject({ change: { id: taken.change?.id }, made: [s] });
  expect((await call('takeOut', { body }, { 'command-id': randomUUID() })).data).toMatchObject({ code: 'version_moved' });
  const undone = await call('undoChange', { params: { change: taken.change?.id ?? '' }, body: {} });
  expect([undone.status, undone.data]).toMatchObject([200, { id: taken.change?.id, undone: true }]);
  expect((await call('readArtefact', { params: { id: c as 'C-1' } })).data.content).toMatchObject({ steps });
  expect((await call('readArtefact', { params: { id: (s ?? '') as 'S-1' } })).status).toBe(404);
  expect(await saidOf(c)).toEqual([['steps/two/expected', 2], ['steps/three', 1]]);
});
