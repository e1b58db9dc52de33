import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { rebuildDerived } from '../src/artefacts/index.ts';
import { inTransaction, migrate } from '../src/database/index.ts';
import { condition, makeDatabase, makeProject, requirement, save, startServer, testCase, type Caller, type TestServer } from './harness.ts';

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

const create = async (made: Parameters<typeof save>[3]) => (await call('createArtefact', { body: made })).data.summary.id;
const read = async (id: string) => (await call('readArtefact', { params: { id: id as 'C-1' } })).data;
const newest = async () => (await call('listChanges', {})).data[0]!;
const undo = (change: string) => call('undoChange', { params: { change }, body: {} });

describe('versions', () => {
  test('a save makes the next version; equal content makes none', async () => {
    const id = await create(testCase());
    expect((await save(call, id, 1, testCase({ objective: 'why' }), 'a note')).data.summary.version).toBe(2);
    expect((await save(call, id, 2, testCase({ objective: 'why' }))).data.summary.version).toBe(2);
    const versions = (await call('listVersions', { params: { id } })).data;
    expect(versions.map((v) => [v.version, v.note])).toEqual([[2, 'a note'], [1, '']]);
    expect((await call('readVersion', { params: { id, version: 1 } })).data).toMatchObject({ kind: 'case', content: { objective: '' } });
  });

  test('a save on a moved head is refused with the facts; nothing is overwritten', async () => {
    const id = await create(testCase());
    await save(call, id, 1, testCase({ objective: 'first' }));
    const second = await save(server.as(project.lead), id, 1, testCase({ objective: 'second' }));
    expect([second.status, second.refusal]).toEqual([409, expect.objectContaining({ code: 'version_moved', id, head: 2, base: 1, author: 'analyst of p' })]);
    expect((await read(id)).content).toMatchObject({ objective: 'first' });
  });

  test('of many saves at once exactly one wins', async () => {
    const id = await create(testCase());
    const saves = await Promise.all(Array.from({ length: 8 }, (_, i) => save(call, id, 1, testCase({ objective: `o${i}` }))));
    expect(saves.map((s) => s.status).sort()).toEqual([200, 409, 409, 409, 409, 409, 409, 409]);
    expect((await read(id)).summary.version).toBe(2);
  });

  test('the same command again does nothing more', async () => {
    const commandId = randomUUID();
    const made = await Promise.all([1, 2, 3].map(() => call('createArtefact', { body: testCase({ title: 'once' }) }, { 'command-id': commandId })));
    expect(new Set(made.map((m) => m.data.summary.id)).size).toBe(1);
    const { id } = made[0]!.data.summary;
    const saveId = randomUUID();
    await save(call, id, 1, testCase({ title: 'twice' }), '', saveId);
    expect((await save(call, id, 1, testCase({ title: 'twice' }), '', saveId)).data.summary.version).toBe(2);
  });

  test('a title is needed for a version and not for a draft', async () => {
    const id = await create(testCase());
    expect((await save(call, id, 1, testCase({ title: ' ' }))).refusal.code).toBe('title_missing');
    expect((await call('keepDraft', { params: { id }, body: { ...testCase({ title: '' }), base: 1, sequence: 1 } })).status).toBe(200);
  });

  test('meaning begins anew only when meaning changes', async () => {
    const id = await create(requirement({ text: 'a' }));
    await save(call, id, 1, requirement({ text: 'a', module: 'moved' }));
    expect((await read(id)).summary.meaningSince).toBe(1);
    await save(call, id, 2, requirement({ text: 'b', module: 'moved' }));
    expect((await read(id)).summary.meaningSince).toBe(3);
  });

  test('an edit of an agreed artefact is a draft again', async () => {
    const id = await create(testCase());
    await call('setState', { params: { id }, body: { state: 'agreed' } });
    await save(call, id, 1, testCase({ objective: 'later' }));
    expect((await read(id)).summary.state).toBe('draft');
  });
});

