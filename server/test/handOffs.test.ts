import { beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { CoveringId } from '@caderno/core/artefacts';
import { baselineNumber } from '@caderno/core/baselines';
import { newCover, newRow, parameterId, plainStep, rowId, stepId } from '@caderno/core/cases';
import { FILE_LIMITS, GUESS_ALL, readFile } from '@caderno/core/exchange';
import { HAND_OFF_COLUMNS, RETURNED_TABLE, handOffNumber, type ExecutedInstance } from '@caderno/core/handOffs';
import { EMPTY_FEATURE, withText } from '@caderno/core/scenarios';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { EMPTY_SUITE, entryId, type SuiteEntry } from '@caderno/core/suites';
import { API_ROOT, DEFAULT_SETTINGS, MOST_RETURNED_TOLD, handOffFileSchema, type NewHandOff } from '@caderno/contract';
import fc from 'fast-check';
import { strFromU8, unzipSync } from 'fflate';
import { execute, inTransaction } from '../src/database/index.ts';
import { condition, eachInProject, pngOf, requirement, save, testCase, type Caller } from './harness.ts';

const the = eachInProject('hand-offs');
let analyst: Caller;

const member = (of: CoveringId, pinned: number | null = null) => ({ kind: 'member' as const, id: entryId(`m-${of.replace('/', '.')}`), of, pinned, runsIn: null });
const SUITE: NewHandOff['of'] = { suite: 'U-1' };
const wanted = (part: Partial<NewHandOff> = {}): NewHandOff => ({ of: SUITE, configurations: [], name: 'Round 6', note: '', due: null, leftOut: [], people: ['Rui M.', 'Somebody outside'], dividing: 'evenly', chosen: [], ...part });
const preview = async (of: NewHandOff['of'] = SUITE, configurations: string[] = []) => (await analyst('previewHandOff', { body: { of, configurations } })).data;
const make = (part: Partial<NewHandOff> = {}, headers: Record<string, string> = {}) => analyst('makeHandOff', { body: wanted(part) }, headers);
const read = async (n: number) => (await analyst('readHandOff', { params: { handOff: handOffNumber(n) } as never })).data;

async function bytesOf(query: string, n = 1): Promise<Uint8Array> {
  const response = await the.server.fetch(`${API_ROOT}/projects/${the.key}/hand-offs/${n}/file?${query}`, { headers: { cookie: `caderno_session=${the.sessions.reader}` } });
  if (response.status !== 200) throw new Error(`${response.status} ${await response.text()}`);
  return new Uint8Array(await response.arrayBuffer());
}
const instancesOf = async (query = 'format=json', n = 1): Promise<readonly ExecutedInstance[]> => handOffFileSchema.parse(JSON.parse(strFromU8(await bytesOf(query, n)))).instances;

const reading = { id: parameterId('p'), name: 'reading', type: 'text' as const, default: '', description: '' };
const ENTER = testCase({
  title: 'Enter <reading>', module: 'Meters', estimate: 10, parameters: [reading], covers: [{ ...newCover('K-1', 1), expects: [stepId('a')] }],
  rows: [{ ...newRow(rowId('x'), 'lowest'), cells: { p: '0' } }, { ...newRow(rowId('y'), 'highest'), cells: { p: '=99' } }],
  steps: [plainStep(stepId('a'), 'type <reading> at <page>', 'it is taken'), { kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: null, arguments: [] }],
});

beforeEach(async () => {
  ({ analyst } = the);
  await the.lead('saveSettings', { body: { ...DEFAULT_SETTINGS, configurations: [{ id: 'web', name: 'On the web', factors: [{ name: 'browser', value: 'newest' }] }, ...['In the street', 'office', 'tablet'].map((name) => ({ id: name.split(' ').at(-1) ?? '', name, factors: [] }))], constants: [{ id: 'c', name: 'page', value: 'the page', secret: false, description: '', others: { web: 'the web page' } }] } }, { 'if-match': '"1"' });
  await analyst('createArtefact', { body: requirement({ title: 'Readings' }) });
  await analyst('createArtefact', { body: condition(['R-1'], { title: 'A reading' }) });
  await analyst('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Sign out', steps: [plainStep(stepId('o'), 'sign out')] } } });
  await analyst('createArtefact', { body: ENTER });
  await analyst('createArtefact', { body: testCase({ title: 'Elsewhere' }) });
  await analyst('createArtefact', { body: testCase({ title: 'Automated', execution: 'automated', steps: [plainStep(stepId('a'), 'run it', 'it is green')], dependsOn: [{ id: 'C-2' }] }) });
  const text = 'Feature: Bill\n\n  Scenario: one\n    Given a meter\n    Then a bill\n';
  await analyst('createArtefact', { body: { kind: 'feature', content: withText({ ...EMPTY_FEATURE, path: 'bill.feature', module: 'Bills' }, text, randomUUID) } });
  await analyst('createArtefact', { body: { kind: 'suite', content: { ...EMPTY_SUITE, title: 'Smoke', entries: [member('C-1'), member('C-3'), member('F-1/1')] } } });
});

