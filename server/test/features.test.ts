import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { textOf, withText } from '@caderno/core/scenarios';
import { newCover, stepId } from '@caderno/core/cases';
import { API_ROOT, unpackHeads, unpackRows } from '@caderno/contract';
import { unzipSync, zipSync } from 'fflate';
import { condition, makeDatabase, makeProject, requirement, save, startServer, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let people: Awaited<ReturnType<typeof makeProject>>;
let here: Caller;
let key: string;
let turn = 0;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});
beforeEach(async () => {
  key = `features-${(turn += 1)}`;
  people = await makeProject(server.db, key);
  const call = server.as(people.analyst);
  here = (name, input = {}, headers = {}) => call(name, { ...input, params: Object.assign({}, input.params, { project: key }) }, headers);
});

const BILL = '\uFEFFFeature: Bill\r\n\r\n  @smoke\r\n  Scenario: one\r\n    Given a meter "M-1"\r\n    Then b\r\n\r\n  Scenario Outline: two\r\n    Given <n>\r\n    Examples:\r\n      | n |\r\n      | 1 |\r\n      | 2 |';
const BROKEN = 'Feature: Half\n  Scenario: x\n    Given y\n  nonsense\n';
const FOLDER = { 'bills/bill.feature': BILL, 'half.feature': BROKEN, 'empty.feature': '', 'notes.txt': 'no feature', '.git/x.feature': 'Feature: hidden\n' };

function zip(files: Readonly<Record<string, string | Uint8Array>>): Uint8Array<ArrayBuffer> {
  const encoded = Object.entries(files).map(([path, text]) => [path, typeof text === 'string' ? new TextEncoder().encode(text) : text] as const);
  return new Uint8Array(zipSync(Object.fromEntries(encoded)));
}

const bring = async (files: Parameters<typeof zip>[0]) => (await here('uploadFeatures', { query: { name: 'features.zip' }, body: zip(files) })).data;
const run = (id: string, choices = {}) => here('runFeatures', { params: { import: id } as never, body: { choices } });

async function exported(of: object, form?: 'zip'): Promise<{ type: string; bytes: Uint8Array }> {
  const response = await server.fetch(`${API_ROOT}/projects/${key}/features/export`, { method: 'POST', headers: { cookie: `caderno_session=${people.reader}`, 'content-type': 'application/json' }, body: JSON.stringify({ of, form }) });
  expect(response.status).toBe(200);
  return { type: response.headers.get('content-type') ?? '', bytes: new Uint8Array(await response.arrayBuffer()) };
}

async function textHere(id: 'F-1' | 'F-2' | 'F-3'): Promise<string> {
  const read = (await here('readArtefact', { params: { id } as never })).data;
  return read.kind === 'feature' ? textOf(read.content) : '';
}

