import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { newCover, parameterId, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_FEATURE, ownKindId, partId, takenApart, textOf, withPhraseDetailed, withText } from '@caderno/core/scenarios';
import { EMPTY_CONDITION, fieldId } from '@caderno/core/conditions';
import { EMPTY_SHARED, type SharedContent } from '@caderno/core/shared';
import { API_ROOT, unpackRows, type ProjectSettings } from '@caderno/contract';
import { condition, makeDatabase, makeProject, requirement, save, startServer, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let people: Awaited<ReturnType<typeof makeProject>>;
let here: Caller;
let key = '';
let [turn, made] = [0, 0];

/** Calls in a project, as one of its people. */
function inProject(project: string, session: string): Caller {
  const call = server.as(session);
  return (name, input = {}, headers = {}) => call(name, { ...input, params: Object.assign({}, input.params, { project }) }, headers);
}

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});
beforeEach(async () => {
  key = `phrases-${(turn += 1)}`;
  people = await makeProject(server.db, key);
  here = inProject(key, people.analyst);
});

const keyOf = (text: string) => takenApart(text).key;
const feature = (name: string, ...steps: string[]) => `@a\nFeature: ${name}\n\n  Scenario: s\n${steps.map((s) => `    ${s}\n`).join('')}`;
const write = async (text: string) => (await here('createArtefact', { body: { kind: 'feature', content: withText({ ...EMPTY_FEATURE, path: `${(made += 1)}.feature` }, text, () => `i${(made += 1)}`) } })).data.summary.id;
const textHere = async (id: string, call = here) => {
  const read = (await call('readArtefact', { params: { id } as never })).data;
  return read.kind === 'feature' ? textOf(read.content) : '';
};
const phrases = async () => (await here('readPhrases')).data.phrases.map((p) => [p.key, p.uses, p.features]);

test('the phrasebook follows every save, and what is withdrawn or undone is not in it', async () => {
  expect(await phrases()).toEqual([]);
  const first = await write(feature('One', 'Given a meter "M-1"', 'Then it is stored'));
  await write(feature('Two', 'Given a meter "M-2"', 'Then it was stored'));
  expect(await phrases()).toEqual([['a meter {string}', 2, 2], ['it is stored', 1, 1], ['it was stored', 1, 1]]);
  expect((await here('readPhrases')).data.alike).toEqual([{ why: 'sameWords', keys: ['it is stored', 'it was stored'] }]);
  await here('setState', { params: { id: first } as never, body: { state: 'withdrawn' } });
  expect(await phrases()).toEqual([['a meter {string}', 1, 1], ['it was stored', 1, 1]]);
  const [last] = (await here('listChanges', { query: {} })).data;
  await here('undoChange', { params: { change: last?.id ?? '' } as never, body: {} });
  expect(await phrases()).toHaveLength(3);
  expect((await here('findPhraseUses', { body: { keys: [keyOf('a meter "x"')] } })).data).toEqual({
    total: 2,
    features: [1, 2].map((n) => ({ id: `F-${n}`, uses: [{ key: 'a meter {string}', scenario: 1, line: 5, text: `a meter "M-${n}"` }] })),
  });
});

test('one wording is written into every use by one entry, which its undo takes back whole', async () => {
  const texts = [feature('One', 'Given 5 coins', 'Then the ledger is unchanged'), feature('Two', 'Then the ledger was unchanged', 'And it ends')];
  for (const text of texts) await write(text);
  const from = [keyOf('the ledger is unchanged'), keyOf('the ledger was unchanged'), keyOf('5 coins')];
  const done = (await here('changeMany', { body: { of: { kind: 'feature', query: '' }, done: { kind: 'edit', edit: { kind: 'wording', from, to: keyOf('the ledger stays as it was') } }, detail: 'one wording' } })).data;
  expect([done.changed, done.left]).toEqual([2, []]);
  expect([await textHere('F-1'), await textHere('F-2')]).toEqual([texts[0]?.replace('is unchanged', 'stays as it was'), texts[1]?.replace('was unchanged', 'stays as it was')]);
  await here('undoChange', { params: { change: done.change?.id ?? '' } as never, body: {} });
  expect([await textHere('F-1'), await textHere('F-2')]).toEqual(texts);
  expect((await inProject(key, people.reader)('changeMany', { body: { of: { ids: ['F-1'] }, done: { kind: 'edit', edit: { kind: 'wording', from, to: keyOf('x') } }, detail: '' } })).status).toBe(403);
});

test('scenarios written twice are found over all features, anew after each save', async () => {
  const twice = async () => (await here('readWrittenTwice')).data;
  await write(feature('One', 'Given 5 coins', 'When the clerk pays', 'Then it is stored'));
  await write(feature('Two', 'Given 7 coins', 'When the clerk pays', 'Then it is stored'));
  await write(feature('Three', 'Given 7 coins', 'When the clerk pays', 'Then it is refused'));
  const [one, two, three] = [1, 2, 3].map((n) => ({ feature: `F-${n}`, scenario: 1 }));
  expect(await twice()).toEqual({ same: [[one, two]], alike: [{ first: one, second: three, likeness: expect.closeTo(2 / 3, 5) }] });
  await here('setState', { params: { id: 'F-1' } as never, body: { state: 'withdrawn' } });
  expect(await twice()).toEqual({ same: [], alike: [{ first: two, second: three, likeness: expect.closeTo(2 / 3, 5) }] });
});

