import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { ArtefactId } from '@caderno/core/artefacts';
import { EMPTY_QUESTION } from '@caderno/core/basis';
import { plainStep, stepId, type Step } from '@caderno/core/cases';
import { EMPTY_SHARED } from '@caderno/core/shared';
import type { OwnFieldId } from '@caderno/core/fields';
import { testField } from '@caderno/core/fields/testField';
import type { ChangeMany } from '@caderno/contract';
import { execute, inTransaction } from '../src/database/index.ts';
import { condition, makeDatabase, makeProject, requirement, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});
beforeEach(() => {
  call = server.as(project.analyst);
});

async function make(...titles: string[]): Promise<ArtefactId[]> {
  const made = titles.map((title) => ({ ...testCase({ title, module: 'old' }) }));
  return (await call('writeArtefacts', { body: { made, changed: [], withdrawn: [], detail: '' } })).data.made;
}
const many = (of: ChangeMany['of'], done: ChangeMany['done'], headers = {}) => call('changeMany', { body: { of, done, detail: 'Many at once' } }, headers);
const read = async (id: ArtefactId) => (await call('readArtefact', { params: { id } })).data;
const module = (name: string): ChangeMany['done'] => ({ kind: 'edit', edit: { kind: 'module', module: name } });

test('many are moved by their ids as one entry that one undo takes back; sent twice it is done once', async () => {
  const [a, b] = (await make('A', 'B')) as [ArtefactId, ArtefactId];
  const id = randomUUID();
  const [first, again] = [await many({ ids: [a, b, a] }, module('new'), { 'command-id': id }), await many({ ids: [a, b, a] }, module('new'), { 'command-id': id })];
  expect(first.data).toMatchObject({ changed: 2, made: [], left: [], change: { action: 'write', size: 2, detail: 'Many at once' } });
  expect(again.data).toEqual(first.data);
  expect([(await read(a)).summary, (await read(b)).summary]).toMatchObject([{ module: 'new', version: 2 }, { module: 'new', version: 2 }]);
  expect((await many({ ids: [a, b] }, module('new'))).data).toMatchObject({ change: null, changed: 0 });
  expect((await call('undoChange', { params: { change: first.data.change?.id ?? '' }, body: {} })).status).toBe(200);
  expect((await read(b)).summary).toMatchObject({ module: 'old', version: 3 });
});

test('all that a query finds are changed, whatever the page shows of them; others stay', async () => {
  const found = await make('Tariff by day', 'Tariff by night');
  const [other] = (await make('Meter')) as [ArtefactId];
  expect((await many({ kind: 'case', query: 'tariff' }, { kind: 'state', state: 'withdrawn' })).data).toMatchObject({ changed: 2, left: [] });
  expect(await Promise.all([...found, other].map(async (id) => (await read(id)).summary.state))).toEqual(['withdrawn', 'withdrawn', 'draft']);
});

test('what is not there, cannot be read or has no such thing is named with its reason, and the rest is done', async () => {
  const [good, bad] = (await make('Good', 'Bad')) as [ArtefactId, ArtefactId];
  const question = (await call('createArtefact', { body: { kind: 'question', content: { ...EMPTY_QUESTION, title: 'Which?' } } })).data.summary.id;
  await inTransaction(server.db, (work) => execute(work, `UPDATE artefact_version SET content = '{"torn":1}' WHERE artefact_id = (SELECT id FROM artefact WHERE kind = 'case' AND number = $1 LIMIT 1)`, [Number(bad.slice(2))]));
  const { data } = await many({ ids: [good, bad, 'C-999', question] }, module('mended'));
  expect(data.left).toEqual([{ id: 'C-999', reason: 'absent' }, { id: bad, reason: 'broken' }, { id: question, reason: 'otherKind' }]);
  expect([data.changed, (await read(good)).summary.module]).toEqual([1, 'mended']);
});

