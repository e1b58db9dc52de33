import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { ArtefactId, CaseId } from '@caderno/core/artefacts';
import type { CaseMapping } from '@caderno/core/caseFiles';
import { newCover, parameterId, newRow, plainStep, rowId, stepId, type CaseContent } from '@caderno/core/cases';
import { GUESS_ALL, type ReadingOptions } from '@caderno/core/exchange';
import { ownFieldId, type OwnField } from '@caderno/core/fields';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { API_ROOT, type CaseDraft, type ExportCases } from '@caderno/contract';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import { z } from 'zod';
import { condition, makeDatabase, makeProject, pngOf, requirement, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;

// Each begins with an empty project.
beforeEach(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
  call = server.as(project.analyst);
});
afterEach(async () => {
  await server.close();
  await database.drop();
});

const bring = async (text: string | Uint8Array<ArrayBuffer>, name = 'cases.csv'): Promise<CaseDraft> => (await call('uploadCases', { query: { name }, body: typeof text === 'string' ? new TextEncoder().encode(text) : text })).data;
const step = (draft: CaseDraft, more: Partial<CaseMapping> = {}) => ({ mapping: { ...draft.mapping, ...more }, reading: draft.reading as ReadingOptions });
const preview = async (draft: CaseDraft, more = {}) => (await call('previewCases', { params: { import: draft.id }, body: step(draft, more) })).data;
const run = (draft: CaseDraft, choices = {}, more = {}) => call('runCases', { params: { import: draft.id }, body: { ...step(draft, more), choices } });
const read = async (id: ArtefactId) => (await call('readArtefact', { params: { id } })).data;
const content = async (id: CaseId): Promise<CaseContent> => (await read(id)).content as CaseContent;
const exported = async (order: Partial<ExportCases>): Promise<{ bytes: Uint8Array<ArrayBuffer>; text: string }> => {
  const body = JSON.stringify({ of: { kind: 'case', query: '' }, format: 'csv', layout: 'stepRows', figures: false, sheets: false, files: false, ...order });
  const response = await server.fetch(`${API_ROOT}/projects/p/cases/export`, { method: 'POST', headers: { cookie: `caderno_session=${project.analyst}`, 'content-type': 'application/json' }, body });
  expect([response.status, response.headers.get('content-disposition')]).toEqual([200, expect.stringContaining('p-cases')]);
  const bytes = new Uint8Array(await response.arrayBuffer());
  return { bytes, text: new TextDecoder().decode(bytes) };
};

const OFFICE = 'Cases of the office;;;;;\nTest Case ID;Title;Step;Action;Expected Result;Requirements\nTC-1;Sign in as <user>;1;Open the page;It opens;REQ-1\n;;2;Give the password of <user>;The door opens;\nTC-2;Sign out;1;Choose Leave;;Nobody knows\n';

test('capitals make no other module: it is spelled as here, of requirements and of cases', async () => {
  await call('createArtefact', { body: requirement({ module: 'Pumps' }) });
  await run(await bring('ID,Title,Area,Steps\nT-1,One,pumps,go\nT-2,Two,Valves,go\nT-3,Three,VALVES,go\n'));
  expect(await Promise.all((['C-1', 'C-2', 'C-3'] as CaseId[]).map(async (id) => (await content(id)).module))).toEqual(['Pumps', 'Valves', 'Valves']);
  const draft = (await call('uploadImport', { query: { name: 'r.csv' }, body: new TextEncoder().encode('ID,Title,Module\nA,Four,PUMPS\nB,Five,valves\n') })).data;
  await call('runImport', { params: { import: draft.id }, body: { mapping: draft.mapping, reading: draft.reading, choices: {} } });
  expect((await call('readProject')).data.modules).toEqual(['Pumps', 'Valves']);
});

