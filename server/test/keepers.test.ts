import { expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { reviewNumber } from '@caderno/core/reviews';
import { DEFAULT_SETTINGS, type Keepers } from '@caderno/contract';
import { condition, eachInProject, requirement, save, testCase, type Caller } from './harness.ts';

const the = eachInProject('keepers');

/** Somebody else, who need not be in the project. */
const OTHER = '00000000-0000-4000-8000-0000000000ff';

async function keep(keepers: readonly Keepers[]): Promise<void> {
  const { version, settings } = (await the.lead('readSettings', {})).data;
  expect((await the.lead('saveSettings', { body: { ...settings, keepers } }, { 'if-match': `"${version}"` })).status).toBe(200);
}

/** R-1 and C-1 in Billing, K-1 of R-1, C-2 in Readings; Billing is kept by somebody else. */
async function kept(): Promise<void> {
  await the.lead('createArtefact', { body: requirement({ title: 'Bills', module: 'Billing' }) });
  await the.lead('createArtefact', { body: testCase({ title: 'Pay', module: 'Billing' }) });
  await the.lead('createArtefact', { body: condition(['R-1']) });
  await the.lead('createArtefact', { body: testCase({ title: 'Read', module: 'Readings' }) });
  await keep([{ module: 'Billing', people: [OTHER] }]);
}

test('what is in a module that others keep is changed by them and by leads, in no way by anybody else; elsewhere all goes on', async () => {
  await kept();
  const refused = { status: 403, data: { code: 'kept_by_others', module: 'Billing', people: [] } };
  const { analyst } = the;
  expect(await save(analyst, 'C-1', 1, testCase({ title: 'Pay now', module: 'Billing' }), '', undefined, the.key)).toMatchObject({ ...refused, data: { ...refused.data, id: 'C-1' } });
  // Neither taken out of the module, nor anything put into it.
  expect(await save(analyst, 'C-1', 1, testCase({ title: 'Pay', module: 'Readings' }), '', undefined, the.key)).toMatchObject(refused);
  expect(await save(analyst, 'C-2', 1, testCase({ title: 'Read', module: 'Billing' }), '', undefined, the.key)).toMatchObject(refused);
  expect(await analyst('createArtefact', { body: testCase({ title: 'New', module: 'Billing' }) })).toMatchObject(refused);
  expect(await analyst('setState', { params: { id: 'C-1' }, body: { state: 'withdrawn' } })).toMatchObject(refused);
  // A condition is where its requirements are.
  expect(await save(analyst, 'K-1', 1, condition(['R-1'], { title: 'Other' }), '', undefined, the.key)).toMatchObject({ ...refused, data: { ...refused.data, id: 'K-1' } });
  expect(await save(analyst, 'K-1', 1, condition([]), '', undefined, the.key)).toMatchObject(refused);
  expect((await analyst('createArtefact', { body: condition(['R-1']) })).status).toBe(403);
  // Nothing of it is left, not even an entry of the journal.
  expect((await analyst('readArtefact', { params: { id: 'C-1' } })).data.summary).toMatchObject({ version: 1, state: 'draft', module: 'Billing' });
  expect((await save(analyst, 'C-2', 1, testCase({ title: 'Read on', module: 'Readings' }), '', undefined, the.key)).status).toBe(200);
  expect((await save(the.lead, 'C-1', 1, testCase({ title: 'Pay now', module: 'Billing' }), '', undefined, the.key)).status).toBe(200);
  await keep([{ module: 'Billing', people: [the.people.analyst] }]);
  expect((await save(analyst, 'C-1', 2, testCase({ title: 'Pay later', module: 'Billing' }), '', undefined, the.key)).status).toBe(200);
});

test('of many, what others keep is left and named, the rest is done; whose change it was cannot be undone by others either', async () => {
  await kept();
  const order = { of: { ids: ['C-1', 'C-2'] as const }, done: { kind: 'edit', edit: { kind: 'tag', tag: 'night', belongs: true } }, detail: 'tags' };
  const some = (await the.analyst('changeMany', { body: order as never }, { 'command-id': randomUUID() })).data;
  expect(some).toMatchObject({ changed: 1, left: [{ id: 'C-1', reason: 'kept' }] });
  const all = (await the.lead('changeMany', { body: { ...order, done: { kind: 'edit', edit: { kind: 'tag', tag: 'day', belongs: true } } } as never }, { 'command-id': randomUUID() })).data;
  expect(all).toMatchObject({ changed: 2, left: [] });
  expect(await the.analyst('undoChange', { params: { change: all.change?.id ?? '' }, body: {} })).toMatchObject({ status: 403, data: { code: 'kept_by_others', id: 'C-1' } });
  expect((await the.lead('undoChange', { params: { change: all.change?.id ?? '' }, body: {} })).status).toBe(200);
});

test('who keeps a module is a lead’s to say; whoever is asked may agree to what others keep', async () => {
  await kept();
  const { version, settings } = (await the.analyst('readSettings', {})).data;
  expect(await the.analyst('saveSettings', { body: { ...settings, keepers: [] } }, { 'if-match': `"${version}"` })).toMatchObject({ status: 403, data: { code: 'role_too_low', needed: 'lead' } });
  // Everything else of the settings is theirs as before.
  expect((await the.analyst('saveSettings', { body: { ...settings, depths: ['a'] } }, { 'if-match': `"${version}"` })).status).toBe(200);
  expect(settings.keepers).toEqual([{ module: 'Billing', people: [OTHER] }]);
  expect(DEFAULT_SETTINGS.keepers).toEqual([]);
  await the.lead('askReview', { body: { title: 'Bills', note: '', due: null, people: [the.people.analyst], ids: ['C-1'] } });
  const agreed = await the.analyst('answerReview', { params: { review: reviewNumber(1) } as never, body: { of: [{ id: 'C-1', version: 1 }], agrees: true, note: '' } });
  expect([agreed.status, (await the.lead('readArtefact', { params: { id: 'C-1' } })).data.summary.state]).toEqual([200, 'agreed']);
});

test('a file that would put something into a module that others keep is refused whole, and tells whose it is; elsewhere it comes in', async () => {
  await kept();
  const reading = { encoding: null, separator: null, sheet: null, header: null };
  const titles = async () => (await the.lead('listArtefacts', { query: { kind: 'requirement', query: '' } })).data.map((r) => r.title);
  const bring = async (call: Caller, rows: string) => {
    const draft = (await call('uploadImport', { query: { name: 'works.csv' }, body: new TextEncoder().encode(`ID,Title,Module\n${rows}`) as never })).data;
    return call('runImport', { params: { import: draft.id }, body: { mapping: draft.mapping, reading, choices: {} } });
  };
  const mixed = 'A-1,A reading,Readings\nA-2,A bill,Billing';
  expect(await bring(the.analyst, mixed)).toMatchObject({ status: 403, refusal: { code: 'kept_by_others', module: 'Billing' } });
  expect(await titles()).toEqual(['Bills']);
  expect((await bring(the.analyst, 'A-1,A reading,Readings')).status).toBe(200);
  expect((await bring(the.lead, mixed)).status).toBe(200);
  expect(await titles()).toEqual(['Bills', 'A reading', 'A bill']);
  // What is there and theirs is not changed by a file either, nor moved out.
  expect(await bring(the.analyst, 'A-2,Another bill,Readings')).toMatchObject({ status: 403, refusal: { code: 'kept_by_others' } });
  expect(await titles()).toEqual(['Bills', 'A reading', 'A bill']);
});