test('clones are made on the server, one for every list of words; too many are refused', async () => {
  const [a, b] = (await make('Read the dial', 'Send the dial')) as [ArtefactId, ArtefactId];
  const sets = [[{ from: 'dial', to: 'display' }], [{ from: 'dial', to: 'slip' }]];
  const { data } = await many({ ids: [a, b] }, { kind: 'clone', parts: [], sets });
  const clones = await Promise.all(data.made.map(read));
  expect(clones.map((c) => c.summary.title)).toEqual(['Read the display', 'Read the slip', 'Send the display', 'Send the slip']);
  expect(clones[0]?.content).toMatchObject({ origin: { id: a, version: 1 } });
  const ids = Array.from({ length: 101 }, (_, i) => `C-${i + 1}` as ArtefactId);
  expect((await many({ ids }, { kind: 'clone', parts: [], sets: Array.from({ length: 50 }, () => []) })).refusal).toEqual(expect.objectContaining({ code: 'too_many_made', limit: 5000 }));
});

test('pinned users move on together; a version that is not there is refused whole', async () => {
  const shared = (await call('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'S', steps: [plainStep(stepId('1'), 'x')] } } })).data.summary.id as `S-${number}`;
  await call('saveArtefact', { params: { id: shared }, body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'S', steps: [plainStep(stepId('1'), 'y')] }, note: '' } }, { 'if-match': '"1"' });
  const pinned: Step = { kind: 'shared', id: stepId('u'), shared, pinned: 1, arguments: [] };
  const { data } = await call('writeArtefacts', { body: { made: [testCase({ title: 'Uses it', steps: [pinned] })], changed: [], withdrawn: [], detail: '' } });
  const [user] = data.made as [ArtefactId];
  const pins: ChangeMany['done'] = { kind: 'edit', edit: { kind: 'pins', of: shared, version: 2 } };
  expect((await many({ ids: [user] }, pins)).data.changed).toBe(1);
  expect((await read(user)).content).toMatchObject({ steps: [{ pinned: 2 }] });
  expect((await many({ ids: [user] }, { kind: 'edit', edit: { kind: 'pins', of: shared, version: 9 } })).refusal.code).toBe('version_unknown');
  expect((await read(user)).content).toMatchObject({ steps: [{ pinned: 2 }] });
});

test('a project names its own priorities: what is new begins with the middle one, and it is asked for by its name', async () => {
  const { version, settings } = (await call('readSettings')).data;
  await call('saveSettings', { body: { ...settings, priorities: ['Must', 'Should', 'Could'] } }, { 'if-match': `"${version}"` });
  const [a, b] = (await make('First', 'Second')) as [ArtefactId, ArtefactId];
  expect([(await read(a)).summary, (await read(a)).content]).toMatchObject([{ priority: 'Should' }, { priority: 'Should' }]);
  await many({ ids: [b] }, { kind: 'edit', edit: { kind: 'priority', priority: 'Must' } });
  expect((await many({ kind: 'case', query: 'priority:must' }, module('urgent'))).data.changed).toBe(1);
  expect((await read(b)).summary).toMatchObject({ module: 'urgent', priority: 'Must' });
  const refused = await call('saveSettings', { body: { ...settings, priorities: ['Must', 'MUST'] } }, { 'if-match': `"${version + 1}"` });
  expect(refused.refusal).toMatchObject({ code: 'request_invalid', issues: [{ path: expect.stringContaining('priorities') }] });
  await call('saveSettings', { body: settings }, { 'if-match': `"${version + 1}"` });
});

test('readers change nothing', async () => {
  const [a] = (await make('Kept')) as [ArtefactId];
  expect((await server.as(project.reader)('changeMany', { body: { of: { ids: [a] }, done: module('x'), detail: '' } })).status).toBe(403);
});