test('a sheet of cases comes in: linked by the ids of its source, parameters declared; run once, undone whole, found again', async () => {
  await call('createArtefact', { body: requirement({ title: 'Signing in', origin: { source: 'book', id: 'REQ-1', link: '' } }) });
  const draft = await bring(OFFICE);
  expect([draft.records, draft.names?.header, draft.mapping.layout, draft.mapping.columns['Step'], draft.mapping.columns['Requirements']]).toEqual([3, 2, 'stepRows', 'number', 'requirements']);
  const planned = await preview(draft);
  expect(planned.counts).toMatchObject({ added: 2, changed: 0, steps: 3, conditions: 1, errors: 0, warnings: 1 });
  expect(planned.problems).toMatchObject([{ code: 'value_unknown', value: 'Nobody knows', line: 5, column: 'Requirements' }]);
  const change = (await run(draft)).data;
  expect(change).toMatchObject({ action: 'import', detail: 'cases', note: '2 added, 0 changed', size: 3 });
  const first = await content('C-1');
  expect(first).toMatchObject({ title: 'Sign in as <user>', steps: [{ action: 'Open the page', expected: 'It opens' }, { action: 'Give the password of <user>' }], parameters: [{ name: 'user' }], covers: [{ id: 'K-1', seenVersion: 1 }] });
  expect((await read('K-1')).content).toMatchObject({ title: 'Signing in', model: { kind: 'plain' }, requirements: [{ id: 'R-1' }] });
  // The same file again changes nothing; what the project changed stays, what the file changed comes.
  expect((await preview(await bring(OFFICE))).counts).toMatchObject({ added: 0, changed: 0, same: 2 });
  await call('saveArtefact', { params: { id: 'C-1' }, body: { kind: 'case', content: { ...first, objective: 'Ours', title: 'Mine' }, note: '' } }, { 'if-match': '"1"' });
  const again = await bring(OFFICE.replace('Sign in as <user>', 'Theirs').replace('It opens', 'It opens wide'));
  expect(again.remembered).toBe(true);
  const second = await preview(again);
  expect(second.changed).toMatchObject([{ id: 'C-1', fields: [{ field: 'steps' }], conflicts: [{ field: 'title', base: 'Sign in as <user>', mine: 'Mine', theirs: 'Theirs' }] }]);
  expect((await run(again)).data).toMatchObject({ code: 'import_conflicts_open', count: 1 });
  const third = (await run(again, { 'C-1 title': 'theirs' })).data;
  expect(await content('C-1')).toMatchObject({ title: 'Theirs', objective: 'Ours', steps: [{ id: first.steps[0]?.id, expected: 'It opens wide' }, { id: first.steps[1]?.id }] });
  await call('undoChange', { params: { change: third.id }, body: {} });
  expect(await content('C-1')).toMatchObject({ title: 'Mine', steps: [{ expected: 'It opens' }, {}] });
  expect((await preview(await bring(OFFICE))).counts).toMatchObject({ added: 0, changed: 0 });
  // Taken back, it is as though it had never come.
  await call('undoChange', { params: { change: change.id }, body: {} });
  expect((await preview(await bring(OFFICE))).counts).toMatchObject({ added: 2, conditions: 1 });
});

test('a workbook sheet by sheet: the sheet is the module; what is no case is refused by its line, and nothing else is lost', async () => {
  const draft = await bring('Title,Steps,Owner\nFirst,"1. a\n2. b",Rui M.\n,lonely,\nSecond,c,', 'Night shift.csv');
  expect((await preview(draft, { module: 'Night', layout: 'caseRows' })).problems).toMatchObject([{ code: 'title_missing', line: 4, severity: 'error' }, { code: 'id_missing', severity: 'warning' }]);
  expect((await run(draft, {}, { module: 'Night', layout: 'caseRows' })).status).toBe(200);
  expect([(await content('C-1')).module, (await content('C-2')).title, (await run(draft, {}, { module: 'Night', layout: 'caseRows' })).data]).toMatchObject(['Night', 'Second', { code: 'import_changes_nothing' }]);
});

test('a case with a tag that is too long, or too many of them, is named and stays out; the others come in', async () => {
  const draft = await bring(`ID,Title,Tags\nA,Long,${'t'.repeat(201)}\nB,Many,"${Array.from({ length: 51 }, (_, i) => `t${i}`).join(', ')}"\nC,Good,smoke`);
  const { problems, counts } = await preview(draft);
  expect([counts.added, problems.map((p) => [p.line, p.code])]).toEqual([1, [[2, 'content_refused'], [3, 'content_refused']]]);
  expect((await run(draft)).data).toMatchObject({ note: '1 added, 0 changed' });
  expect(await content('C-1')).toMatchObject({ title: 'Good', tags: ['smoke'] });
});

