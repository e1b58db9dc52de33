import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { attachmentId, type Attachment } from '@caderno/core/attachments';
import { EMPTY_QUESTION, EMPTY_REQUIREMENT } from '@caderno/core/basis';
import { plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_CONDITION } from '@caderno/core/conditions';
import { API_ROOT, LIMITS } from '@caderno/contract';
import { strToU8, zipSync } from 'fflate';
import { makeDatabase, makeProject, pngOf, startServer, testCase, type Caller, type TestServer } from './harness.ts';

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

const keep = (name: string, bytes: Uint8Array, as = call) => as('keepAttachment', { query: { name }, body: bytes as Uint8Array<ArrayBuffer> });
const serve = (id: string, name = '') => server.fetch(`${API_ROOT}/projects/p/attachments/${id}?name=${encodeURIComponent(name)}`, { headers: { cookie: `caderno_session=${project.reader}` } });
const spreadsheet = zipSync({ '[Content_Types].xml': strToU8('<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/></Types>'), 'xl/workbook.xml': strToU8('<workbook/>') });

test.each([
  ['a picture', 'dial.png', pngOf(3, 2), 'image/png', 'dial.png'],
  ['a picture that says it is a text', 'dial.txt', pngOf(3, 4), 'image/png', 'dial.txt.png'],
  ['a PDF', 'bill.pdf', strToU8('%PDF-1.7\n1 0 obj\n<< >>\nendobj\n%%EOF'), 'application/pdf', 'bill.pdf'],
  ['an old spreadsheet by its letters', 'leituras.csv', Uint8Array.from([...'contador;leitura\nM-1;não', ''].map((c) => (c === 'ã' ? 0xe3 : c.charCodeAt(0) || 10))), 'text/plain', 'leituras.csv'],
  ['a spreadsheet', 'readings.xlsx', spreadsheet, 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'readings.xlsx'],
  ['an archive', 'all.zip', zipSync({ 'a.txt': strToU8('a') }), 'application/zip', 'all.zip'],
  ['a drawing with a script', 'dial.svg', strToU8('<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"/>'), 'text/plain', 'dial.svg.txt'],
  ['a page with a script, called a picture', '../\u202egnp.html', strToU8('<!doctype html><script>alert(1)</script>'), 'text/plain', 'gnp.html.txt'],
] as const)('%s is kept as what it is and served so that nothing can run', async (_, name, bytes, type, kept) => {
  const { data } = await keep(name, bytes);
  expect(data).toMatchObject({ name: kept, type, size: bytes.length });
  expect((await keep('again', bytes)).data.id).toBe(data.id);
  const served = await serve(data.id, name);
  expect(Object.fromEntries(['content-type', 'x-content-type-options', 'content-security-policy', 'content-disposition', 'cache-control'].map((h) => [h, served.headers.get(h)]))).toEqual({
    'content-type': type,
    'x-content-type-options': 'nosniff',
    'content-security-policy': "default-src 'none'; sandbox",
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(kept)}`,
    'cache-control': 'private, max-age=31536000, immutable',
  });
  expect(new Uint8Array(await served.arrayBuffer())).toEqual(new Uint8Array(bytes));
});

test.each([
  ['nothing at all', new Uint8Array(0), 'attachment_type_refused'],
  ['a program', Uint8Array.from([0x4d, 0x5a, 0x90, 0, 3, 0, 0, 0]), 'attachment_type_refused'],
  ['half a picture', pngOf(3, 2).slice(0, 12), 'attachment_type_refused'],
  ['bytes of no kind', Uint8Array.from({ length: 400 }, (_, i) => (i * 7) % 32), 'attachment_type_refused'],
  ['a picture too wide to be shown', pngOf(10_001, 1), 'attachment_too_wide'],
  ['one of too many pixels', pngOf(9_000, 9_000), 'attachment_too_wide'],
  ['more than a file may have', new Uint8Array(LIMITS.attachment + 1), 'attachment_too_large'],
])('%s is refused', async (_, bytes, code) => {
  expect((await keep('file', bytes)).refusal.code).toBe(code);
});

test('who may only read keeps nothing; artefacts and steps name only what their project keeps, as what it is', async () => {
  expect((await keep('dial.png', pngOf(5, 5), server.as(project.reader))).status).toBe(403);
  const file = (await keep('dial.png', pngOf(5, 6))).data;
  const make = (part: Partial<Attachment>, as = 'p') => {
    const attachments = [{ ...file, ...part }];
    const bodies = [
      { kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title: 'R', attachments } },
      { kind: 'question', content: { ...EMPTY_QUESTION, title: 'Q', attachments } },
      { kind: 'condition', content: { ...EMPTY_CONDITION, title: 'K', attachments } },
      testCase({ title: 'C', attachments }),
      testCase({ title: 'C', steps: [{ ...plainStep(stepId('s'), 'look'), attachments }] }),
    ] as const;
    return Promise.all(bodies.map(async (body) => server.as(project.analyst)('createArtefact', { params: { project: as }, body })));
  };
  expect((await make({})).map((r) => r.status)).toEqual([200, 200, 200, 200, 200]);
  expect((await make({ type: null, size: null })).map((r) => r.status)).toEqual([200, 200, 200, 200, 200]);
  for (const lie of [{ id: attachmentId('0'.repeat(64)) }, { type: 'application/pdf' as const }, { size: 1 }]) {
    expect((await make(lie)).map(({ refusal }) => refusal)).toMatchObject(Array.from({ length: 5 }, () => ({ code: 'attachment_unknown', name: 'dial.png' })));
  }
  const other = await makeProject(server.db, 'other');
  expect((await server.as(other.analyst)('createArtefact', { params: { project: 'other' }, body: testCase({ title: 'C', attachments: [file] }) })).refusal).toMatchObject({ code: 'attachment_unknown' });
  expect((await serve('0'.repeat(64), 'lost.pdf')).status).toBe(422);
});

test('a clone has the files of the case it came from', async () => {
  const first = (await keep('one.png', pngOf(6, 1))).data;
  const origin = (await call('createArtefact', { body: testCase({ title: 'Origin', attachments: [first] }) })).data.summary.id;
  const cloned = (await call('changeMany', { body: { of: { ids: [origin] }, done: { kind: 'clone', parts: [], sets: [[]] }, detail: 'Cloned' } })).data.made[0]!;
  expect((await call('readArtefact', { params: { id: cloned } })).data.content).toMatchObject({ attachments: [first] });
});