test('conditions are copied and moved to another requirement and put in a depth, each by one command that reads nothing before', async () => {
  const made = (await call('writeArtefacts', { body: { made: [requirement({ title: 'Here' }), requirement({ title: 'There' }), ...['K', 'L'].map((title) => condition([], { title, depths: ['smoke'] }))], changed: [], withdrawn: [], detail: '' } })).data.made;
  const [here, there, k, l] = made as [`R-${number}`, `R-${number}`, ArtefactId, ArtefactId];
  const derive = (requirementId: `R-${number}`, insteadOf: `R-${number}` | null) => many({ ids: [k, l] }, { kind: 'edit', edit: { kind: 'derivedFrom', requirement: requirementId, seenVersion: 1, insteadOf } });
  const links = async (id: ArtefactId) => ((await read(id)).content as unknown as { requirements: { id: string }[] }).requirements.map((r) => r.id);
  expect((await derive(here, null)).data.changed).toBe(2);
  expect((await derive(here, null)).data).toMatchObject({ change: null, changed: 0 });
  await derive(there, here);
  expect([await links(k), await links(l)]).toEqual([[there], [there]]);
  const { data } = await many({ ids: [k, l, here] }, { kind: 'copyTo', requirement: here, seenVersion: 1 });
  expect([data.made.length, data.left]).toEqual([2, [{ id: here, reason: 'otherKind' }]]);
  expect([await links(data.made[0]!), (await read(data.made[0]!)).content]).toEqual([[here], expect.objectContaining({ title: 'K', depths: ['smoke'] })]);
  await many({ ids: [k, l] }, { kind: 'edit', edit: { kind: 'depth', depth: 'smoke', belongs: false } });
  expect((await read(l)).content).toMatchObject({ depths: [] });
  expect((await many({ ids: [k] }, { kind: 'copyTo', requirement: 'R-999', seenVersion: 1 })).refusal.code).toBe('link_unknown');
  expect((await many({ ids: [k] }, { kind: 'copyTo', requirement: here, seenVersion: 9 })).refusal.code).toBe('version_unknown');
});

test('every field that lists set is set in those a query finds, by whoever asks; the rest stays as it is', async () => {
  const [a, b, c] = (await make('Field one', 'Field two', 'Field three')) as [ArtefactId, ArtefactId, ArtefactId];
  const covered = (await call('createArtefact', { body: condition([], { title: 'To be covered' }) })).data.summary.id as `K-${number}`;
  const edit = (of: ChangeMany['of'], part: Extract<ChangeMany['done'], { kind: 'edit' }>['edit']) => many(of, { kind: 'edit', edit: part });
  const ids = [a, b] as const;
  const person = (await call('readSession')).data.person?.name ?? '';
  await edit({ ids: [...ids] }, { kind: 'owner', owner: person });
  await edit({ ids: [...ids] }, { kind: 'minutes', minutes: 2.5 });
  await edit({ ids: [a, c] }, { kind: 'tag', tag: 'night', belongs: true });
  // Found by what was just set: mine, of two and a half minutes, tagged or not.
  const mine = { kind: 'case' as const, query: 'is:mine minutes<3 (tag:night or title) field' };
  expect((await edit(mine, { kind: 'execution', execution: 'automated' })).data).toMatchObject({ changed: 1, left: [] });
  expect((await edit({ kind: 'case', query: 'is:mine minutes=2.5' }, { kind: 'covers', condition: covered, seenVersion: 1, belongs: true })).data).toMatchObject({ changed: 2 });
  expect((await edit({ kind: 'case', query: `covers:${covered} -tag:night` }, { kind: 'caseKind', caseKind: 'charter' })).data).toMatchObject({ changed: 1 });
  const heads = await Promise.all([a, b, c].map(async (id) => (await read(id)).summary));
  expect(heads).toMatchObject([
    { owner: person, estimate: 2.5, tags: ['night'], execution: 'automated', covers: [covered], caseKind: 'procedure' },
    { owner: person, estimate: 2.5, tags: [], execution: 'byHand', covers: [covered], caseKind: 'charter' },
    { owner: '', estimate: null, tags: ['night'], execution: 'byHand', covers: [] },
  ]);
  // Somebody else's are others.
  expect((await server.as(project.lead)('changeMany', { body: { of: { kind: 'case', query: 'is:mine' }, done: { kind: 'state', state: 'withdrawn' }, detail: '' } })).data).toMatchObject({ change: null, changed: 0 });
  expect((await edit({ ids: [a] }, { kind: 'covers', condition: 'K-999', seenVersion: 1, belongs: true })).refusal).toMatchObject({ code: 'link_unknown', id: 'K-999' });
  expect((await edit({ ids: [a] }, { kind: 'tag', tag: '  ', belongs: true })).refusal.code).toBe('request_invalid');
});