describe('written out', () => {
  const fields: OwnField[] = [{ id: ownFieldId('f'), name: 'Channel', of: ['case'], type: 'choices', choices: [{ id: 'k', name: 'Kiosk' }, { id: 'w', name: 'Web, new' }], required: false, begins: null, help: '', removed: false }];

  /** Two cases, one of which uses shared steps and has rows, a field and a condition. */
  async function design(): Promise<void> {
    const { version, settings } = (await call('readSettings', {})).data;
    await call('saveSettings', { body: { ...settings, fields } }, { 'if-match': `"${version}"` });
    await call('createArtefact', { body: requirement({ title: 'R' }) });
    await call('createArtefact', { body: condition(['R-1']) });
    await call('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Sign in', steps: [plainStep(stepId('x'), 'Sign in as <who>', '')], parameters: [{ id: parameterId('w'), name: 'who', type: 'text', default: 'anybody', description: '' }] } } });
    const who = parameterId('p');
    await call('createArtefact', {
      body: testCase({
        title: 'Enter', module: 'Door / front', tags: ['a, b'], own: { f: ['k', 'w'] }, objective: 'One\ntwo', parameters: [{ id: who, name: 'n', type: 'text', default: '', description: '' }], rows: [newRow(rowId('r1'), 'low', { [who]: '1' }), newRow(rowId('r2'), 'high', { [who]: '9' })],
        steps: [{ kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: null, arguments: [{ id: 'who', value: 'a clerk' }] }, plainStep(stepId('s'), 'Enter <n>', '=1+1')], covers: [newCover('K-1', 1)],
      }),
    });
    await call('createArtefact', { body: testCase({ title: 'Leave' }) });
  }

  test('and read in again it changes nothing, whatever the format; a change made in the file comes back', async () => {
    await design();
    for (const [format, layout, sheets] of [['csv', 'stepRows', false], ['csv', 'caseRows', false], ['xlsx', 'stepRows', false], ['xlsx', 'caseRows', true], ['md', 'stepRows', false]] as const) {
      const file = await exported({ format, layout, sheets, figures: layout === 'caseRows' });
      const draft = await bring(file.bytes, `water-cases.${format}`);
      const plan = await preview(draft);
      expect([format, layout, plan.counts.added, plan.changed, plan.counts.same, plan.counts.errors]).toEqual([format, layout, 0, [], sheets ? 1 : 2, 0]);
    }
    const { text } = await exported({ layout: 'stepRows' });
    const edited = await bring(text.replace('Enter <n>', 'Type <n>').replace('"Kiosk, ""Web, new"""', 'Kiosk'), 'edited.csv');
    expect((await run(edited)).status).toBe(200);
    expect(await content('C-1')).toMatchObject({ steps: [{ kind: 'shared', shared: 'S-1', arguments: [{ value: 'a clerk' }] }, { id: 's', action: 'Type <n>', expected: '=1+1' }], own: { f: expect.anything() }, rows: [{ name: 'low' }, { name: 'high' }] });
    // Written before that change: only what the file itself changes comes in.
    const older = await bring(text.replace('Leave', 'Go away'), 'older.csv');
    expect((await preview(older)).changed).toMatchObject([{ id: 'C-2', fields: [{ field: 'title', to: 'Go away' }], conflicts: [] }]);
  });

  test('more of them than are in memory at a time: each once, in the order asked for; the database has counted what came in', async () => {
    const count = 1_210;
    const names = Array.from({ length: count }, (_, i) => `Case ${i + 1}`);
    // What counts by itself now and then would count instead, or keep the server from it just then.
    await server.db.query('ALTER TABLE artefact SET (autovacuum_enabled = false)');
    await run(await bring(`Title;Module;Action\n${names.map((name, i) => `${name};M ${i % 3};Look`).join('\n')}\n`));
    // Until it has, what is joined to a thousand cases is sought through all of them a thousand times.
    const [known] = (await server.db.query(`SELECT reltuples::int AS rows FROM pg_class WHERE relname = 'artefact'`))[0] as { rows: number }[];
    expect(known?.rows).toBeGreaterThanOrEqual(count);
    const ids = names.map((_, i): CaseId => `C-${((i * 7) % count) + 1}`);
    const of = { ids };
    const json = JSON.parse((await exported({ format: 'json', of })).text) as { project: string; cases: { id: string; content: { title: string } }[] };
    expect([json.project, json.cases.map((c) => c.id)]).toEqual(['p', ids]);
    const rows = (await exported({ of })).text.split('\r\n');
    expect([rows.filter((row) => row.includes('p id')).length, rows.slice(1, -1).map((row) => row.split(',')[0])]).toEqual([1, ids]);
    const markdown = (await exported({ format: 'md', of })).text;
    expect([markdown.match(/^# /gm), [...markdown.matchAll(/^## Case (\d+) /gm)].map((m) => `C-${m[1]}`)]).toEqual([['# '], ids]);
    const book = await bring((await exported({ format: 'xlsx', layout: 'caseRows', sheets: true, of })).bytes, 'book.xlsx');
    expect([book.sheets, book.records, (await preview(book)).counts]).toEqual([['M 0', 'M 1', 'M 2'], 404, expect.objectContaining({ same: 404, added: 0, changed: 0, errors: 0 })]);
    expect(JSON.parse((await exported({ format: 'json', of: { kind: 'case', query: 'nobody has this' } })).text)).toMatchObject({ cases: [] });
  });

  test('with what is attached in a zip beside the table, which says where each lies; a plain file where there is none', async () => {
    await design();
    const [dial, bill] = [pngOf(3, 2), strToU8('%PDF-1.7\n%%EOF')];
    const keep = async (name: string, bytes: Uint8Array) => (await call('keepAttachment', { query: { name }, body: bytes as Uint8Array<ArrayBuffer> })).data;
    const [picture, paper] = [await keep('dial.png', dial), await keep('bill.pdf', bill)];
    await call('createArtefact', { body: testCase({ title: 'Look', attachments: [paper], steps: [{ ...plainStep(stepId('s'), 'Look', 'It turns'), attachments: [picture] }] }) });
    const zipped = async (order: Partial<ExportCases>): Promise<Record<string, Uint8Array>> => unzipSync((await exported({ files: true, ...order })).bytes);
    const inTable = await zipped({});
    expect(Object.keys(inTable)).toEqual(['p-cases.csv', 'files/C-3/bill.pdf', 'files/C-3/dial.png']);
    expect([inTable['files/C-3/dial.png'], inTable['files/C-3/bill.pdf']]).toEqual([new Uint8Array(dial), bill]);
    expect(strFromU8(inTable['p-cases.csv'] ?? new Uint8Array())).toContain('"files/C-3/bill.pdf\nstep 1: files/C-3/dial.png"');
    const inJson = JSON.parse(strFromU8((await zipped({ format: 'json', of: { ids: ['C-3'] } }))['p-cases.json'] ?? new Uint8Array())) as { cases: { files: unknown }[] };
    expect(inJson.cases[0]?.files).toEqual({ [picture.id]: 'files/C-3/dial.png', [paper.id]: 'files/C-3/bill.pdf' });
    // Read in again, the table changes nothing; what is attached stays.
    expect((await preview(await bring(Uint8Array.from(inTable['p-cases.csv'] ?? []), 'again.csv'))).counts).toMatchObject({ added: 0, changed: 0, same: 3 });
    expect((await exported({ files: true, of: { ids: ['C-1', 'C-2'] } })).text).toMatch(/^\uFEFF?p id,/);
  });

  test('with requirements and coverage beside; a row for each instance with all uses open and values in place; as JSON by its schema', async () => {
    await design();
    const figures = (await exported({ layout: 'caseRows', figures: true })).text;
    expect([figures.includes('requirements of the conditions,instances,coverage items,shown,coverage %'), figures.includes(',R-1,2,')]).toEqual([true, true]);
    const lines = (await exported({ layout: 'instanceRows', of: { ids: ['C-1'] } })).text;
    expect(lines).toContain('C-1,Enter,Door / front,low,,"1. Sign in as a clerk\n2. Enter 1",2. =1+1');
    expect(lines).toContain('high');
    const json = JSON.parse((await exported({ format: 'json' })).text) as { cases: { id: string; content: { title: string } }[] };
    expect(json.cases.map((c) => `${c.id} ${c.content.title}`)).toEqual(['C-2 Leave', 'C-1 Enter']);
    const schema = JSON.parse((await exported({ format: 'schema' })).text) as Parameters<typeof z.fromJSONSchema>[0];
    const check = z.fromJSONSchema(schema);
    expect([check.safeParse(json).success, check.safeParse({ ...json, cases: [{ ...json.cases[0], content: { title: 7 } }] }).success]).toEqual([true, false]);
  });

  test('readers take cases out and bring none in; a secret is never in a file', async () => {
    await design();
    const reader = server.as(project.reader);
    project = { ...project, analyst: project.reader };
    expect((await exported({ of: { everything: true }, format: 'md' })).text).toContain('## Enter {#C-1}');
    expect((await reader('uploadCases', { query: { name: 'x.csv' }, body: new TextEncoder().encode('Title\nx') })).status).toBe(403);
    expect((await call('previewCases', { params: { import: '00000000-0000-4000-8000-000000000000' }, body: { mapping: { source: 's', columns: {}, layout: 'caseRows', headings: true, module: '' }, reading: GUESS_ALL } })).data).toMatchObject({ code: 'import_unknown' });
  });
});
