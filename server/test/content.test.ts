import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { newCover, plainStep, stepId, type Step } from '@caderno/core/cases';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { GUESS_ALL } from '@caderno/core/exchange';
import { DEFAULT_SETTINGS, LIMITS, type Operation } from '@caderno/contract';
import { checkData } from '../src/upkeep/index.ts';
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
const step = (id: string, action = 'do it'): Step => plainStep(stepId(id), action);
const sql = (text: string) => server.db.query(text);

/** Whether everything of the project can be read, counted and written out. */
async function isWhole(): Promise<void> {
  const { faults } = await checkData(server.db);
  expect(faults).toEqual([]);
  expect((await call('readCoverage')).status).toBe(200);
  expect((await call('readAlike')).status).toBe(200);
}

describe('what the server makes itself is refused when it could not be read again, with its place', () => {
  afterAll(isWhole);

  test('a take-out whose new use has an id that is there already', async () => {
    const id = (await create(testCase({ title: 'Taken from', steps: [step('a'), step('b')] }))) as `C-${number}`;
    const answer = await call('takeOut', { body: { shared: { ...EMPTY_SHARED, title: 'Out', steps: [step('x')] }, users: [{ kind: 'case', id, version: 1, content: testCase({ title: 'Taken from', steps: [step('a')] }).content, uses: [{ at: 0, step: stepId('a'), arguments: [] }] }] } });
    expect([answer.status, answer.refusal]).toEqual([422, expect.objectContaining({ code: 'content_invalid', title: 'Taken from', issues: [{ path: 'steps', message: 'ids must not repeat' }] })]);
    expect((await call('readArtefact', { params: { id } })).data.summary.version).toBe(1);
  });

  test('a rename that makes a step longer than allowed', async () => {
    const parameters = [{ id: 'p', name: 'n', type: 'text', default: '', description: '' }];
    const content = testCase({ title: 'Renamed', parameters: parameters as never, steps: [step('s', '<n>'.repeat(6_000))] }).content;
    const id = (await create({ kind: 'case', content })) as `C-${number}`;
    const answer = await call('renameParameter', { body: { owner: { kind: 'case', id, version: 1, content }, from: 'n', to: 'longer', apply: true } });
    expect(answer.refusal).toMatchObject({ code: 'content_invalid', issues: [{ path: 'steps.0.action' }] });
  });

  test('merging two requirements with 300 attributes each, splitting one with 500 relations', async () => {
    const attributes = (letter: string) => Array.from({ length: LIMITS.attributes }, (_, i) => ({ id: `${letter}${i}`, value: 'x' }));
    const [one, two] = [await create(requirement({ attributes: attributes('a') })), await create(requirement({ attributes: attributes('b') }))] as [`R-${number}`, `R-${number}`];
    expect((await call('mergeRequirements', { params: { id: one }, body: { absorbed: [two], title: 'Both', text: '' } })).refusal).toMatchObject({ code: 'content_invalid', issues: [{ path: 'attributes' }] });
    const many = await create(requirement({ relations: Array.from({ length: LIMITS.links }, (_, i) => ({ id: `r${i}`, kind: 'k', to: one })) }));
    expect((await call('splitRequirement', { params: { id: many as `R-${number}` }, body: { parts: [{ title: 'A', text: '' }, { title: 'B', text: '' }], conditions: {}, questions: {}, children: {} } })).refusal).toMatchObject({ code: 'content_invalid', issues: [{ path: 'relations' }] });
  });

  test('an import names what it leaves out before anything is written', async () => {
    const relation = (id: string, kind: string) => `<SPEC-RELATION${id === '' ? '' : ` IDENTIFIER="${id}"`}><TYPE><SPEC-RELATION-TYPE-REF>${kind}</SPEC-RELATION-TYPE-REF></TYPE><SOURCE><SPEC-OBJECT-REF>o1</SPEC-OBJECT-REF></SOURCE><TARGET><SPEC-OBJECT-REF>o2</SPEC-OBJECT-REF></TARGET></SPEC-RELATION>`;
    const object = (id: string) => `<SPEC-OBJECT IDENTIFIER="${id}"><TYPE><SPEC-OBJECT-TYPE-REF>t</SPEC-OBJECT-TYPE-REF></TYPE><VALUES><ATTRIBUTE-VALUE-STRING THE-VALUE="Title of ${id}"><DEFINITION><ATTRIBUTE-DEFINITION-STRING-REF>a</ATTRIBUTE-DEFINITION-STRING-REF></DEFINITION></ATTRIBUTE-VALUE-STRING></VALUES></SPEC-OBJECT>`;
    const many = Array.from({ length: 600 }, (_, i) => relation(`m${i}`, 'k'));
    const text = `<REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd"><CORE-CONTENT><REQ-IF-CONTENT><SPEC-TYPES><SPEC-OBJECT-TYPE IDENTIFIER="t"><SPEC-ATTRIBUTES><ATTRIBUTE-DEFINITION-STRING IDENTIFIER="a" LONG-NAME="ReqIF.Name"/></SPEC-ATTRIBUTES></SPEC-OBJECT-TYPE><SPEC-RELATION-TYPE IDENTIFIER="long" LONG-NAME="${'x'.repeat(201)}"/></SPEC-TYPES>
      <SPEC-OBJECTS>${object('o1')}${object('o2')}</SPEC-OBJECTS><SPEC-RELATIONS>${relation('', 'k')}${relation('same', 'k')}${relation('same', 'k')}${relation('named', 'long')}${many.join('')}</SPEC-RELATIONS></REQ-IF-CONTENT></CORE-CONTENT></REQ-IF>`;
    const draft = (await call('uploadImport', { query: { name: 'relations.reqif' }, body: new TextEncoder().encode(text) })).data;
    const reading = { params: { import: draft.id }, body: { mapping: draft.mapping, reading: GUESS_ALL } };
    const { problems } = (await call('previewImport', reading)).data;
    const left = problems.flatMap((p) => (p.code === 'relation_left_out' ? [p.why] : []));
    expect([left.filter((w) => w !== 'too_many').sort(), left.filter((w) => w === 'too_many').length]).toEqual([['id_doubled', 'too_long', 'without_id'], 101]);
    expect((await call('runImport', { ...reading, body: { ...reading.body, choices: {} } })).status).toBe(200);
    const [made] = (await call('find', { query: { words: 'Title of o1' } })).data;
    expect((await call('readArtefact', { params: { id: made!.id } })).data.content).toMatchObject({ relations: { length: LIMITS.links } });
  });
});