describe('a folder of features', () => {
  test('comes in as it is, errors and all, in one entry, and goes out byte for byte', async () => {
    const draft = await bring(FOLDER);
    expect(draft.counts).toEqual({ added: 3, changed: 0, same: 0, missing: 0, problems: 1, left: 0, scenarios: 3 });
    expect(draft.problems).toEqual([{ path: 'half.feature', code: 'unexpected_line', line: 4, column: 3, found: 'nonsense' }]);
    expect((await run(draft.id)).status).toBe(200);
    const heads = unpackHeads((await here('readHeads')).data.heads);
    expect(heads.map((h) => (h.kind === 'feature' ? [h.id, h.title, h.path, h.problems, h.scenarios.map((s) => [s.number, s.name, s.tags, s.instances])] : h.kind))).toEqual([
      ['F-1', 'Bill', 'bills/bill.feature', 0, [[1, 'one', ['@smoke'], 1], [2, 'two', [], 2]]],
      ['F-2', 'empty', 'empty.feature', 0, []],
      ['F-3', 'Half', 'half.feature', 1, [[1, 'x', [], 1]]],
    ]);
    const out = unzipSync((await exported({ everything: true })).bytes);
    expect(Object.fromEntries(Object.entries(out).map(([path, bytes]) => [path, new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes)]))).toEqual({ 'bills/bill.feature': BILL, 'empty.feature': '', 'half.feature': BROKEN });
    const alone = await exported({ ids: ['F-1'] });
    expect([alone.type, Buffer.from(alone.bytes).equals(Buffer.from(BILL))]).toEqual(['text/x-gherkin; charset=utf-8', true]);
    expect((await bring(FOLDER)).counts).toMatchObject({ added: 0, changed: 0, same: 3 });
  });

  test('brought again is taken in three ways; both sides are shown, and one is chosen', async () => {
    await run((await bring({ 'a.feature': BILL })).id);
    const before = (await here('readArtefact', { params: { id: 'F-1' } as never })).data;
    if (before.kind !== 'feature') throw new Error('It is a feature');
    const edited = { ...before.content, parts: before.content.parts.map((p) => ({ ...p, lines: p.lines.map((l) => ({ ...l, text: l.text.replace('Then b', 'Then mine') })) })) };
    await save(server.as(people.analyst), 'F-1', 1, { kind: 'feature', content: edited }, '', undefined, key);
    const elsewhere = await bring({ 'a.feature': BILL.replace('Given <n>', 'Given <n> there') });
    expect(elsewhere.conflicts).toBe(0);
    await run(elsewhere.id);
    expect(await textHere('F-1')).toBe(BILL.replace('Then b', 'Then mine').replace('Given <n>', 'Given <n> there'));
    const clash = await bring({ 'a.feature': BILL.replace('Then b', 'Then theirs').replace('Given <n>', 'Given <n> there') });
    expect(clash.changed).toMatchObject([{ id: 'F-1', both: [{ mine: 'Then mine', theirs: 'Then theirs' }] }]);
    expect((await run(clash.id)).refusal).toMatchObject({ code: 'import_conflicts_open', count: 1 });
    await run(clash.id, { 'F-1': 'theirs' });
    expect(await textHere('F-1')).toContain('Then theirs');
  });

  test('undone leaves no trace: brought once more it comes again', async () => {
    await run((await bring({ 'a.feature': BILL })).id);
    const changed = BILL.replace('Then b', 'Then c');
    const change = (await run((await bring({ 'a.feature': changed })).id)).data;
    await here('undoChange', { params: { change: change.id } as never, body: {} });
    expect(await textHere('F-1')).toBe(BILL);
    expect((await bring({ 'a.feature': changed })).counts).toMatchObject({ changed: 1, same: 0 });
  });

  test('is known where a file was renamed, and what is not brought stays', async () => {
    await run((await bring({ 'old.feature': BILL, 'b.feature': 'Feature: B\n' })).id);
    const draft = await bring({ 'new/name.feature': BILL });
    expect(draft.changed).toMatchObject([{ id: 'F-2', path: 'new/name.feature', from: 'old.feature', both: [] }]);
    expect(draft.missing).toEqual([{ id: 'F-1', path: 'b.feature' }]);
    await run(draft.id);
    expect((await here('readArtefact', { params: { id: 'F-2' } as never })).data.summary).toMatchObject({ path: 'new/name.feature', version: 2 });
  });

  test('that leads out of itself, is no text or no zip stays out, told by its name', async () => {
    const draft = await bring({ '../out.feature': 'Feature: out\n', 'latin.feature': new Uint8Array([0x46, 0xe9, 0x0a]), 'nul.feature': 'Feature: \0\n', 'ok.feature': 'Feature: ok\n' });
    expect(draft.left).toEqual([{ path: '../out.feature', reason: 'bad_path' }, { path: 'latin.feature', reason: 'not_text' }, { path: 'nul.feature', reason: 'not_text' }]);
    expect(draft.added).toEqual([{ path: 'ok.feature', title: 'ok', scenarios: 0 }]);
    expect((await here('uploadFeatures', { query: { name: 'x.zip' }, body: zip({ 'a.txt': 'x' }) })).refusal).toMatchObject({ code: 'features_unreadable', wrong: 'none' });
    expect((await here('uploadFeatures', { query: { name: 'x.zip' }, body: zip(FOLDER).slice(0, 200) })).refusal).toMatchObject({ code: 'features_unreadable', wrong: 'damaged' });
    expect((await server.as(people.reader)('uploadFeatures', { params: { project: key }, query: { name: 'a.feature' }, body: new TextEncoder().encode(BILL) })).status).toBe(403);
  });
});

test('the numbers of scenarios are given by the server once, whatever a client says, and links turn suspect with what they lead to', async () => {
  await here('createArtefact', { body: requirement({ title: 'Paying' }) });
  await run((await bring({ 'a.feature': BILL })).id);
  const before = (await here('readArtefact', { params: { id: 'F-1' } as never })).data;
  if (before.kind !== 'feature') throw new Error('It is a feature');
  const parts = before.content.parts.map((p) => ({ ...p, number: 0, lines: p.lines.map((l) => ({ ...l, text: l.text.replace('Feature: Bill', 'Feature: Renamed') })) }));
  await save(server.as(people.analyst), 'F-1', 1, { kind: 'feature', content: { ...before.content, parts, lastNumber: 0, requirements: [{ id: 'R-1', seenVersion: 1, parts: [] }] } }, '', undefined, key);
  const after = (await here('readArtefact', { params: { id: 'F-1' } as never })).data;
  expect(after.kind === 'feature' && [after.content.title, after.content.lastNumber, after.content.parts.map((p) => p.number)]).toEqual(['Renamed', 2, [0, 1, 2]]);
  await save(server.as(people.analyst), 'R-1', 1, requirement({ title: 'Paying', text: 'otherwise' }), '', undefined, key);
  expect((await here('listSuspectLinks')).data.map((l) => [l.from, l.to])).toEqual([['F-1', 'R-1']]);
});