describe('drafts', () => {
  test('belong to a person, remember what they grew from, and go with the save', async () => {
    const id = await create(testCase());
    await call('keepDraft', { params: { id }, body: { ...testCase({ objective: 'typing' }), base: 1, sequence: 1 } });
    await save(server.as(project.lead), id, 1, testCase({ objective: 'theirs' }));
    expect((await read(id)).draft).toMatchObject({ base: 1, content: { objective: 'typing' }, baseContent: { objective: '' } });
    expect((await server.as(project.lead)('readArtefact', { params: { id } })).data.draft).toBeNull();
    await save(call, id, 2, testCase({ objective: 'typing' }));
    expect((await read(id)).draft).toBeNull();
  });
  test('never go backwards: what was typed earlier is refused whenever it arrives, also after a save or a drop; what is typed later stays', async () => {
    const id = await create(testCase());
    const keep = (objective: string, sequence: number) => call('keepDraft', { params: { id }, body: { ...testCase({ objective }), base: 1, sequence } });
    const kept = async () => ((await read(id)).draft?.content as { objective: string } | undefined)?.objective ?? null;
    expect((await keep('second', 20)).status).toBe(200);
    expect([(await keep('first', 10)).refusal.code, await kept()]).toEqual(['draft_older', 'second']);
    // Sent again as the answer was lost.
    expect((await keep('second', 20)).status).toBe(200);
    // A save that was on its way while more was typed.
    await keep('typed during the save', 40);
    await call('saveArtefact', { params: { project: 'p', id }, body: { ...testCase({ objective: 'second' }), note: '', sequence: 30 } }, { 'if-match': '"1"' });
    expect([(await read(id)).summary.version, await kept()]).toEqual([2, 'typed during the save']);
    await call('dropDraft', { params: { id }, query: { sequence: 50 } });
    // The very text that was dropped, or saved, still on its way; and what is typed right after it.
    expect([(await keep('dropped', 50)).refusal.code, (await keep('right after', 51)).status]).toEqual(['draft_older', 200]);
    await call('dropDraft', { params: { id }, query: { sequence: 50 } });
    expect(await kept()).toBe('right after');
    await call('dropDraft', { params: { id }, query: { sequence: 60 } });
    expect([(await keep('late', 45)).refusal.code, await kept()]).toEqual(['draft_older', null]);
    // Each person's own.
    expect((await server.as(project.lead)('keepDraft', { params: { id }, body: { ...testCase(), base: 2, sequence: 1 } })).status).toBe(200);
  });
  test('cannot grow from a version that is not there', async () => {
    const id = await create(testCase());
    expect((await call('keepDraft', { params: { id }, body: { ...testCase(), base: 9, sequence: 1 } })).refusal.code).toBe('version_unknown');
  });
});

describe('undo', () => {
  test('takes out one change and leaves what came after it', async () => {
    const id = await create(testCase());
    await save(call, id, 1, testCase({ objective: 'mistake' }));
    const mistake = (await newest()).id;
    await save(call, id, 2, testCase({ objective: 'mistake', preconditions: 'later' }));
    expect((await undo(mistake)).data.undone).toBe(true);
    expect((await read(id)).content).toMatchObject({ objective: '', preconditions: 'later' });
    expect((await undo(mistake)).refusal.code).toBe('undo_done_already');
    // Undoing the undo is redoing.
    await undo((await newest()).id);
    expect((await read(id)).content).toMatchObject({ objective: 'mistake', preconditions: 'later' });
  });
  test('is refused with the places when these changed since', async () => {
    const id = await create(testCase());
    await save(call, id, 1, testCase({ objective: 'one' }));
    const change = (await newest()).id;
    await save(call, id, 2, testCase({ objective: 'two' }));
    expect((await undo(change)).refusal).toMatchObject({ code: 'undo_blocked', id, paths: ['objective'] });
  });
  test('of a creation is refused while it is used', async () => {
    const r = (await create(requirement())) as `R-${number}`;
    const making = (await newest()).id;
    const k = await create(condition([r]));
    expect((await undo(making)).refusal).toMatchObject({ code: 'still_used', id: r, users: [k] });
    await undo((await newest()).id);
    expect((await undo(making)).status).toBe(200);
    expect((await call('readArtefact', { params: { id: r } })).refusal.code).toBe('artefact_unknown');
  });
});