describe('what links, versions and conditions name is there', () => {
  const refusal = async (answer: Promise<{ status: number; refusal: { code: string } }>) => [(await answer).status, (await answer).refusal.code];
  let r: `R-${number}`;
  let k: `K-${number}`;
  beforeAll(async () => {
    r = (await create(requirement({ title: 'Named' }))) as typeof r;
    k = (await create(condition([r]))) as typeof k;
  });

  test('a version that its artefact does not have', async () => {
    const cover = (seenVersion: number) => testCase({ covers: [{ ...newCover(k, 1), seenVersion }] });
    expect(await refusal(call('createArtefact', { body: cover(7) }))).toEqual([404, 'version_unknown']);
    expect(await refusal(call('createArtefact', { body: cover(2 ** 31) }))).toEqual([400, 'request_invalid']);
    expect(await refusal(call('createArtefact', { body: condition([], { requirements: [{ id: r, seenVersion: 2, anchor: null }] }) }))).toEqual([404, 'version_unknown']);
    const s = (await call('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'S' } } })).data.summary.id as `S-${number}`;
    const uses = (pins: (number | null)[]): Step[] => pins.map((pinned, i) => ({ kind: 'shared', id: stepId(`u${i}`), shared: s, pinned, arguments: [] }));
    expect(await refusal(call('createArtefact', { body: testCase({ steps: uses([null, 9]) }) }))).toEqual([404, 'version_unknown']);
    expect((await call('createArtefact', { body: testCase({ steps: uses([null, 1]) }) })).status).toBe(200);
  });

  test('a condition below one that is not there, below itself, or below what stands below it', async () => {
    expect(await refusal(call('createArtefact', { body: condition([r], { under: 'K-999' }) }))).toEqual([422, 'link_unknown']);
    const below = (await create(condition([r], { under: k }))) as `K-${number}`;
    expect(await refusal(save(call, k, 1, condition([r], { under: k })))).toEqual([422, 'condition_circle']);
    expect(await refusal(save(call, k, 1, condition([r], { under: below })))).toEqual([422, 'condition_circle']);
  });

  test('an artefact that one command names twice', async () => {
    const changed = { id: r, version: 1, ...requirement() };
    const write = (part: object) => call('writeArtefacts', { body: { made: [], changed: [], withdrawn: [], detail: '', ...part } });
    expect(await refusal(write({ changed: [changed, changed] }))).toEqual([400, 'request_invalid']);
    expect(await refusal(write({ changed: [changed], withdrawn: [r] }))).toEqual([400, 'request_invalid']);
    expect(await refusal(write({ withdrawn: [r, r] }))).toEqual([400, 'request_invalid']);
  });

  test('numbers beyond their columns', async () => {
    expect(await refusal(call('listChanges', { query: { before: 2 ** 40 } }))).toEqual([400, 'request_invalid']);
    expect(await refusal(call('readVersion', { params: { id: r, version: 2 ** 40 } }))).toEqual([400, 'request_invalid']);
    expect(await refusal(call('keepDraft', { params: { id: r }, body: { ...requirement(), base: 2 ** 40, sequence: 1 } }))).toEqual([400, 'request_invalid']);
  });
});

describe('one that cannot be read, by a hand in the database', () => {
  let broken: `R-${number}`;
  let brokenCase: `C-${number}`;
  beforeAll(async () => {
    broken = (await create(requirement({ title: 'To be broken', text: 'Good words.' }))) as typeof broken;
    await save(call, broken, 1, requirement({ title: 'To be broken', text: 'Better words.' }));
    brokenCase = (await create(testCase({ title: 'Broken case' }))) as typeof brokenCase;
    await call('createArtefact', { body: { kind: 'question', content: { ...QUESTION, title: 'Broken question' } } });
    for (const title of ['To be broken', 'Broken case', 'Broken question']) {
      await sql(`UPDATE artefact_version v SET content = '{"title": 7, "<b>": null}' FROM artefact a WHERE a.id = v.artefact_id AND a.head = v.version AND a.title = '${title}'`);
    }
    await sql(`UPDATE artefact SET facts = '[]' WHERE title IN ('Broken case', 'To be broken', 'Broken question')`);
    await sql(`UPDATE project SET settings = '{"depths": 5, "mostItems": 300}' WHERE key = 'p'`);
  });
  const QUESTION = { title: '', text: '', asked: '', about: [], status: 'open' as const, answer: '', answeredBy: '', answeredAt: '' as const, settledIn: [], own: {}, attachments: [], observations: [] };

  test('is shown as such with what is stored, and its page leads to its versions', async () => {
    expect((await call('readArtefact', { params: { id: broken } })).refusal).toMatchObject({ code: 'artefact_broken', id: broken, version: 2 });
    const shown = (await call('readBroken', { params: { id: broken } })).data;
    expect(shown).toMatchObject({ id: broken, title: 'To be broken', version: 2, cut: false, versions: [{ version: 2, readable: false }, { version: 1, readable: true }] });
    expect([shown.raw, shown.issues.length > 3]).toEqual([expect.stringContaining('"<b>": null'), true]);
    expect((await server.as(project.reader)('readBroken', { params: { id: broken } })).status).toBe(200);
  });

  test('takes nothing else along: lists, search, coverage, texts and exports name it and go on', async () => {
    const reads: [Operation, object][] = [['listBasisTexts', {}], ['readAlike', {}], ['readCoverageRows', {}], ['readHeads', {}], ['readChanges', { query: { since: 0 } }], ['find', { query: { words: 'broken' } }], ['readReuseGraph', {}], ['listChanges', {}], ['listSuspectLinks', {}], ['readProject', {}]];
    for (const [name, input] of reads) expect([name, (await call(name, input)).status]).toEqual([name, 200]);
    const report = (await call('readCoverage')).data;
    expect(report.broken).toEqual(expect.arrayContaining([broken, brokenCase]));
    const cases = (await call('listArtefacts', { query: { kind: 'case' } })).data;
    expect(cases.find((c) => c.id === brokenCase)).toMatchObject({ title: 'Broken case', broken: true, steps: 0 });
    for (const format of ['csv', 'md', 'reqif', 'xlsx'] as const) {
      const file = await server.fetch(`/api/v1/projects/p/basis/export?format=${format}&figures=yes`, { headers: { cookie: `caderno_session=${project.analyst}` } });
      const text = await file.text();
      expect([format, file.status]).toEqual([format, 200]);
      if (format !== 'xlsx') expect(text).toContain('What is stored of this requirement cannot be read.');
    }
    const agenda = await server.fetch('/api/v1/projects/p/questions/export?format=md', { headers: { cookie: `caderno_session=${project.analyst}` } });
    expect(await agenda.text()).toContain('What is stored of this question cannot be read');
  });

  test('settings that cannot be read have their defaults, part by part', async () => {
    expect((await call('readSettings')).data.settings).toMatchObject({ depths: DEFAULT_SETTINGS.depths, mostItems: 300 });
  });

  test('is found by checking the data, and restored from a version, which can be undone only to what can be read', async () => {
    const faults = (await checkData(server.db)).faults.map(({ what }) => (what.kind === 'version' ? what.id : what.kind === 'settings' ? what.part : what.kind));
    expect(faults).toEqual(expect.arrayContaining([broken, brokenCase, 'depths']));
    const restore = (version: number, base: number) => call('restoreVersion', { params: { id: broken }, body: { version } }, { 'if-match': `"${base}"` });
    expect((await restore(2, 2)).refusal.code).toBe('artefact_broken');
    expect((await restore(1, 1)).refusal.code).toBe('version_moved');
    expect((await restore(1, 2)).data).toMatchObject({ summary: { version: 3, broken: false }, content: { text: 'Good words.' } });
    const [change] = (await call('listChanges')).data;
    expect((await call('undoChange', { params: { change: change!.id }, body: {} })).refusal).toMatchObject({ code: 'artefact_broken', id: broken, version: 2 });
    expect((await call('readCoverage')).data.broken).not.toContain(broken);
  });

  test('a condition stands in its list by its name; a rating that cannot be read keeps its risk when the scale changes', async () => {
    const r = (await create(requirement({ title: 'Rated', rating: { likelihood: 1, impact: 1 } }))) as `R-${number}`;
    const k = await create(condition([r], { title: 'Scalar' }));
    await sql(`UPDATE artefact_version v SET content = '7' FROM artefact a WHERE a.id = v.artefact_id AND a.title = 'Scalar'`);
    await sql(`UPDATE artefact_version v SET content = jsonb_set(v.content, '{rating,likelihood}', '"often"') FROM artefact a WHERE a.id = v.artefact_id AND a.title = 'Rated'`);
    expect((await call('listConditions', { params: { requirement: r } })).data).toMatchObject([{ id: k, broken: true, technique: 'plain', content: { title: 'Scalar' } }]);
    const lead = server.as(project.lead);
    const { version, settings } = (await lead('readSettings')).data;
    expect((await lead('saveSettings', { body: { ...settings, riskScale: { ...settings.riskScale, weights: { high: 8, medium: 3, low: 1 } } } }, { 'if-match': `"${version}"` })).status).toBe(200);
  });
});

describe('the same command again', () => {
  test('gets the first answer whatever happened since, also after its undo and on another server', async () => {
    const commandId = randomUUID();
    const made = await call('createArtefact', { body: testCase({ title: 'Once' }) }, { 'command-id': commandId });
    const { id } = made.data.summary;
    const saveId = randomUUID();
    const first = await save(call, id, 1, testCase({ title: 'Once', objective: 'first' }), '', saveId);
    await save(call, id, 2, testCase({ title: 'Once', objective: 'second' }));
    await call('setState', { params: { id }, body: { state: 'agreed' } });
    const other = await startServer(database.url);
    const there = other.as(project.analyst);
    expect((await save(there, id, 1, testCase({ title: 'Once', objective: 'first' }), '', saveId)).data).toEqual(first.data);
    expect((await there('createArtefact', { body: testCase({ title: 'Once' }) }, { 'command-id': commandId })).data).toEqual(made.data);
    await other.close();
  });

  test('only for the same person and operation', async () => {
    const commandId = randomUUID();
    await call('createArtefact', { body: testCase({ title: 'Mine' }) }, { 'command-id': commandId });
    expect((await server.as(project.lead)('createArtefact', { body: testCase({ title: 'Yours' }) }, { 'command-id': commandId })).refusal.code).toBe('command_id_taken');
    expect((await save(call, 'C-1', 1, testCase(), '', commandId)).refusal.code).toBe('command_id_taken');
    // After its answer has been swept away the journal still knows whose it was.
    await sql('DELETE FROM command_answer');
    expect((await server.as(project.lead)('createArtefact', { body: testCase({ title: 'Yours' }) }, { 'command-id': commandId })).refusal.code).toBe('command_id_taken');
  });

  test('an import that was cut off after it was done is not done again', async () => {
    const draft = (await call('uploadImport', { query: { name: 'once.csv' }, body: new TextEncoder().encode('ID,Title\nONCE-1,Only once') })).data;
    const order = { params: { import: draft.id }, body: { mapping: draft.mapping, reading: GUESS_ALL, choices: {} } };
    const commandId = randomUUID();
    const first = await call('runImport', order, { 'command-id': commandId });
    // As it is when the server dies between the import and its answer.
    await sql('DELETE FROM command_answer');
    await sql(`UPDATE import_file SET state = 'running', alive_at = now()`);
    const again = await call('runImport', order, { 'command-id': commandId });
    expect([first.status, again.data.id]).toEqual([200, first.data.id]);
    expect((await call('find', { query: { words: 'Only once' } })).data.length).toBe(1);
  });

  test('an account or an upload sent again is not made again', async () => {
    const administrator = server.as(project.administrator);
    const commandId = randomUUID();
    const add = () => administrator('addMember', { body: { name: 'Twice', email: 'twice@p.example', password: 'meters under the bridge', role: 'reader' } }, { 'command-id': commandId });
    const [first, again] = [await add(), await add()];
    expect([first.status, again.data]).toEqual([200, first.data]);
    const uploadId = randomUUID();
    const send = () => call('uploadImport', { query: { name: 'again.csv' }, body: new TextEncoder().encode('ID,Title\nA,B') }, { 'command-id': uploadId });
    expect((await send()).data.id).toBe((await send()).data.id);
  });
});