test('scenarios count in the coverage of the project, and what they cover is kept by scenario through saves', async () => {
  await here('createArtefact', { body: requirement({ title: 'Paying' }) });
  await here('createArtefact', { body: condition(['R-1'], { title: 'Paid' }) });
  await run((await bring({ 'a.feature': 'Feature: A\n  Scenario: pays\n    When the member pays\n    Then the bill is paid\n\n  Scenario: other\n    Given x\n' })).id);
  const feature = async () => {
    const read = (await here('readArtefact', { params: { id: 'F-1' } as never })).data;
    if (read.kind !== 'feature') throw new Error('It is a feature');
    return read;
  };
  const items = async () => (await here('listItems', { query: {} })).data.items.map((i) => [i.condition, i.standing, i.shownBy.map((s) => s.case), i.cases]);
  expect(await items()).toEqual([['K-1', 'gap', [], []]]);
  const { content, summary } = await feature();
  const expects = content.parts.flatMap((p) => p.lines).filter((l) => l.text.includes('Then')).map((l) => stepId(l.id));
  const covering = { ...content, parts: content.parts.map((p) => (p.number === 1 ? { ...p, covers: [{ ...newCover('K-1', 1), expects }] } : p)) };
  await save(server.as(people.analyst), 'F-1', summary.version, { kind: 'feature', content: covering }, '', undefined, key);
  expect(await items()).toEqual([['K-1', 'shown', ['F-1/1'], ['F-1/1']]]);
  const rows = unpackRows((await here('readCoverageRows', { query: {} })).data.rows);
  expect(rows.filter((r) => r.kind === 'case')).toEqual([{ kind: 'case', id: 'F-1/1', shows: true, counts: null }]);
  expect((await here('readDesign', { query: { feature: 'F-1' } })).data.cases.map((c) => c.id)).toEqual(['F-1/1']);

  // Brought again without the step it names the scenario still covers, and shows nothing.
  await run((await bring({ 'a.feature': 'Feature: A\n  Scenario: other\n    Given x\n\n  Scenario: pays\n    When the member pays\n' })).id);
  expect((await feature()).content.parts.map((p) => [p.kind, p.number, p.covers.map((c) => c.id)])).toEqual([['head', 0, []], ['scenario', 2, []], ['scenario', 1, ['K-1']]]);
  expect(await items()).toEqual([['K-1', 'linked', [], ['F-1/1']]]);
  await here('setState', { params: { id: 'F-1' } as never, body: { state: 'withdrawn' } });
  expect(await items()).toEqual([['K-1', 'gap', [], []]]);
});

test('what stands in the code as it stands here is remembered, by whoever may write; what does not is not', async () => {
  const [one, two] = ['Feature: One\n  Scenario: a\n    Given 1\n', 'Feature: Two\n  Scenario: b\n    Given 2\n'];
  await run((await bring({ 'one.feature': one, 'two.feature': two })).id);
  const edit = async (id: 'F-1' | 'F-2', from: string, to: string): Promise<void> => {
    const read = (await here('readArtefact', { params: { id } as never })).data;
    if (read.kind !== 'feature') throw new Error('It is a feature');
    await save(server.as(people.analyst), id, read.summary.version, { kind: 'feature', content: withText(read.content, textOf(read.content).replace(from, to), () => `${id}${from}`) }, '', undefined, key);
  };
  await edit('F-1', 'Given 1', 'Given 11');
  await edit('F-2', 'Given 2', 'Given 22');
  const there = zip({ 'one.feature': one.replace('Given 1', 'Given 11'), 'two.feature': two, 'three.feature': two });
  const asReader = server.as(people.reader);
  expect((await asReader('rememberFeatures', { params: { project: key } as never, body: there })).refusal).toMatchObject({ code: 'role_too_low', needed: 'analyst' });
  const before = (await here('listChanges', { query: {} })).data.length;
  expect((await here('rememberFeatures', { body: there })).data).toEqual({ remembered: 1 });
  expect((await here('listChanges', { query: {} })).data).toHaveLength(before);
  // The line that was pulled and changed again is the code's own change now; the other one, which was never pulled, is in conflict.
  const draft = await bring({ 'one.feature': one.replace('Given 1', 'Given 111'), 'two.feature': two.replace('Given 2', 'Given 222') });
  expect(draft.changed.map((c) => [c.id, c.both.map((b) => [b.mine, b.theirs])])).toEqual([['F-2', [['Given 22', 'Given 222']]], ['F-1', []]]);
});

test('a zip is had of one feature too, where it is asked for', async () => {
  await run((await bring({ 'bills/bill.feature': BILL })).id);
  const { type, bytes } = await exported({ kind: 'feature', query: '' }, 'zip');
  expect([type, Object.keys(unzipSync(bytes))]).toEqual(['application/zip', ['bills/bill.feature']]);
  expect((await exported({ kind: 'feature', query: '' })).type).toMatch(/^text\/x-gherkin/);
});
