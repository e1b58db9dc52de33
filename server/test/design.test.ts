import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ArtefactId, CaseId } from '@caderno/core/artefacts';
import { newCover, parameterId, plainStep, stepId, type CaseContent } from '@caderno/core/cases';
import { EMPTY_DATA_SET } from '@caderno/core/dataSets';
import { ownFieldId, type OwnField } from '@caderno/core/fields';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { API_ROOT, DEFAULT_SETTINGS, type ExportDesign } from '@caderno/contract';
import { execute, inTransaction } from '../src/database/index.ts';
import { condition, makeDatabase, makeProject, pngOf, requirement, save, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let from: Awaited<ReturnType<typeof makeProject>>;
let to: Awaited<ReturnType<typeof makeProject>>;
let here: Caller;
let there: Caller;
let token: string;

/** Calls in one of the two projects. */
function inProject(project: string, session: string): Caller {
  const call = server.as(session);
  return (name, input = {}, headers = {}) => call(name, { ...input, params: Object.assign({}, input.params, { project }) }, headers);
}

const PICTURE = pngOf(3, 2);

// A module of one project, with all that a case can use.
beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  from = await makeProject(server.db, 'alta');
  to = await makeProject(server.db, 'baixa');
  token = from.analyst;
  here = inProject('alta', from.analyst);
  there = inProject('baixa', to.analyst);
  const fields: OwnField[] = [{ id: ownFieldId('metal'), name: 'Metal', of: ['case'], type: 'choice', choices: [{ id: 'g', name: 'Gold' }], required: false, begins: null, help: '', removed: false }];
  await here('saveSettings', { body: { ...DEFAULT_SETTINGS, fields, depths: ['smoke', 'deep'], constants: [{ id: 'k', name: 'counter', value: 'window 3', secret: false, description: '', others: {} }, { id: 's', name: 'key', value: 'hush', secret: true, description: '', others: {} }] } }, { 'if-match': '"0"' });
  const make = async (body: Parameters<typeof save>[3], more = {}): Promise<ArtefactId> => (await here('createArtefact', { body: { ...body, ...more } as never })).data.summary.id;
  await make(requirement({ title: 'Heading', type: 'heading' }));
  await make(requirement({ title: 'Paying' }), { parent: 'R-1', after: null });
  await make(condition(['R-2'], { title: 'Amount', depths: ['deep'] }));
  await make({ kind: 'shared', content: { ...EMPTY_SHARED, title: 'Sign in', steps: [plainStep(stepId('a'), 'sign in at <counter> with <key>')] } });
  await make({ kind: 'dataSet', content: { ...EMPTY_DATA_SET, title: 'Coins', parameters: [{ id: parameterId('p'), name: 'coin', type: 'text', default: '', description: '' }] } });
  const attachment = (await here('keepAttachment', { query: { name: 'dial.png' }, body: PICTURE })).data;
  const steps = [{ kind: 'shared' as const, id: stepId('u'), shared: 'S-1' as const, pinned: 1, arguments: [] }, plainStep(stepId('b'), 'pay', 'paid')];
  await make(testCase({ title: 'Pay', steps, covers: [newCover('K-1', 1)], data: { set: 'D-1', pinned: null, columns: [] }, own: { metal: 'g' }, owner: 'analyst of alta', attachments: [attachment], module: 'Counter' }));
  await make(testCase({ title: 'Elsewhere', module: 'Other' }));
  await save(server.as(from.analyst), 'S-1', 1, { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Sign in', steps: [plainStep(stepId('a'), 'sign in by card')] } }, '', undefined, 'alta');
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

async function exported(project: string, order: Partial<ExportDesign> = {}): Promise<Uint8Array<ArrayBuffer>> {
  const body = JSON.stringify({ of: { kind: 'case', query: 'module:counter' }, files: true, form: 'file', ...order });
  const response = await server.fetch(`${API_ROOT}/projects/${project}/design/export`, { method: 'POST', headers: { cookie: `caderno_session=${project === 'alta' ? token : to.analyst}`, 'content-type': 'application/json' }, body });
  expect(response.status).toBe(200);
  return new Uint8Array(await response.arrayBuffer());
}
const bring = async (call: Caller, bytes: Uint8Array<ArrayBuffer>) => (await call('uploadDesign', { query: { name: 'alta-design.json' }, body: bytes })).data;
const contentOf = async (call: Caller, id: ArtefactId) => (await call('readArtefact', { params: { id } })).data.content;
const caseOf = async (call: Caller, id: CaseId): Promise<CaseContent> => (await contentOf(call, id)) as CaseContent;

describe('a module carried to another project', () => {
  test('says before what comes along, and what it will do there', async () => {
    expect((await here('readAlong', { body: { of: { ids: ['C-1'] } } })).data).toEqual({ counts: { requirement: 2, condition: 1, case: 1, question: 0, shared: 1, dataSet: 1, feature: 0, suite: 0 }, files: 1, bytes: PICTURE.length });
    const file = new TextDecoder().decode(await exported('alta'));
    expect(file).not.toContain('hush');
    expect(file).not.toContain('Elsewhere');
    const draft = await bring(there, await exported('alta'));
    expect(draft.counts).toMatchObject({ requirement: { added: 2, changed: 0, same: 0 }, case: { added: 1 }, shared: { added: 1 }, dataSet: { added: 1 } });
    expect([draft.from, draft.settings, draft.out, draft.conflicts]).toEqual([
      { key: 'alta', name: 'alta' },
      { fields: ['Metal'], constants: ['counter', 'key'], depths: ['deep'], priorities: [] },
      { links: 0, files: 0, fields: [], people: [{ name: 'analyst of alta', count: 1 }] },
      0,
    ]);
  });

  test('stands there with its links, versions, fields, constants and files; once, however often it is brought', async () => {
    const draft = await bring(there, await exported('alta'));
    const change = (await there('runDesign', { params: { import: draft.id }, body: { choices: {} } })).data;
    expect(change).toMatchObject({ action: 'import', detail: 'alta', note: '6 added, 0 changed' });
    const paying = await caseOf(there, 'C-1');
    const { settings } = (await there('readSettings')).data;
    const [metal] = settings.fields;
    expect(paying).toMatchObject({ title: 'Pay', covers: [{ id: 'K-1' }], data: { set: 'D-1' }, owner: '', own: { [metal!.id]: metal!.choices[0]!.id } });
    expect(paying.steps[0]).toMatchObject({ shared: 'S-1', pinned: 1 });
    expect((await there('readVersion', { params: { id: 'S-1', version: 1 } })).data.content).toMatchObject({ steps: [{ action: 'sign in at <counter> with <key>' }] });
    expect(await contentOf(there, 'S-1')).toMatchObject({ steps: [{ action: 'sign in by card' }] });
    expect(settings.constants).toMatchObject([{ name: 'counter', value: 'window 3' }, { name: 'key', value: '', secret: true }]);
    expect((await there('readArtefact', { params: { id: 'R-2' } })).data.summary).toMatchObject({ title: 'Paying', parent: 'R-1' });
    const [picture] = paying.attachments;
    const served = await server.fetch(`${API_ROOT}/projects/baixa/attachments/${picture!.id}?name=dial.png`, { headers: { cookie: `caderno_session=${to.analyst}` } });
    expect([served.status, new Uint8Array(await served.arrayBuffer())]).toEqual([200, PICTURE]);
    const again = await bring(there, await exported('alta'));
    expect(Object.values(again.counts).map((c) => c.added + c.changed)).toEqual([0, 0, 0, 0, 0, 0, 0, 0]);
    expect((await there('runDesign', { params: { import: again.id }, body: { choices: {} } })).refusal).toMatchObject({ code: 'import_changes_nothing' });
  });

  test('brought again after both changed it asks which side counts; undone, it may be brought once more', async () => {
    const mine = { ...(await caseOf(there, 'C-1')), title: 'Pay here', module: 'Desk' };
    await save(server.as(to.analyst), 'C-1', 1, { kind: 'case', content: mine }, '', undefined, 'baixa');
    const theirs = { ...(await caseOf(here, 'C-1')), title: 'Pay there', objective: 'To see it paid' };
    await save(server.as(from.analyst), 'C-1', 1, { kind: 'case', content: theirs }, '', undefined, 'alta');
    const draft = await bring(there, await exported('alta'));
    expect([draft.conflicts, draft.changed]).toEqual([1, [{ kind: 'case', id: 'C-1', here: 'C-1', title: 'Pay here', both: [{ path: 'title', mine: 'Pay here', theirs: 'Pay there' }] }]]);
    expect((await there('runDesign', { params: { import: draft.id }, body: { choices: {} } })).refusal).toMatchObject({ code: 'import_conflicts_open', count: 1 });
    const change = (await there('runDesign', { params: { import: draft.id }, body: { choices: { 'C-1': 'mine' } } })).data;
    expect(await caseOf(there, 'C-1')).toMatchObject({ title: 'Pay here', objective: 'To see it paid', module: 'Desk' });
    await there('undoChange', { params: { change: change.id }, body: {} });
    expect(await caseOf(there, 'C-1')).toMatchObject({ title: 'Pay here', objective: '' });
    expect((await bring(there, await exported('alta'))).conflicts).toBe(1);
  });

  test('comes home as a change of what it was', async () => {
    const draft = await bring(here, await exported('baixa', { of: { kind: 'case', query: 'module:desk' } }));
    expect(draft.counts.case).toEqual({ added: 0, changed: 1, same: 0 });
    expect(draft.changed).toMatchObject([{ here: 'C-1', both: [{ path: 'title', mine: 'Pay there', theirs: 'Pay here' }] }]);
    await here('runDesign', { params: { import: draft.id }, body: { choices: { 'C-1': 'theirs' } } });
    expect(await caseOf(here, 'C-1')).toMatchObject({ title: 'Pay here', module: 'Desk', owner: 'analyst of alta', own: { metal: 'g' } });
  });
});

test('all of an undone import goes, and comes again as new', async () => {
  const third = await makeProject(server.db, 'norte');
  const north = inProject('norte', third.analyst);
  const first = await bring(north, await exported('alta', { of: { ids: ['C-1'] } }));
  const change = (await north('runDesign', { params: { import: first.id }, body: { choices: {} } })).data;
  await north('undoChange', { params: { change: change.id }, body: {} });
  expect([(await north('readArtefact', { params: { id: 'C-1' } })).status, (await north('readSettings')).data.settings.fields]).toEqual([404, []]);
  const again = await bring(north, await exported('alta', { of: { ids: ['C-1'] } }));
  expect(again.counts.case.added).toBe(1);
  await north('runDesign', { params: { import: again.id }, body: { choices: {} } });
  expect((await caseOf(north, 'C-2')).covers).toMatchObject([{ id: 'K-2' }]);
});

test('what is no design file, or lies about what it holds, is refused by its place and changes nothing', async () => {
  const reading = async (text: string) => (await there('uploadDesign', { query: { name: 'x.json' }, body: new TextEncoder().encode(text) })).refusal;
  const whole = JSON.parse(new TextDecoder().decode(await exported('alta', { of: { ids: ['C-1'] } }))) as { artefacts: { id: string; kind: string; versions: { content: Record<string, unknown> }[] }[]; files: Record<string, { base64: string }>; schemas: Record<string, number> };
  const changed = (change: (file: typeof whole) => void): string => {
    const copy = structuredClone(whole);
    change(copy);
    return JSON.stringify(copy);
  };
  expect(await reading('<html>')).toMatchObject({ code: 'design_unreadable', reason: 'it is no JSON' });
  expect(await reading('{"format":"caderno-design","version":2}')).toMatchObject({ code: 'design_unreadable', at: 'version' });
  expect(await reading(changed((f) => Object.assign(f.artefacts.at(-1)!, { id: 'R-9' })))).toMatchObject({ code: 'design_unreadable', at: 'R-9' });
  expect(await reading(changed((f) => Object.assign(f.artefacts.find((a) => a.kind === 'case')!.versions[0]!.content, { steps: 'none' })))).toMatchObject({ code: 'design_unreadable', at: 'C-1 v3' });
  expect(await reading(changed((f) => f.artefacts.push(f.artefacts[0]!)))).toMatchObject({ code: 'design_unreadable', at: 'R-1', reason: 'it stands in it twice' });
  expect(await reading(changed((f) => Object.assign(f.artefacts[0]!, { under: 'R-2' })))).toMatchObject({ code: 'design_unreadable', at: 'R-1', reason: expect.stringContaining('does not come before') });
  expect(await reading(changed((f) => Object.assign(f.schemas, { case: 99 })))).toMatchObject({ code: 'design_unreadable' });
  const forged = await bring(there, new TextEncoder().encode(changed((f) => Object.assign(Object.values(f.files)[0]!, { base64: Buffer.from(pngOf(9, 9)).toString('base64') }))));
  expect((await there('runDesign', { params: { import: forged.id }, body: { choices: { 'C-1': 'theirs' } } })).refusal).toMatchObject({ code: 'design_unreadable', at: 'dial.png' });
  // Thirteen levels, each below the one before: deeper than an outline may be.
  const deep = await bring(there, new TextEncoder().encode(changed((f) => {
    const [first] = f.artefacts;
    f.artefacts.splice(0, f.artefacts.length, ...Array.from({ length: 13 }, (_, i) => ({ ...structuredClone(first!), id: `R-${i + 500}`, first: { project: from.id, id: `R-${i + 500}` }, under: i === 0 ? null : `R-${i + 499}` })));
  })));
  expect((await there('runDesign', { params: { import: deep.id }, body: { choices: {} } })).refusal).toMatchObject({ code: 'outline_too_deep', limit: 12 });
  expect((await inProject('baixa', to.reader)('uploadDesign', { query: { name: 'x.json' }, body: new TextEncoder().encode('{}') })).status).toBe(403);
});

test('the schema beside it says what a design file is', async () => {
  const schema = JSON.parse(new TextDecoder().decode(await exported('alta', { form: 'schema' }))) as { properties: { artefacts: { items: { oneOf?: unknown[]; anyOf?: unknown[] } } } };
  expect((schema.properties.artefacts.items.oneOf ?? schema.properties.artefacts.items.anyOf)?.length).toBe(8);
});

test('two people who bring the same file at the same time bring it once; whoever was later is told that nothing is new', async () => {
  const fourth = await makeProject(server.db, 'oeste');
  const [one, other] = [inProject('oeste', fourth.analyst), inProject('oeste', fourth.lead)];
  const file = await exported('alta', { of: { ids: ['C-1'] } });
  const drafts = [await bring(one, file), await bring(other, file)] as const;
  const ends = await Promise.all([one('runDesign', { params: { import: drafts[0].id }, body: { choices: {} } }), other('runDesign', { params: { import: drafts[1].id }, body: { choices: {} } })]);
  expect(ends.map((end) => end.status).sort()).toEqual([200, 422]);
  expect(ends.find((end) => end.status !== 200)?.refusal).toMatchObject({ code: 'import_changes_nothing' });
  expect((await one('listArtefacts', { query: { kind: 'case', query: '' } })).data).toHaveLength(1);
});

test('conditions and data sets are carried by themselves, and what cannot be read is named before anything is written', async () => {
  expect((await here('readAlong', { body: { of: { ids: ['K-1', 'D-1'] } } })).data.counts).toEqual({ requirement: 2, condition: 1, case: 0, question: 0, shared: 0, dataSet: 1, feature: 0, suite: 0 });
  expect((await here('readAlong', { body: { of: { kind: 'dataSet', query: 'coins' } } })).data.counts).toMatchObject({ dataSet: 1 });
  const id = (await here('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Torn' } } })).data.summary.id;
  await inTransaction(server.db, (work) => execute(work, `UPDATE artefact_version SET content = '{"title": 7}' WHERE artefact_id = (SELECT a.id FROM artefact a WHERE a.project_id = $1 AND a.kind = 'shared' AND a.number = $2)`, [from.id, Number(id.slice(2))]));
  expect((await here('readAlong', { body: { of: { ids: [id] } } })).refusal).toMatchObject({ code: 'artefact_broken', id, version: 1 });
});