describe('the outline', () => {
  test('moves keep order, refuse circles, and can be undone', async () => {
    const [a, b, c] = [await create(requirement({ title: 'a' })), await create(requirement({ title: 'b' })), await create(requirement({ title: 'c' }))] as `R-${number}`[];
    const order = async () => (await call('listArtefacts', { query: { kind: 'requirement', query: '' } })).data.filter((s) => [a, b, c].includes(s.id as 'R-1')).map((s) => s.title + (s.kind === 'requirement' && s.parent === b ? '↳' : ''));
    await call('moveRequirement', { params: { id: c! }, body: { parent: b!, after: null } });
    expect((await order()).sort()).toEqual(['a', 'b', 'c↳']);
    expect((await call('moveRequirement', { params: { id: b! }, body: { parent: c!, after: null } })).refusal).toMatchObject({ code: 'outline_circle', id: b });
    await undo((await newest()).id);
    expect(await order()).toEqual(['a', 'b', 'c']);
    await call('moveRequirement', { params: { id: c! }, body: { parent: null, after: a! } });
    expect(await order()).toEqual(['a', 'c', 'b']);
  });
  test('only requirements have a place', async () => {
    const id = await create(testCase());
    expect((await call('moveRequirement', { params: { id }, body: { parent: null, after: null } })).refusal.code).toBe('kind_mismatch');
  });
});

test('links to what is not there are refused, and the draft stays', async () => {
  const id = await create(testCase());
  const cover = newCover('K-999', 1);
  const value = testCase({ covers: [cover] });
  await call('keepDraft', { params: { id }, body: { ...value, base: 1, sequence: 1 } });
  expect((await save(call, id, 1, value)).refusal).toMatchObject({ code: 'link_unknown', id: 'K-999' });
  const after = await read(id);
  expect([after.summary.version, after.draft?.content]).toEqual([1, value.content]);
});

test('ids are never reused', async () => {
  const id = await create(testCase());
  await undo((await newest()).id);
  expect(Number((await create(testCase())).slice(2))).toBeGreaterThan(Number(id.slice(2)));
});

test('rebuilding links, search and summaries changes nothing', async () => {
  const r = (await create(requirement({ text: 'rebuilt wellspring' }))) as `R-${number}`;
  const k = (await create(condition([r]))) as `K-${number}`;
  await create(testCase({ tags: ['x'], covers: [newCover(k, 1)] }));
  const dump = () => server.db.query('SELECT * FROM link ORDER BY from_id, to_id').then(async ([links]) => [links, (await server.db.query('SELECT * FROM artefact ORDER BY id'))[0]]);
  const before = await dump();
  const count = await inTransaction(server.db, (work) => rebuildDerived(work, project.id));
  expect(count).toBeGreaterThan(10);
  expect(await dump()).toEqual(before);
});

test('migrating again has nothing to do', async () => expect(await migrate(server.db)).toEqual([]));

describe('finding', () => {
  const titles = async (query: string) => (await call('listArtefacts', { query: { kind: 'case', query } })).data.map((s) => s.title).sort();
  beforeAll(async () => {
    const step = plainStep(stepId('s'), 'roll the dial over');
    await create(testCase({ title: 'F1', module: 'Meter readings', tags: ['Smoke'], steps: [step], estimate: 5 }));
    const id = await create(testCase({ title: 'F2', module: 'Meter 100%', priority: 'high' }));
    await call('setState', { params: { id }, body: { state: 'withdrawn' } });
  });
  test.each([
    ['module:"meter readings"', ['F1']],
    ['"roll the" dial', ['F1']],
    ['tag:smoke has:steps -has:rows has:estimate', ['F1']],
    ['module:meter -tag:smoke', []],
    ['module:meter state:any', ['F1', 'F2']],
    ['module:100% state:withdrawn priority:HIGH', ['F2']],
    [`module:' state:any`, []],
  ])('%s', async (query, expected) => expect(await titles(query)).toEqual(expected));
  test('by the id of what it links to', async () => {
    const r = (await create(requirement())) as `R-${number}`;
    const k = (await create(condition([r], { title: 'linking' }))) as `K-${number}`;
    await create(testCase({ title: 'F3', covers: [newCover(k, 1)] }));
    expect(await titles(k)).toEqual(['F3']);
    expect(await titles(`covers:${k.toLowerCase()}`)).toEqual(['F3']);
    expect((await call('listArtefacts', { query: { kind: 'condition', query: r } })).data.map((s) => s.title)).toEqual(['linking']);
  });
  test('by id or by the beginnings of words, titles first', async () => {
    const found = async (words: string) => (await call('find', { query: { words } })).data.map((s) => s.title);
    expect(await found('rol dia')).toEqual(['F1']);
    const [first] = (await call('find', { query: { words: 'F1' } })).data;
    expect(await found(first!.id.toLowerCase())).toEqual(['F1']);
    expect(await found(`'); DROP TABLE artefact; --`)).toEqual([]);
  });
});