test('a head that was read for the change is not read again, and a change that brings nothing new makes no version', async () => {
  const [a] = (await make('Same')) as [ArtefactId];
  const before = (await read(a)).summary.version;
  for (const done of [module('old'), { kind: 'edit', edit: { kind: 'tag', tag: 'x', belongs: false } }, { kind: 'edit', edit: { kind: 'minutes', minutes: null } }] as const) expect((await many({ ids: [a] }, done)).data).toMatchObject({ change: null, changed: 0 });
  expect((await read(a)).summary.version).toBe(before);
});

const search = (text: string, replacement: string, more = {}) => ({ text, replacement, isPattern: false, matchCase: false, wholeWords: false, inNames: false, ...more });
const everyPart = ['title', 'text', 'steps', 'expected', 'data', 'fields'] as const;
const places = (of: ChangeMany['of'], text: string, more = {}, skip = 0) => call('findPlaces', { body: { of, search: search(text, ''), parts: [...everyPart], skip, ...more } });

test('texts are looked through and replaced but where they were not ticked, as one entry; whatever changed since is left', async () => {
  const valve = (title: string) => ({ ...testCase({ title, objective: 'The valve "A\\B" turns', steps: [plainStep(stepId('s1'), 'Open the valve', 'The valve is open')] }) });
  const requirementOfValves = requirement({ title: 'Valves', text: 'A valve closes.' });
  const [a, b, c, r] = (await call('writeArtefacts', { body: { made: [valve('Valve one'), valve('Valve two'), valve('Valve three'), requirementOfValves], changed: [], withdrawn: [], detail: '' } })).data.made as [ArtefactId, ArtefactId, ArtefactId, ArtefactId];
  const found = (await places({ ids: [a, r, b, c] }, 'valve')).data;
  expect([found.total, found.matches, found.artefacts, found.places.slice(0, 5).map((p) => `${p.id} ${p.path}`)]).toEqual([14, 14, 4, [`${a} title`, `${a} objective`, `${a} steps/s1/action`, `${a} steps/s1/expected`, `${r} title`]]);
  expect(found.places[3]).toMatchObject({ name: { kind: 'step', number: 1, field: 'expected' }, text: 'The valve is open', matches: [{ at: 4, length: 5 }] });
  expect((await places({ ids: [a] }, 'valve', { parts: ['expected'] }, 1)).data).toMatchObject({ places: [], total: 1 });
  // Found by what is stored, whatever signs stand in it; by a query, and everywhere.
  expect((await places({ ids: [a] }, '"A\\B"')).data.total).toBe(1);
  expect([(await places({ kind: 'case', query: `id:${a}` }, 'VALVE')).data.artefacts, (await places({ everything: true }, 'a valve closes')).data.artefacts]).toEqual([1, 1]);

  await call('saveArtefact', { params: { id: c }, body: { ...valve('Valve three again'), note: '' } }, { 'if-match': '"1"' });
  const replace: ChangeMany['done'] = { kind: 'replace', search: search('valve', 'tap'), parts: [...everyPart], without: [{ id: b, paths: ['steps/s1/action'] }], asOf: found.revision };
  const done = (await many({ ids: [a, r, b, c] }, replace)).data;
  expect([done.changed, done.left]).toEqual([3, [{ id: c, reason: 'changedMeanwhile' }]]);
  expect([(await read(a)).content, (await read(b)).content, (await read(r)).content]).toMatchObject([{ title: 'tap one', objective: 'The tap "A\\B" turns' }, { title: 'tap two', steps: [{ action: 'Open the valve', expected: 'The tap is open' }] }, { title: 'taps', text: 'A tap closes.' }]);
  await call('undoChange', { params: { change: done.change?.id ?? '' }, body: {} });
  expect((await places({ ids: [a, r, b, c] }, 'valve')).data.total).toBe(14);
});