test('what is doubtful is told before: what is not agreed, depends on what stays behind, has changed below, or takes nobody knows how long', async () => {
  await analyst('setState', { params: { id: 'C-1' } as never, body: { state: 'agreed' } });
  await save(analyst, 'K-1', 1, condition(['R-1'], { title: 'Another reading' }), '', undefined, the.key);
  const told = await preview();
  expect(told.members.map(({ of, instances, minutes, module, doubts }) => [of, instances, minutes, module, doubts])).toEqual([
    ['C-1', 2, 10, 'Meters', [{ kind: 'suspect', ids: ['K-1'] }]],
    ['C-3', 1, null, '', [{ kind: 'notAgreed', state: 'draft' }, { kind: 'outside', ids: ['C-2'] }]],
    ['F-1/1', 1, null, 'Bills', [{ kind: 'notAgreed', state: 'draft' }]],
  ]);
  await analyst('setState', { params: { id: 'C-3' } as never, body: { state: 'withdrawn' } });
  expect(await preview()).toMatchObject({ members: [{ of: 'C-1' }, { of: 'F-1/1' }], absent: ['C-3'] });
  // Without the constant there is nothing to stand for <page>.
  await the.lead('saveSettings', { body: DEFAULT_SETTINGS }, { 'if-match': '"2"' });
  expect((await preview()).members[0]?.doubts).toContainEqual({ kind: 'unbound', names: ['page'] });
});

