import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { ConditionContent, Model } from '@caderno/core/conditions';
import { eventId, fieldId, stateId, transitionId } from '@caderno/core/conditions';
import { newCover } from '@caderno/core/cases';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { kindAndContentOrBroken } from '../src/artefacts/index.ts';
import { condition, makeDatabase, makeProject, requirement, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let call: Caller;
let lead: Caller;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  const project = await makeProject(server.db);
  call = server.as(project.analyst);
  lead = server.as(project.lead);
  await call('createArtefact', { body: requirement() });
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const value = (id: string) => ({ id, value: `“${id}” <ü> 💧`, aliases: [] });
const MODELS: Model[] = [
  { kind: 'decisionTable', conditions: [{ id: fieldId('c'), name: 'c', values: [value('y'), value('n')] }], actions: [{ id: 'a', name: 'a' }], rules: [{ id: 'r', entries: { c: ['y'] }, impossible: false, actions: { a: 'x' } }] },
  { kind: 'stateTransitions', states: [{ id: stateId('s'), name: 'S', initial: true, final: false, place: { x: 3, y: 4.5 } }], events: [{ id: eventId('e'), name: 'e' }], transitions: [{ id: transitionId('t'), from: stateId('s'), event: eventId('e'), to: stateId('s'), guard: 'g', action: 'a' }], level: 'switch1', invalidPairs: true },
  { kind: 'combination', factors: [{ id: fieldId('f'), name: 'f', values: [{ ...value('v'), valid: true, base: true, outcome: '' }] }], constraints: [{ id: 'k', text: 'not f = "v"' }], strength: 'pairs', groups: [{ id: 'g', factors: [fieldId('f')], size: 2 }], seed: 7 },
];

test('every model is kept as it is, with names of any character', async () => {
  for (const model of MODELS) {
    const made = (await call('createArtefact', { body: condition(['R-1'], { model }) })).data;
    expect((await call('readArtefact', { params: { id: made.summary.id } })).data.content).toMatchObject({ model });
  }
  const refused = await call('createArtefact', { body: condition(['R-1'], { model: { ...MODELS[2], seed: -1 } }) });
  expect(refused.status).toBe(400);
});

test('one command makes, changes and withdraws; a retry does nothing again; one undo takes all of it back', async () => {
  const k = (await call('createArtefact', { body: condition(['R-1'], { title: 'Kept' }) })).data.summary.id as `K-${number}`;
  const gone = (await call('createArtefact', { body: condition(['R-1'], { title: 'Gone' }) })).data.summary.id;
  const c = (await call('createArtefact', { body: testCase({ title: 'Before' }) })).data.summary.id;
  const changed = testCase({ title: 'After', covers: [newCover(k, 1)] });
  const body = { made: [{ ...condition(['R-1'], { title: 'Above' }) }, { ...testCase({ title: 'Between' }) }, { ...condition(['R-1'], { title: 'Below' }), under: 0 }], changed: [{ ...changed, id: c, version: 1 }], withdrawn: [gone], detail: 'All at once' };
  const command = randomUUID();
  const first = (await call('writeArtefacts', { body }, { 'command-id': command })).data;
  expect(first.made.map((id) => id[0])).toEqual(['K', 'C', 'K']);
  const below = (await call('readArtefact', { params: { id: first.made[2] ?? 'K-0' } })).data;
  expect(below.content).toMatchObject({ title: 'Below', under: first.made[0] });
  expect((await call('readArtefact', { params: { id: gone } })).data.summary.state).toBe('withdrawn');
  const again = (await call('writeArtefacts', { body }, { 'command-id': command })).data;
  expect([again.change?.id, [...again.made].sort()]).toEqual([first.change?.id, [...first.made].sort()]);
  expect((await call('listChanges', {})).data[0]).toMatchObject({ action: 'write', detail: 'All at once', size: 5 });

  const stale = await call('writeArtefacts', { body: { ...body, made: [condition(['R-1'], { title: 'Never' })] } }, { 'command-id': randomUUID() });
  expect(stale.refusal).toMatchObject({ code: 'version_moved', head: 2, base: 1 });
  expect((await call('listChanges', {})).data[0]?.detail).toBe('All at once');

  expect((await call('undoChange', { params: { change: first.change?.id ?? '' }, body: {} })).data.undone).toBe(true);
  expect((await call('readArtefact', { params: { id: c } })).data.content.title).toBe('Before');
  expect((await call('readArtefact', { params: { id: gone } })).data.summary.state).toBe('draft');
  expect((await call('readArtefact', { params: { id: first.made[0] ?? 'K-0' } })).status).toBe(404);
});

test('a model beyond the project’s limit counts as one item that nothing shows; the limit is a lead’s', async () => {
  const factors = Array.from({ length: 8 }, (_, f) => ({ id: fieldId(`f${f}`), name: `f${f}`, values: Array.from({ length: 4 }, (_v, v) => ({ ...value(`v${v}`), valid: true, base: false, outcome: '' })) }));
  const r = (await call('createArtefact', { body: requirement({ title: 'Large' }) })).data.summary.id as `R-${number}`;
  const k = (await call('createArtefact', { body: condition([r], { model: { ...MODELS[2], factors, groups: [], constraints: [] } }) })).data.summary.id;
  const items = async () => (await call('listItems', { query: { requirement: r } })).data;
  expect((await items()).total).toBe((8 * 7 * 16) / 2);
  const settings = { ...DEFAULT_SETTINGS, mostItems: 400, depths: ['smoke'] };
  expect((await call('saveSettings', { body: settings }, { 'if-match': `"${(await call('readSettings', {})).data.version}"` })).refusal).toMatchObject({ code: 'role_too_low' });
  await lead('saveSettings', { body: settings }, { 'if-match': `"${(await lead('readSettings', {})).data.version}"` });
  expect(await items()).toMatchObject({ total: 1, items: [{ condition: k, standing: 'gap', item: { extent: '448 items, over the project’s limit of 400' } }] });
  expect((await call('readDesign', { query: { condition: k } })).data.mostItems).toBe(400);
});

test('what earlier releases stored is read as it was meant', () => {
  const field = { id: 'f', name: 'f', type: { kind: 'whole' }, unit: '', required: true, intervals: [], choices: [], classes: [] };
  const old = { title: 'K', polarity: 'both', risk: null, requirements: [], model: { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [field] }, leftOut: [] };
  const read = kindAndContentOrBroken('condition', 1, old);
  const expected: Partial<ConditionContent> = { depths: [], under: null, order: 0, observations: [], defects: [] };
  expect(read?.content).toMatchObject({ ...expected, model: { fields: [{ ...field, patterns: [] }] } });
  const covers = [{ id: 'K-1', seenVersion: 2, fields: [], outcome: null, expects: ['s'] }];
  const { covers: _, ...rest } = testCase().content;
  expect(kindAndContentOrBroken('case', 2, { ...rest, covers })?.content).toMatchObject({ covers: [{ ...covers[0], start: null, events: [] }] });
});