test('what stands in a text field of the project’s own is found by its name and replaced with the rest; choices are none', async () => {
  const { version, settings } = (await call('readSettings')).data;
  const fields = [...settings.fields, testField('Place of work', 'text'), testField('Tool', 'choice', { choices: ['valve'] })];
  expect((await call('saveSettings', { body: { ...settings, fields } }, { 'if-match': `"${version}"` })).status).toBe(200);
  const [where, tool] = fields.slice(-2).map((f) => f.id) as [OwnFieldId, OwnFieldId];
  const [a] = (await call('writeArtefacts', { body: { made: [testCase({ title: 'One', own: { [where]: 'Valve house', [tool]: 'valve' } })], changed: [], withdrawn: [], detail: '' } })).data.made as [ArtefactId];
  const found = (await places({ ids: [a] }, 'valve', { parts: ['fields'] })).data;
  expect(found.places).toMatchObject([{ id: a, part: 'fields', name: { kind: 'own', field: 'Place of work' }, text: 'Valve house' }]);
  await many({ ids: [a] }, { kind: 'replace', search: search('valve', 'tap'), parts: ['fields'], without: [], asOf: found.revision });
  expect((await read(a)).content.own).toEqual({ [where]: 'tap house', [tool]: 'valve' });
  expect((await places({ ids: [a] }, 'house', { parts: ['title', 'text', 'steps', 'expected', 'data'] })).data.total).toBe(0);
});

test('words that nearly all have are found in the next thousand as well, where few have them', async () => {
  const title = (i: number): string => (i < 1_000 ? `Gauge ${i}` : i % 50 === 0 ? `gauge at last ${i}` : `Without ${i}`);
  const of: ArtefactId[] = [];
  for (let from = 0; from < 2_100; from += 700) of.push(...(await call('writeArtefacts', { body: { made: Array.from({ length: 700 }, (_, i) => testCase({ title: title(from + i) })), changed: [], withdrawn: [], detail: '' } })).data.made);
  const expected = of.filter((_, i) => title(i).toLowerCase().includes('gauge')).length;
  const { data } = await places({ ids: of }, 'gauge');
  expect([data.total, data.artefacts, expected]).toEqual([1_022, 1_022, 1_022]);
  expect((await places({ ids: of }, 'gauge', {}, 1_020)).data.places.map((p) => p.text)).toEqual(['gauge at last 2000', 'gauge at last 2050']);
});

test('what would be without a title or too long is left as it is; what is no pattern is refused', async () => {
  const [a, b] = (await make('gone', 'a gone')) as [ArtefactId, ArtefactId];
  const replace = (text: string, replacement: string, more = {}) => many({ ids: [a, b] }, { kind: 'replace', search: search(text, replacement, more), parts: ['title'], without: [], asOf: 999_999 });
  expect((await replace('gone', '')).data).toMatchObject({ changed: 1, left: [{ id: a, reason: 'untitled' }] });
  expect((await replace('gone', 'x'.repeat(301))).data).toMatchObject({ changed: 0, left: [{ id: a, reason: 'tooLong' }] });
  expect([await replace('a(', 'x', { isPattern: true }), await replace('', 'x')]).toMatchObject([{ status: 422, data: { code: 'search_unreadable' } }, { status: 422 }]);
  expect((await server.as(project.reader)('findPlaces', { body: { of: { ids: [a] }, search: search('gone', ''), parts: ['title'], skip: 0 } })).status).toBe(200);
});