test('shared steps that say a phrase in full count for every scenario that says it, from the save on that lets them, and stay with its wording', async () => {
  await here('createArtefact', { body: requirement() });
  await here('createArtefact', { body: condition(['R-1']) });
  const id = await write(feature('One', 'When the clerk enters 5'));
  const read = (await here('readArtefact', { params: { id } as never })).data;
  if (read.kind !== 'feature') throw new Error('It is a feature');
  // What tells is a step of the shared steps.
  const parts = read.content.parts.map((p) => (p.kind === 'scenario' ? { ...p, covers: [{ ...newCover('K-1', 1), expects: [stepId('seen')] }] } : p));
  await save(here, id, 1, { kind: 'feature', content: { ...read.content, parts } });
  const standing = async () => unpackRows((await here('readCoverageRows', { query: {} })).data.rows).flatMap((row) => ('standings' in row ? [row.standings] : []));
  const around = async () => (await here('readDesign', { query: { condition: 'K-1' } })).data;
  expect(await standing()).toEqual([['linked']]);
  const shared: SharedContent = { ...EMPTY_SHARED, title: 'Enter it', parameters: [{ id: parameterId('p'), name: 'value', type: 'text', default: '', description: '' }], steps: [plainStep(stepId('seen'), 'Type <value>', '<value> stands there')] };
  await here('createArtefact', { body: { kind: 'shared', content: shared } });
  expect(await standing()).toEqual([['linked']]);
  const detailed = withPhraseDetailed(shared, keyOf('the clerk enters 5'), 'd');
  await save(here, 'S-1', 1, { kind: 'shared', content: detailed });
  expect(await standing()).toEqual([['shown']]);
  expect((await around()).library.map((e) => e.key)).toEqual(['S-1']);
  const [head] = (await here('listArtefacts', { query: { kind: 'shared' } })).data;
  expect(head).toMatchObject({ phrases: [{ phrase: 'the clerk enters {}', takes: ['value'] }] });
  // Another server, which computes from scratch, says the same.
  const fresh = await startServer(database.url);
  const from = fresh.as(people.reader);
  expect((await from('readDesign', { params: { project: key } as never, query: { condition: 'K-1' } })).data).toEqual(await around());
  await fresh.close();

  const to = keyOf('a reading of 5 comes in');
  const done = (await here('changeMany', { body: { of: { ids: [id, 'S-1'] }, done: { kind: 'edit', edit: { kind: 'wording', from: [keyOf('the clerk enters 5')], to } }, detail: '' } })).data;
  expect([done.changed, await textHere(id)]).toEqual([2, feature('One', 'When a reading of 5 comes in')]);
  expect(await standing()).toEqual([['shown']]);
  await here('setState', { params: { id: 'S-1' } as never, body: { state: 'withdrawn' } });
  expect(await standing()).toEqual([['linked']]);
  await here('undoChange', { params: { change: (await here('listChanges', { query: {} })).data[0]?.id ?? '' } as never, body: {} });
  expect(await standing()).toEqual([['shown']]);
});

test('tags, titles and words are changed in the text, and lists find what is there now', async () => {
  await write(feature('One', 'Given x'));
  await write('Feature: Two\n  @slow\n  Scenario: y\n');
  const edit = (edit: object) => here('changeMany', { body: { of: { kind: 'feature', query: '' }, done: { kind: 'edit', edit } as never, detail: '' } });
  await edit({ kind: 'tag', tag: 'bill', belongs: true });
  await edit({ kind: 'tags', from: ['slow'], to: 'late' });
  expect([await textHere('F-1'), await textHere('F-2')]).toEqual([feature('One', 'Given x').replace('@a', '@a @bill'), '@bill\nFeature: Two\n  @late\n  Scenario: y\n']);
  const found = async (query: string) => (await here('listArtefacts', { query: { kind: 'feature', query } })).data.map((h) => h.id);
  expect([await found('tag:late'), await found('tag:@bill'), await found('tag:slow'), await found('scenarios>0 -has:problems')]).toEqual([['F-2'], ['F-1', 'F-2'], [], ['F-1', 'F-2']]);
  expect((await edit({ kind: 'tag', tag: 'two words', belongs: true })).data.left).toEqual([{ id: 'F-1', reason: 'otherKind' }, { id: 'F-2', reason: 'otherKind' }]);
  await here('changeMany', { body: { of: { ids: ['F-1'] }, done: { kind: 'edit', edit: { kind: 'title', title: 'Renamed' } }, detail: '' } });
  expect([(await found('renamed')), (await textHere('F-1')).split('\n')[1]]).toEqual([['F-1'], 'Feature: Renamed']);
});