test('it is given out, written in every form with its values, and later edits touch nothing of it', async () => {
  const made = (await make({ configurations: ['web', 'street'], due: '2031-01-31', chosen: [{ of: 'F-1/1', configuration: 'street', person: 'Inês V.' }] })).data;
  expect(made).toMatchObject({ number: 1, of: 'U-1', baseline: 1, due: '2031-01-31', instances: 8, minutes: 40, people: ['Rui M.', 'Somebody outside', 'Inês V.'] });
  const handOff = await read(1);
  expect(handOff.lines.map(({ of, configuration, person, instances }) => [of, configuration, person, instances])).toEqual([
    ['C-1', 'web', 'Rui M.', 2], ['C-1', 'street', 'Somebody outside', 2], ['C-3', 'web', '', 1], ['C-3', 'street', '', 1], ['F-1/1', 'web', '', 1], ['F-1/1', 'street', 'Inês V.', 1],
  ]);
  const before = await instancesOf();
  expect(before.map((i) => i.key)).toEqual(['C-1·lowest@On the web', 'C-1·highest@On the web', 'C-1·lowest@In the street', 'C-1·highest@In the street', 'C-3@On the web', 'C-3@In the street', 'F-1/1@On the web', 'F-1/1@In the street']);
  expect(before[1]).toMatchObject({ title: 'Enter =99', person: 'Rui M.', minutes: 10, steps: [{ action: 'type =99 at the web page', expected: 'it is taken' }, { through: 'S-1 Sign out', action: 'sign out' }] });
  expect(before[2]?.steps[0]?.action).toBe('type 0 at the page');
  expect(before[6]).toMatchObject({ module: 'Bills', steps: [{ action: 'Given a meter' }, { action: '', expected: 'Then a bill' }] });

  await save(analyst, 'C-1', 1, testCase({ title: 'Enter nothing' }), '', undefined, the.key);
  await save(analyst, 'S-1', 1, { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Sign out', steps: [plainStep(stepId('o'), 'leave')] } }, '', undefined, the.key);
  await analyst('setState', { params: { id: 'C-3' } as never, body: { state: 'withdrawn' } });
  await the.lead('saveSettings', { body: DEFAULT_SETTINGS }, { 'if-match': '"2"' });
  expect(await instancesOf()).toEqual(before);
  expect((await read(1)).now).toEqual([{ of: 'C-1', version: 2 }, { of: 'C-3', version: 0 }]);

  const mine = await instancesOf(`format=json&person=${encodeURIComponent('Rui M.')}`);
  expect(mine).toEqual(before.filter((i) => i.person === 'Rui M.'));
  const steps = before.flatMap((i) => i.steps.map((step) => [i.key, step.number]));
  for (const [format, name] of [['csv', 'x.csv'], ['xlsx', 'x.xlsx']] as const) {
    const document = await readFile(name, await bytesOf(`format=${format}`), GUESS_ALL);
    expect(document.columns).toEqual([...HAND_OFF_COLUMNS]);
    const at = (column: (typeof HAND_OFF_COLUMNS)[number]) => HAND_OFF_COLUMNS.indexOf(column);
    expect(document.records.map((r) => [r.cells[at('instance')], Number(r.cells[at('step')])])).toEqual(steps);
    expect([document.records[2]?.cells[at('action')], document.records[2]?.cells[at('title')]]).toEqual(['type =99 at the web page', 'Enter =99']);
  }
  const page = strFromU8(await bytesOf('format=html'));
  expect([page.match(/<article/g)?.length, page.includes('type =99 at the web page'), page.match(/https?:/g)]).toEqual([8, true, null]);
  expect(strFromU8(await bytesOf('format=md')).match(/^## /gm)).toHaveLength(8);
  expect(strFromU8(unzipSync(await bytesOf('format=features'))['bill.feature'] ?? new Uint8Array())).toContain('Scenario: one');
  expect(JSON.parse(strFromU8(await bytesOf('format=schema')))).toMatchObject({ type: 'object', properties: { format: { const: 'caderno-hand-off' } } });
});

test('each is executed in the configurations in which its suite runs it, and nothing that runs in none of those that are chosen', async () => {
  const part = { kind: 'part' as const, id: entryId('p'), title: 'Outside', depth: 1, rule: { of: 'scenarios' as const, asks: 'not @no', pinned: null }, runsIn: ['street', 'tablet'] };
  const save2 = (entries: readonly SuiteEntry[], base: number) => save(analyst, 'U-1', base, { kind: 'suite', content: { ...EMPTY_SUITE, title: 'Smoke', configurations: ['web', 'street'], entries } }, '', undefined, the.key);
  await save2([member('C-1'), { ...member('C-3'), runsIn: ['web'] }, part], 1);
  expect((await preview(SUITE, ['web', 'street'])).members.map((m) => [m.of, m.runsIn])).toEqual([['C-1', null], ['C-3', ['web']], ['F-1/1', ['street', 'tablet']]]);
  expect((await make({ configurations: ['web', 'street', 'office'] })).data.instances).toBe(8);
  expect((await read(1)).lines.map((l) => [l.of, l.configuration])).toEqual([['C-1', 'web'], ['C-1', 'street'], ['C-1', 'office'], ['C-3', 'web'], ['F-1/1', 'street']]);
  // Held against that one, only what is executed elsewhere now is another.
  expect((await analyst('previewHandOff', { body: { of: SUITE, configurations: ['web', 'street'], since: handOffNumber(1) } })).data.members.map((m) => [m.of, m.same])).toEqual([['C-1', false], ['C-3', true], ['F-1/1', true]]);
  // What runs elsewhere alone is not there for who depends on it, and of itself nothing is doubted.
  await save(analyst, 'C-1', 1, { kind: 'case', content: { ...ENTER.content, dependsOn: [{ id: 'C-3' }] } } as never, '', undefined, the.key);
  const doubted = async (configuration: string) => (await preview(SUITE, [configuration])).members.slice(0, 2).map((m) => m.doubts.map((d) => d.kind));
  expect(await doubted('street')).toEqual([['notAgreed', 'outside'], []]);
  expect(await doubted('web')).toEqual([['notAgreed'], expect.arrayContaining(['outside'])]);
  await save2([{ ...member('C-3'), runsIn: ['web'] }], 2);
  expect(await make({ configurations: ['street'] })).toMatchObject({ status: 422, data: { code: 'hand_off_of_nothing' } });
  expect((await make({ configurations: [] })).data.instances).toBe(1);
});

test('a member that stays with an earlier version is handed off with what that used', async () => {
  await save(analyst, 'C-1', 1, testCase({ title: 'Enter nothing', steps: [plainStep(stepId('a'), 'nothing')] }), '', undefined, the.key);
  await save(analyst, 'U-1', 1, { kind: 'suite', content: { ...EMPTY_SUITE, title: 'Smoke', entries: [member('C-1', 1)] } }, '', undefined, the.key);
  await make();
  expect((await instancesOf()).map((i) => [i.version, i.title, i.steps.map((s) => s.action)])).toEqual([[1, 'Enter 0', ['type 0 at the page', 'sign out']], [1, 'Enter =99', ['type =99 at the page', 'sign out']]]);
});

test('handed off again, it is told what is executed as before: with what it uses, its values and constants, whatever its version is called', async () => {
  await make({ configurations: ['web'] });
  const same = async (configurations: string[]) => (await analyst('previewHandOff', { body: { of: SUITE, configurations, since: handOffNumber(1) } })).data.members.map((m) => `${m.of} ${m.same}`);
  expect(await same(['web'])).toEqual(['C-1 true', 'C-3 true', 'F-1/1 true']);
  expect(await same([])).toEqual(['C-1 false', 'C-3 false', 'F-1/1 false']);
  // Who owns it changes nothing of what is executed; shared steps below it do.
  await save(analyst, 'C-3', 1, testCase({ title: 'Automated', execution: 'automated', owner: 'Rui M.', steps: [plainStep(stepId('a'), 'run it', 'it is green')] }), '', undefined, the.key);
  await save(analyst, 'S-1', 1, { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Sign out', steps: [plainStep(stepId('o'), 'leave')] } }, '', undefined, the.key);
  expect(await same(['web'])).toEqual(['C-1 false', 'C-3 true', 'F-1/1 true']);
});

test('from a baseline its own versions are handed off: all of it, or the members of the suite it is of', async () => {
  await analyst('takeBaseline', { body: { name: 'All', note: '', of: { everything: true } } });
  await analyst('takeBaseline', { body: { name: 'Smoke', note: '', of: SUITE } });
  await save(analyst, 'C-1', 1, testCase({ title: 'Enter nothing' }), '', undefined, the.key);
  const [all, ofSuite] = [{ baseline: baselineNumber(1) }, { baseline: baselineNumber(2) }] as const;
  expect((await preview(all)).members.map((m) => `${m.of} v${m.version}`)).toEqual(['C-1 v1', 'C-2 v1', 'C-3 v1', 'F-1/1 v1']);
  expect((await make({ of: all, leftOut: ['C-3', 'F-1/1'] })).data).toMatchObject({ of: 'B-1', baseline: 1, instances: 3 });
  expect((await instancesOf()).map((i) => i.key)).toEqual(['C-1·lowest', 'C-1·highest', 'C-2']);
  expect((await preview(ofSuite)).members.map((m) => m.of)).toEqual(['C-1', 'C-3', 'F-1/1']);
  expect((await analyst('listBaselines')).data).toHaveLength(2);
});

test('the same command makes one; nothing, too much, and what is not there are refused, and no baseline is taken for it', async () => {
  const command = { 'Command-Id': randomUUID() };
  expect([(await make({}, command)).data, (await make({}, command)).data].map((h) => h.number)).toEqual([1, 1]);
  expect((await analyst('listHandOffs')).data).toHaveLength(1);
  expect((await make({ leftOut: ['C-1', 'C-3', 'F-1/1'] })).refusal).toMatchObject({ code: 'hand_off_of_nothing' });
  expect((await make({ configurations: ['gone'] })).refusal).toMatchObject({ code: 'configuration_unknown' });
  expect((await analyst('readHandOff', { params: { handOff: handOffNumber(9) } as never })).refusal).toMatchObject({ code: 'hand_off_unknown' });
  expect((await the.reader('makeHandOff', { body: wanted() })).status).toBe(403);
  const many = testCase({ title: 'Many', rows: Array.from({ length: 26_000 }, (_, i) => newRow(rowId(`r${i}`), '')), steps: ['a', 'b'].map((id) => plainStep(stepId(id), `once ${id}`, 'more')) });
  await analyst('createArtefact', { body: many });
  await save(analyst, 'U-1', 1, { kind: 'suite', content: { ...EMPTY_SUITE, title: 'Smoke', entries: [member('C-4')] } }, '', undefined, the.key);
  expect((await make({ configurations: ['web', 'street', 'office', 'tablet'] })).refusal).toMatchObject({ code: 'hand_off_too_large', instances: 104_000, limit: 100_000 });
  expect((await analyst('listBaselines')).data).toHaveLength(1);
  expect((await make()).data).toMatchObject({ number: 2, instances: 26_000 });
  const page = await the.server.fetch(`${API_ROOT}/projects/${the.key}/hand-offs/2/file?format=html`, { headers: { cookie: `caderno_session=${the.sessions.reader}` } });
  expect([page.status, await page.json()]).toMatchObject([422, { code: 'hand_off_too_long' }]);
  expect(strFromU8(await bytesOf('format=csv', 2)).split('\r\n')).toHaveLength(52_002);
  // More rows than one workbook is made of are several, none of which parts an instance; each is small enough to come back by itself.
  const books = unzipSync(await bytesOf('format=xlsx', 2));
  expect(Object.keys(books)).toEqual([1, 2].map((n) => `${the.key}-H-2-${n}.xlsx`));
  const tables = await Promise.all(Object.values(books).map(async (bytes) => (await readFile('a.xlsx', bytes, GUESS_ALL, { table: RETURNED_TABLE })).records));
  expect(tables.map((t) => t.length)).toEqual([49_998, 2_002]);
  expect(new Set(tables.flat().map((r) => `${r.cells[1]} ${r.cells[7]}`)).size).toBe(52_000);
});

test('what came back goes to its places, once; another project’s, damaged and unreadable files are told', async () => {
  await make();
  const upload = async (name: string, bytes: Uint8Array | string) => analyst('readReturned', { params: { handOff: handOffNumber(1) } as never, query: { name }, body: (typeof bytes === 'string' ? Buffer.from(bytes) : bytes) as never });
  const csv = strFromU8(await bytesOf('format=csv'));
  expect((await upload('back.csv', csv)).data).toEqual({ by: '', proposals: [], total: 0, unplaced: [], unplacedTotal: 0 });
  // As a spreadsheet may save it: another separator, rows in another order, one taken out, somebody else’s row among them.
  const [head = '', ...rows] = csv.replace(/^\uFEFF/, '').split('\r\n').map((line) => line.replaceAll(',', ';'));
  const edited = rows.filter((row) => !row.includes('C-3')).map((row) => row.replace('type 0 at the page', 'type 0 at the very page').replace('it is taken;;;;', 'it is taken;;x;not at once;12'));
  const other = (rows[0] ?? '').replace(`${the.key} H-1`, 'elsewhere H-1');
  const back = [head, other, ...edited.toReversed()].join('\n');
  const { data } = await upload('back.csv', back);
  expect(data.proposals.map(({ of, place, text, offer, instances, there }) => [of, place.path, text, offer, instances, there])).toEqual([
    ['C-1', 'steps/a', 'not at once', null, ['C-1·highest', 'C-1·lowest'], false],
    ['C-1', '', 'Took 12 minutes, not 10.', null, ['C-1·highest', 'C-1·lowest'], false],
    ['C-1', 'steps/a/action', 'Executed as: type 0 at the very page', null, ['C-1·lowest'], false],
  ]);
  expect([data.unplaced, data.unplacedTotal]).toEqual([[{ instance: 'C-1·lowest', step: 1, why: 'otherHandOff' }], 1]);
  // The case moved on meanwhile: the remark finds its step by its id.
  await save(analyst, 'C-1', 1, testCase({ title: 'Enter it', steps: [plainStep(stepId('n'), 'before'), plainStep(stepId('a'), 'type it')] }), '', undefined, the.key);
  for (const { of, remark, place, said, version, text } of data.proposals) expect((await analyst('beginThread', { params: { id: of } as never, body: { remark, place, said, version, text } })).status).toBe(200);
  expect((await analyst('listRemarks', { params: { id: 'C-1' } as never })).data.map((t) => t.remarks[0]?.text)).toHaveLength(3);
  expect((await upload('back.csv', back)).data.proposals.map((p) => p.there)).toEqual([true, true, true]);

  // More than is told at once: what is at its place makes room for the rest.
  const [one = ''] = rows;
  const many = [head, ...Array.from({ length: MOST_RETURNED_TOLD + 1 }, (_, i) => one.replace('it is taken;;;;', `it is taken;;;remark ${i};`))].join('\n');
  const first = (await upload('many.csv', many)).data;
  expect([first.proposals.length, first.total, first.proposals.some((p) => p.text === `remark ${MOST_RETURNED_TOLD}`)]).toEqual([MOST_RETURNED_TOLD, MOST_RETURNED_TOLD + 1, false]);
  const [{ of, remark, place, said, version, text }] = first.proposals as [(typeof first.proposals)[number]];
  await analyst('beginThread', { params: { id: of } as never, body: { remark, place, said, version, text } });
  expect((await upload('many.csv', many)).data.proposals.at(-1)?.text).toBe(`remark ${MOST_RETURNED_TOLD}`);
  // Rows above the names of the columns are somebody’s own.
  expect((await upload('back.csv', `What we found;;;\nin May;;;\n${back}`)).data.total).toBe(3);
  const long = [head, ...Array.from({ length: FILE_LIMITS.rows + 1 }, () => other)].join('\n');
  expect((await upload('long.csv', long)).refusal).toMatchObject({ code: 'returned_too_long' });
  const notes = (more: object) => JSON.stringify({ format: 'caderno-hand-off-notes', version: 1, project: the.key, handOff: 1, by: 'A tester', notes: [{ instance: 'C-1·lowest', step: 2, done: true, remark: 'no bell', minutes: '' }, { instance: 'C-7', step: null, done: false, remark: 'x', minutes: '' }], ...more });
  expect((await upload('n.json', notes({}))).data).toMatchObject({ by: 'A tester', proposals: [{ of: 'S-1', place: { path: 'steps/o' }, text: 'no bell' }], unplaced: [{ instance: 'C-7', why: 'unknownInstance' }] });
  expect((await upload('n.json', notes({ handOff: 2 }))).data).toMatchObject({ proposals: [], unplaced: [{ why: 'otherHandOff' }, { why: 'otherHandOff' }] });
  for (const [name, bytes] of [['n.json', '{'], ['n.json', '{"format":"other"}'], ['x.csv', 'id,title\n1,2\n'], ['x.xlsx', 'no workbook'], ['e.csv', ' ']] as const) expect((await upload(name, bytes)).refusal).toMatchObject({ code: 'returned_unreadable' });
});

test('two who hand off at once make two, and one hand-off of each command', async () => {
  const commands = Array.from({ length: 2 }, () => ({ 'Command-Id': randomUUID() }));
  const made = await Promise.all([...commands, ...commands].map((command, i) => make({ name: `Round ${i % 2}` }, command)));
  expect(made.map((m) => m.status)).toEqual([200, 200, 200, 200]);
  const listed = (await analyst('listHandOffs')).data;
  expect([listed.map((h) => h.number), new Set(listed.map((h) => h.name)).size, new Set(listed.map((h) => h.baseline)).size]).toEqual([[2, 1], 2, 2]);
});

test('the moment it is read from may be forgotten: it is made again, and the files are the same', async () => {
  await make({ configurations: ['web'] });
  const before = await instancesOf();
  await save(analyst, 'C-1', 1, testCase({ title: 'Enter nothing' }), '', undefined, the.key);
  await inTransaction(the.server.db, (work) => execute(work, `DELETE FROM project WHERE key = $1`, [`${the.key}@B-1`]));
  expect(await instancesOf()).toEqual(before);
});

test('a secret constant is in none of its files; what is attached is named, and a picture is in the page', async () => {
  const secret = 'fc-0vX9-7Q2p';
  const settings = { ...DEFAULT_SETTINGS, constants: [{ id: 'c', name: 'page', value: secret, secret: true, description: '', others: { web: `${secret}-web` } }], configurations: [{ id: 'web', name: 'On the web', factors: [] }] };
  expect((await the.lead('saveSettings', { body: settings }, { 'if-match': '"2"' })).status).toBe(200);
  const picture = (await analyst('keepAttachment', { query: { name: 'dial.png' }, body: pngOf(3, 2) as never })).data;
  const { content } = ENTER as { content: { steps: readonly object[] } };
  await save(analyst, 'C-1', 1, testCase({ ...content, steps: [{ ...plainStep(stepId('a'), 'type <reading> at <page>', 'it is taken'), attachments: [picture] }] } as never), '', undefined, the.key);
  await make({ configurations: ['web'] });
  for (const format of ['csv', 'html', 'md', 'json']) expect([format, strFromU8(await bytesOf(`format=${format}`)).includes(secret)]).toEqual([format, false]);
  expect((await instancesOf())[0]?.steps[0]).toMatchObject({ action: expect.stringMatching(/^type 0 at •+$/), files: [{ name: 'dial.png' }] });
  const page = strFromU8(await bytesOf('format=html'));
  expect(page.match(/<img src="data:image\/png;base64,[\w+/]+=*" alt="dial.png">/g)).toHaveLength(2);
  expect(strFromU8(await bytesOf('format=csv'))).toContain(',dial.png,');
});

test('whatever is done to the design afterwards, the files of a hand-off stay the same', async () => {
  await make({ configurations: ['web', 'street'] });
  const files = async () => Promise.all(['csv', 'md', 'json', 'html'].map(async (format) => strFromU8(await bytesOf(`format=${format}`))));
  const before = await files();
  const acts = [
    async () => save(analyst, 'C-1', (await version('C-1')), testCase({ title: `Enter ${randomUUID()}` }), '', undefined, the.key),
    async () => save(analyst, 'S-1', await version('S-1'), { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Sign out', steps: [plainStep(stepId('o'), randomUUID())] } }, '', undefined, the.key),
    async () => save(analyst, 'U-1', await version('U-1'), { kind: 'suite', content: { ...EMPTY_SUITE, title: randomUUID() } }, '', undefined, the.key),
    async () => analyst('setState', { params: { id: 'C-1' } as never, body: { state: 'agreed' } }),
    async () => analyst('setState', { params: { id: 'C-3' } as never, body: { state: 'withdrawn' } }),
    async () => analyst('setState', { params: { id: 'K-1' } as never, body: { state: 'withdrawn' } }),
    async () => the.lead('saveSettings', { body: { ...DEFAULT_SETTINGS, constants: [] } }, { 'if-match': `"${(await the.lead('readSettings')).data.version}"` }),
    async () => make({ name: 'Another', leftOut: ['C-1'] }),
  ];
  const version = async (id: string): Promise<number> => (await analyst('readArtefact', { params: { id } as never })).data.summary.version;
  await fc.assert(
    fc.asyncProperty(fc.array(fc.constantFrom(...acts), { minLength: 1, maxLength: 5 }), async (some) => {
      for (const act of some) await act();
      expect(await files()).toEqual(before);
    }),
    { numRuns: 8 },
  );
});