test('a feature is carried to another project with the requirement it is written for', async () => {
  await here('createArtefact', { body: requirement({ title: 'Paying' }) });
  const id = await write(feature('One', 'Given x'));
  const read = (await here('readArtefact', { params: { id } as never })).data;
  if (read.kind !== 'feature') throw new Error('It is a feature');
  await here('saveArtefact', { params: { id } as never, body: { kind: 'feature', content: { ...read.content, requirements: [{ id: 'R-1', seenVersion: 1, parts: [partId('gone'), read.content.parts.find((p) => p.kind === 'scenario')!.id] }] }, note: '', sequence: 1 } as never }, { 'if-match': '"1"' });
  const response = await server.fetch(`${API_ROOT}/projects/${key}/design/export`, { method: 'POST', headers: { cookie: `caderno_session=${people.analyst}`, 'content-type': 'application/json' }, body: JSON.stringify({ of: { ids: [id] }, files: false, form: 'file' }) });
  const there = inProject('phrases-there', (await makeProject(server.db, 'phrases-there')).analyst);
  await there('createArtefact', { body: requirement({ title: 'Stands before it' }) });
  const draft = (await there('uploadDesign', { query: { name: 'x.json' }, body: new Uint8Array(await response.arrayBuffer()) })).data;
  expect(draft.counts).toMatchObject({ feature: { added: 1 }, requirement: { added: 1 } });
  await there('runDesign', { params: { import: draft.id } as never, body: { choices: {} } });
  const carried = (await there('readArtefact', { params: { id: 'F-1' } as never })).data;
  expect(carried.kind === 'feature' && [textOf(carried.content), carried.content.requirements]).toEqual([feature('One', 'Given x'), [{ id: 'R-2', seenVersion: 1, parts: [read.content.parts.find((p) => p.kind === 'scenario')!.id] }]]);
});

test('a kind of values of the project makes one phrase of many, is evidence at once, and leaves what was linked', async () => {
  await here('createArtefact', { body: requirement() });
  const dry = fieldId('season');
  await here('createArtefact', { body: { kind: 'condition', content: { ...EMPTY_CONDITION, title: 'Season', requirements: [{ id: 'R-1', seenVersion: 1, anchor: null }], model: { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [{ id: dry, name: 'Season', type: { kind: 'choice' }, unit: '', required: false, intervals: [], patterns: [], classes: [], choices: ['dry', 'wet'].map((value) => ({ id: value, value, aliases: [], valid: true, outcome: '' })) }] } } } });
  const id = await write(feature('One', 'When the dry season has 5 weeks', 'Then the wet season is over'));
  expect(await phrases()).toHaveLength(2);
  const set = async (part: Partial<ProjectSettings>): Promise<number> => {
    const { settings, version } = (await here('readSettings')).data;
    return (await here('saveSettings', { body: { ...settings, ...part } }, { 'if-match': `"${version}"` })).status;
  };
  const season = { id: ownKindId('s1'), name: 'season', pattern: 'dry|wet' };
  expect(await set({ agreedPhrases: [keyOf('the dry season has 5 weeks')], valueKinds: [season] })).toBe(200);
  expect((await here('readPhrases')).data.phrases.map((p) => [p.key, p.holes])).toEqual([['the {} season has {} weeks', ['{season}', 'int']], ['the {} season is over', ['{season}']]]);

  const read = (await here('readArtefact', { params: { id } as never })).data;
  if (read.kind !== 'feature') throw new Error('It is a feature');
  const step = read.content.parts.flatMap((p) => p.lines).find((l) => l.text.includes('the dry season'))?.id ?? '';
  const parts = read.content.parts.map((p) => (p.kind === 'scenario' ? { ...p, covers: [{ ...newCover('K-1', 1), fields: [{ id: dry, parameter: parameterId(`${step}.s1.0`) }] }] } : p));
  await save(here, id, 1, { kind: 'feature', content: { ...read.content, parts } });
  const shown = async (call: Caller = here) => unpackRows((await call('readCoverageRows', { params: { project: key } as never, query: {} })).data.rows).flatMap((row) => ('standings' in row ? row.standings.filter((s) => s === 'shown') : [])).length;
  expect(await shown()).toBe(1);

  expect(await set({ valueKinds: [season, { ...season, id: ownKindId('s2') }] })).toBe(400);
  for (const pattern of ['(', 'a*', ' | ']) expect([pattern, await set({ valueKinds: [season, { id: ownKindId('s2'), name: 'other', pattern }] })]).toEqual([pattern, 422]);
  expect(await set({ valueKinds: [] })).toBe(200);
  expect([await shown(), await phrases()]).toEqual([0, [['the dry season has {} weeks', 1, 1], ['the wet season is over', 1, 1]]]);
  await here('undoChange', { params: { change: (await here('listChanges', { query: {} })).data[0]?.id ?? '' } as never, body: {} });
  expect(await shown()).toBe(1);
  const fresh = await startServer(database.url);
  expect(await shown(fresh.as(people.reader))).toBe(1);
  await fresh.close();
});
