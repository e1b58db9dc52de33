import { beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { baselineNumber, compareFrozen } from '@caderno/core/baselines';
import { newCover, newRow, parameterId, plainStep, rowId, stepId } from '@caderno/core/cases';
import { EMPTY_DATA_SET } from '@caderno/core/dataSets';
import { EMPTY_FEATURE, withText, type FeatureContent } from '@caderno/core/scenarios';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { API_ROOT, DEFAULT_SETTINGS, type BringBack, type NewBaseline } from '@caderno/contract';
import fc from 'fast-check';
import { condition, eachInProject, requirement, testCase, type Caller } from './harness.ts';

const the = eachInProject('baselines');
let analyst: Caller;
let reader: Caller;

beforeEach(async () => {
  ({ analyst, reader } = the);
  await analyst('createArtefact', { body: requirement({ title: 'Readings', module: 'Meters' }) });
  await analyst('createArtefact', { body: condition(['R-1'], { title: 'A reading' }) });
  await analyst('createArtefact', { body: testCase({ title: 'Give it', covers: [{ ...newCover('K-1', 1), expects: [stepId('a')] }], estimate: 4, steps: [plainStep(stepId('a'), 'give it', 'it is taken')] }) });
});

const EVERYTHING: NewBaseline['of'] = { everything: true };
const take = (name: string, of: NewBaseline['of'] = EVERYTHING, headers = {}, call = analyst) => call('takeBaseline', { body: { name, note: '', of } }, headers);
const ofBaseline = (n: number) => ({ params: { baseline: baselineNumber(n) } as never });
const frozen = async (n: number) => (await analyst('listFrozen', ofBaseline(n))).data;
const changes = async (n: number, to?: number) => (await analyst('compareBaselines', { ...ofBaseline(n), query: to === undefined ? {} : { to: baselineNumber(to) } })).data.changes;
const told = async (n: number, to?: number) => (await changes(n, to)).map((c) => [c.kind, c.kind === 'gone' ? c.from.id : c.to.id]);
const save = async (id: string, change: object) => {
  const { summary, content } = (await analyst('readArtefact', { params: { id } as never })).data;
  return analyst('saveArtefact', { params: { id } as never, body: { kind: summary.kind, content: { ...content, ...change }, note: '' } as never }, { 'if-match': `"${summary.version}"` });
};

test('it holds exact versions, how they stood, the coverage of that moment and a seal; what comes later changes nothing of it', async () => {
  await analyst('setState', { params: { id: 'C-1' } as never, body: { state: 'agreed' } });
  const taken = (await take('Before the pilot')).data;
  expect(taken).toMatchObject({ number: 1, name: 'Before the pilot', part: '', counts: { requirement: 1, condition: 1, case: 1 }, agreed: 1, coverage: { counts: { shown: 1, gap: 0 }, cases: 1, instances: 1, minutes: 4, unanalysed: 0 }, seal: expect.stringMatching(/^[0-9a-f]{64}$/) });
  const before = await frozen(1);
  expect(before.map((i) => [i.id, i.version, i.state, i.title, i.module])).toEqual([['R-1', 1, 'draft', 'Readings', 'Meters'], ['K-1', 1, 'draft', 'A reading', ''], ['C-1', 1, 'agreed', 'Give it', '']]);
  await save('C-1', { title: 'Give it twice', covers: [] });
  await save('R-1', { priority: 'low' });
  await analyst('createArtefact', { body: testCase({ title: 'Another' }) });
  await analyst('setState', { params: { id: 'K-1' } as never, body: { state: 'withdrawn' } });
  expect([await frozen(1), (await analyst('listBaselines')).data[0]]).toEqual([before, taken]);
  expect(await told(1)).toEqual([['changed', 'R-1'], ['gone', 'K-1'], ['changed', 'C-1'], ['added', 'C-2']]);
  expect((await changes(1)).flatMap((c) => (c.kind === 'changed' ? [[c.to.id, c.meant]] : []))).toEqual([['R-1', false], ['C-1', true]]);
  await take('Pilot');
  expect([await told(2), await told(2, 1), (await analyst('listBaselines')).data.map((b) => b.number)]).toEqual([[], [['changed', 'R-1'], ['added', 'K-1'], ['changed', 'C-1'], ['gone', 'C-2']], [2, 1]]);
  expect((await analyst('listChanges', { query: {} })).data[0]).toMatchObject({ action: 'baseline', detail: 'B-2 Pilot' });
});

test('one of a part holds what hangs on it and all that is used; against now only that is told', async () => {
  await analyst('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Open', steps: [plainStep(stepId('x'), 'open')] } } });
  await save('C-1', { steps: [{ kind: 'shared', id: 'u', shared: 'S-1', pinned: null, arguments: [] }] });
  await analyst('createArtefact', { body: requirement({ title: 'Elsewhere' }) });
  const ids = async (n: number) => (await frozen(n)).map((i) => i.id);
  expect((await take('Readings', { requirement: 'R-1' })).data).toMatchObject({ part: 'R-1', coverage: null });
  await take('One case', { ids: ['C-1'] });
  expect([await ids(1), await ids(2)]).toEqual([['R-1', 'K-1', 'C-1', 'S-1'], ['C-1', 'S-1']]);
  await take('All of it');
  // Of a part and a whole only what the part is of is compared.
  expect([await told(2, 3), await told(3, 2)]).toEqual([[], []]);
  await save('S-1', { title: 'Open it' });
  await save('R-2', { title: 'Elsewhere still' });
  expect([await told(1), await told(2)]).toEqual([[['changed', 'S-1']], [['changed', 'S-1']]]);
  // Of a module: what is in it, the conditions of its requirements, and what is used there.
  await save('C-1', { module: 'Meters' });
  expect((await take('Meters', { module: 'Meters' })).data).toMatchObject({ part: 'Meters', coverage: null });
  expect(await ids(4)).toEqual(['R-1', 'K-1', 'C-1', 'S-1']);
  expect([(await take('Nothing', { ids: ['C-77'] })).refusal.code, (await take('Nothing', { module: 'Nowhere' })).refusal.code]).toEqual(['baseline_of_nothing', 'baseline_of_nothing']);
});

test('a change of what it holds behind everybody’s back is noticed, of contents, of versions and of settings', async () => {
  await take('Sealed');
  const check = async () => (await analyst('checkBaseline', ofBaseline(1))).data;
  expect(await check()).toMatchObject({ fits: true, altered: [] });
  const item = `(SELECT id FROM artefact WHERE kind = 'case' AND project_id = (SELECT id FROM project WHERE key = '${the.key}'))`;
  const altered = async (sql: string, back: string) => {
    await the.server.db.query(sql);
    const { fits, altered: ids } = await check();
    await the.server.db.query(back);
    return [fits, ids];
  };
  const content = (text: string) => `UPDATE artefact_version SET content = jsonb_set(content, '{title}', '"${text}"') WHERE artefact_id = ${item}`;
  expect(await altered(content('Forged'), content('Give it'))).toEqual([true, ['C-1']]);
  expect(await altered(`UPDATE baseline_item SET state = 'agreed' WHERE artefact_id = ${item}`, `UPDATE baseline_item SET state = 'draft' WHERE artefact_id = ${item}`)).toEqual([false, []]);
  expect(await altered(`UPDATE baseline SET settings = jsonb_set(settings, '{mostItems}', '200')`, `UPDATE baseline SET settings = jsonb_set(settings, '{mostItems}', '${DEFAULT_SETTINGS.mostItems}')`)).toEqual([false, []]);
  expect(await check()).toMatchObject({ fits: true, altered: [] });
});

test('taken once however often it is sent; readers read and take none; what is not there is said', async () => {
  const command = { 'command-id': randomUUID() };
  const twice = [await take('Once', EVERYTHING, command), await take('Once', EVERYTHING, command)];
  expect([twice.map((t) => t.data.number), (await analyst('listBaselines')).data.length]).toEqual([[1, 1], 1]);
  expect([(await take('Mine', EVERYTHING, {}, reader)).refusal.code, (await reader('listFrozen', ofBaseline(1))).status, (await reader('listFrozen', ofBaseline(9))).refusal.code]).toEqual(['role_too_low', 200, 'baseline_unknown']);
  const [entry] = (await analyst('listChanges', { query: {} })).data;
  expect((await analyst('undoChange', { params: { change: entry!.id } as never, body: {} })).refusal.code).toBe('undo_of_baseline');
});

const back = (n: number, of: BringBack['of'], call = analyst, headers = {}) => call('bringBack', { ...ofBaseline(n), body: { of } }, headers);
const planned = async (n: number, of: BringBack['of']) => (await analyst('planBringBack', { ...ofBaseline(n), body: { of } })).data;
const head = async (id: string) => (await analyst('readArtefact', { params: { id } as never })).data.summary;

test('chosen artefacts come back as new versions in one entry, told before, undone at once; agreement never comes back by itself', async () => {
  await take('Then');
  await save('C-1', { title: 'Give it twice' });
  await save('K-1', { title: 'Two readings' });
  await analyst('setState', { params: { id: 'C-1' } as never, body: { state: 'agreed' } });
  await analyst('setState', { params: { id: 'R-1' } as never, body: { state: 'withdrawn' } });
  await analyst('keepDraft', { params: { id: 'C-1' } as never, body: { base: 2, content: { kind: 'case', content: (await analyst('readArtefact', { params: { id: 'C-1' } as never })).data.content } } as never });
  const before = await changes(1);
  expect(await planned(1, { ids: ['C-1', 'K-1', 'R-1'] })).toMatchObject({ counts: { content: 2, return: 1, withdraw: 0 }, agreed: 1, lines: [{ id: 'C-1', does: 'content' }, { id: 'K-1', does: 'content' }, { id: 'R-1', title: 'Readings', does: 'return', alongWith: null }] });
  expect((await planned(1, { ids: ['K-1'] })).users).toEqual(['C-1']);
  expect(await changes(1)).toEqual(before);
  const command = { 'command-id': randomUUID() };
  const brought = (await back(1, { ids: ['C-1', 'R-1'] }, analyst, command)).data;
  expect([brought.changed, brought.left, brought.change?.detail, (await back(1, { ids: ['C-1', 'R-1'] }, analyst, command)).data.change?.id]).toEqual([2, [], 'brought back from B-1 Then', brought.change?.id]);
  expect([await head('C-1'), await head('R-1'), await told(1)]).toMatchObject([{ title: 'Give it', version: 3, state: 'draft', agreed: 2 }, { state: 'draft' }, [['changed', 'K-1'], ['changed', 'C-1']]]);
  expect((await analyst('bringBack', { ...ofBaseline(1), body: { of: { ids: ['C-1', 'R-1'] } } })).data).toEqual({ change: null, changed: 0, left: [] });
  await analyst('undoChange', { params: { change: brought.change!.id } as never, body: {} });
  expect([await head('C-1'), await head('R-1')]).toMatchObject([{ title: 'Give it twice', version: 4 }, { state: 'withdrawn' }]);
  expect([(await back(1, { ids: ['C-1'] }, reader)).refusal.code, (await back(9, { ids: ['C-1'] })).refusal.code]).toEqual(['role_too_low', 'baseline_unknown']);
});

test('what changed goes out as a workbook and as Markdown, with both coverages and the agreed cases that it reaches', async () => {
  await analyst('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Open', steps: [plainStep(stepId('x'), 'open')] } } });
  const use = (id: string, pinned: number | null) => ({ kind: 'shared' as const, id: stepId(id), shared: 'S-1' as const, pinned, arguments: [] });
  await analyst('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Around', steps: [use('u', null)] } } as never });
  await analyst('createArtefact', { body: testCase({ title: 'Agreed before', steps: [{ ...use('v', null), shared: 'S-2' }] }) });
  await analyst('createArtefact', { body: testCase({ title: 'Pinned', steps: [use('w', 1)] }) });
  await analyst('createArtefact', { body: testCase({ title: 'Not agreed', steps: [use('z', null)] }) });
  for (const id of ['C-2', 'C-3']) await analyst('setState', { params: { id } as never, body: { state: 'agreed' } });
  await take('Then');
  await save('S-1', { steps: [plainStep(stepId('x'), 'open it')] });
  expect((await analyst('compareBaselines', ofBaseline(1))).data.reached).toEqual([{ id: 'C-2', title: 'Agreed before', through: ['S-1'] }]);
  const file = async (format: 'md' | 'xlsx') => the.server.fetch(`${API_ROOT}/projects/${the.key}/baselines/1/changes/file?format=${format}`, { headers: { cookie: `caderno_session=${the.sessions.reader}` } });
  const text = await (await file('md')).text();
  expect(text.split('\n')).toEqual(expect.arrayContaining(['# What changed since Then', '| shown | 1 | 1 |', '- **changed** S-1 Open (v1 → v2)', '- C-2 Agreed before, through S-1']));
  const book = await file('xlsx');
  expect([book.headers.get('content-disposition'), new Uint8Array(await book.arrayBuffer()).slice(0, 2)]).toEqual([expect.stringContaining('B-1-now.xlsx'), new Uint8Array([0x50, 0x4b])]);
});

test('what comes back brings along what it uses and what is gone; what could not stand is refused whole; what cannot be read is told', async () => {
  const made = await analyst('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Open', steps: [plainStep(stepId('x'), 'open')] } } });
  const [making] = (await analyst('listChanges', { query: {} })).data;
  await save('C-1', { steps: [{ kind: 'shared', id: 'u', shared: 'S-1', pinned: null, arguments: [] }] });
  await take('With shared steps');
  await save('C-1', { steps: [] });
  expect((await analyst('undoChange', { params: { change: making!.id } as never, body: {} })).status).toBe(200);
  expect(await planned(1, { ids: ['C-1'] })).toMatchObject({ counts: { content: 1, return: 1 }, lines: [{ id: 'C-1' }, { id: made.data.summary.id, does: 'return', alongWith: 'C-1' }] });
  await back(1, { ids: ['C-1'] });
  expect([await told(1), (await head('S-1')).state]).toEqual([[['changed', 'C-1']], 'draft']);
  // A circle that only now would be: S-1 calls what was C-1's other shared steps.
  await analyst('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Other', steps: [{ kind: 'shared', id: 'v', shared: 'S-1', pinned: null, arguments: [] }] } } as never });
  await take('Other opens');
  await save('S-2', { steps: [plainStep(stepId('y'), 'other')] });
  await save('S-1', { steps: [{ kind: 'shared', id: 'w', shared: 'S-2', pinned: null, arguments: [] }] });
  expect((await back(2, { ids: ['S-2'] })).refusal.code).toBe('use_circle');
  expect([(await head('S-2')).version, (await back(2, { ids: ['S-1', 'S-2'] })).data.changed]).toEqual([2, 2]);
  const stored = `artefact_id = (SELECT id FROM artefact WHERE kind = 'case' AND project_id = (SELECT id FROM project WHERE key = '${the.key}'))`;
  await the.server.db.query(`UPDATE artefact_version SET content = '{}' WHERE version = 2 AND ${stored}`);
  expect((await back(1, { everything: true, withdraw: false })).data.left).toEqual([{ id: 'C-1', reason: 'broken' }]);
});

test('under any later edits reading at a baseline equals a copy made at that moment', async () => {
  const act = fc.constantFrom('save', 'state', 'make', 'take', 'undo', 'settings');
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 3, maxLength: 12 }), async (acts) => {
      const copies = new Map<number, unknown>();
      const copy = async (n: number) => {
        const items = await frozen(n);
        const contents = await Promise.all(items.map(({ id }) => analyst('readFrozen', { params: { baseline: baselineNumber(n), id } as never }).then(({ status, data }) => [status, data])));
        return { items, contents, baseline: (await analyst('listBaselines')).data.find((b) => b.number === n) };
      };
      for (const [i, a] of acts.entries()) {
        // An undo may have taken the case away.
        const isThere = (await analyst('readArtefact', { params: { id: 'C-1' } as never })).status === 200;
        if (a === 'save' && isThere) await save('C-1', { title: `Case ${i} of ${copies.size}` });
        else if (a === 'state') await analyst('setState', { params: { id: 'K-1' } as never, body: { state: (['draft', 'agreed', 'withdrawn'] as const)[i % 3]! } });
        else if (a === 'make') await analyst('createArtefact', { body: requirement({ title: `R ${i}` }) });
        else if (a === 'undo') {
          const last = (await analyst('listChanges', { query: {} })).data.find((c) => !c.undone && c.action !== 'baseline');
          if (last !== undefined) await analyst('undoChange', { params: { change: last.id } as never, body: {} });
        } else if (a === 'settings') {
          const { version, settings } = (await analyst('readSettings')).data;
          await analyst('saveSettings', { body: { ...settings, modules: [`M ${i}`] } }, { 'if-match': `"${version}"` });
        } else if (a === 'take') {
          const { number } = (await take(`At ${i}`)).data;
          copies.set(number, await copy(number));
        }
      }
      for (const [n, then] of copies) {
        expect((then as { contents: [number][] }).contents.every(([status]) => status === 200)).toBe(true);
        expect(await copy(n)).toEqual(then);
        expect((await analyst('checkBaseline', ofBaseline(n))).data).toMatchObject({ fits: true, altered: [] });
      }
      const [one, other] = [...copies.keys()];
      if (one !== undefined && other !== undefined) expect(await changes(one, other)).toEqual(compareFrozen(await frozen(one), await frozen(other)));
      // Whatever was done since: brought back in all, nothing differs in content, and what was there is there.
      for (const n of copies.keys()) {
        expect((await back(n, { everything: true, withdraw: true })).status).toBe(200);
        const differing = (await changes(n)).filter((c) => c.kind !== 'state');
        const same = await Promise.all(differing.map(async (c) => {
          if (c.kind !== 'changed') return false;
          const then = (await analyst('readFrozen', { params: { baseline: baselineNumber(n), id: c.to.id } as never })).data;
          return JSON.stringify(then.content) === JSON.stringify((await analyst('readArtefact', { params: { id: c.to.id } as never })).data.content);
        }));
        expect(same.every(Boolean)).toBe(true);
      }
    }),
    { numRuns: 12 },
  );
}, 180_000);

test('taken while much is written at once, it holds all of a command or nothing of it', async () => {
  const one = (i: number) => analyst('writeArtefacts', { body: { made: [testCase({ title: `One of ${i}` }), testCase({ title: `Other of ${i}` })], changed: [], withdrawn: [], detail: '' } });
  await Promise.all([one(1), take('A'), one(2), take('B'), one(3), take('C'), one(4)]);
  for (const n of [1, 2, 3]) {
    const titles = (await frozen(n)).map((i) => i.title);
    for (const i of [1, 2, 3, 4]) expect([n, i, titles.includes(`One of ${i}`)]).toEqual([n, i, titles.includes(`Other of ${i}`)]);
  }
  const { revision, coverage } = (await analyst('listBaselines')).data[0]!;
  expect([revision > 0, coverage === null || coverage.cases > 0]).toEqual([true, true]);
});

test('the cases and scenarios that a change touches: themselves, through what they use at the version they mean, through what they cover', async () => {
  let ids = 0;
  const open = (action: string) => ({ ...EMPTY_SHARED, title: 'Open', steps: [plainStep(stepId('x'), action)] });
  const uses = (title: string, pinned: number | null) => testCase({ title, steps: [{ kind: 'shared', id: stepId('u'), shared: 'S-1', pinned, arguments: [] }] });
  const file = 'Feature: Bill\n\n  Scenario: one\n    Then a bill\n\n  Scenario: two\n    Then none\n';
  await analyst('createArtefact', { body: { kind: 'shared', content: open('open') } });
  await analyst('createArtefact', { body: uses('Follows', null) });
  await analyst('createArtefact', { body: uses('Stays', 1) });
  await analyst('createArtefact', { body: testCase({ title: 'Calls', steps: [{ kind: 'call', id: stepId('c'), case: 'C-2', pinned: null, rows: { kind: 'mine' }, arguments: [] }] }) });
  await analyst('createArtefact', { body: { kind: 'feature', content: withText({ ...EMPTY_FEATURE, path: 'bill.feature' }, file, () => `f${(ids += 1)}`) } });
  await analyst('createArtefact', { body: testCase({ title: 'Alone' }) });
  await take('Then');
  const touched = async (of: object) => {
    const { data } = await analyst('findTouched', { body: of as never });
    return [data.changed, ...data.touched.map((t) => `${t.of} ${t.through.join(' ')}`)];
  };
  const since = { from: 1, to: null };
  expect(await touched(since)).toEqual([0]);
  // Where something stands and who owns it changes nothing of what is executed.
  await save('C-5', { module: 'Elsewhere' });
  await analyst('setState', { params: { id: 'C-5' } as never, body: { state: 'agreed' } });
  expect(await touched(since)).toEqual([0]);
  await save('S-1', open('open with the key'));
  expect(await touched(since)).toEqual([1, 'C-2 S-1', 'C-4 S-1']);
  await save('R-1', { text: 'Up to 99 999' });
  await save('C-5', { objective: 'Another', steps: [plainStep(stepId('n'), 'new')] });
  const { content } = (await analyst('readArtefact', { params: { id: 'F-1' } as never })).data;
  await save('F-1', withText(content as FeatureContent, file.replace('Then none', 'Then no bill'), () => `g${(ids += 1)}`));
  expect(await touched(since)).toEqual([4, 'C-1 R-1', 'C-2 S-1', 'C-4 S-1', 'C-5 C-5', 'F-1/2 F-1']);
  await take('Now');
  expect(await touched({ from: 2, to: null })).toEqual([0]);
  expect(await touched({ from: 1, to: 2 })).toEqual([4, 'C-1 R-1', 'C-2 S-1', 'C-4 S-1', 'C-5 C-5', 'F-1/2 F-1']);
  // Of what is gone: who covered it.
  await analyst('setState', { params: { id: 'K-1' } as never, body: { state: 'withdrawn' } });
  expect(await touched({ from: 2, to: null })).toEqual([1, 'C-1 K-1']);
  expect(await touched({ ids: ['S-1', 'K-1'] })).toEqual([2, 'C-1 K-1', 'C-2 S-1', 'C-4 S-1']);
  await analyst('setState', { params: { id: 'C-4' } as never, body: { state: 'withdrawn' } });
  expect(await touched({ ids: ['S-1'] })).toEqual([1, 'C-2 S-1']);
  expect((await analyst('findTouched', { body: { from: 9, to: null } as never })).status).toBe(404);
});

test('where only rows are others these are told, of a case and of the data set it takes; not where more is', async () => {
  const parameters = [{ id: parameterId('p'), name: 'n', type: 'text' as const, default: '', description: '' }];
  const rows = (low: string, high = '9') => [newRow(rowId('a'), 'low', { p: low }), newRow(rowId('b'), 'high', { p: high })];
  const set = { ...EMPTY_DATA_SET, title: 'Readings', parameters, rows: rows('1') };
  const takes = { data: { set: 'D-1', pinned: null, columns: [{ id: 'p', column: 'p' }] } } as never;
  await analyst('createArtefact', { body: { kind: 'dataSet', content: set } });
  await analyst('createArtefact', { body: testCase({ title: 'Own', parameters, rows: rows('1') }) });
  await analyst('createArtefact', { body: testCase({ title: 'Takes', parameters, ...(takes as object) }) });
  await analyst('createArtefact', { body: testCase({ title: 'Both', parameters, rows: rows('1') }) });
  await take('Then');
  await save('D-1', { ...set, rows: rows('1', '10') });
  await save('C-2', { parameters, rows: rows('2') });
  await save('C-4', { parameters, rows: rows('2'), objective: 'Another', steps: [plainStep(stepId('n'), 'new')] });
  const { touched } = (await analyst('findTouched', { body: { from: 1, to: null } as never })).data;
  expect(touched.map((t) => [t.of, t.rows])).toEqual([['C-2', ['low']], ['C-3', ['high']], ['C-4', null]]);
  // Asked about without a change there is nothing to compare.
  expect((await analyst('findTouched', { body: { ids: ['D-1'] } as never })).data.touched).toMatchObject([{ of: 'C-3', rows: null }]);
});

test('a constant with another value touches what it stands in, through shared steps and phrases too; words, places and other names do not', async () => {
  let ids = 0;
  const constant = (name: string, value: string, more: object = {}) => ({ id: name, name, value, secret: false, description: '', others: {}, ...more });
  const set = async (...constants: ReturnType<typeof constant>[]) => {
    const { version, settings } = (await analyst('readSettings')).data;
    return analyst('saveSettings', { body: { ...settings, constants } }, { 'if-match': `"${version}"` });
  };
  const file = 'Feature: Page\n\n  Scenario: one\n    Given the page <address>\n\n  Scenario: two\n    Given nothing\n';
  const shared = { ...EMPTY_SHARED, title: 'Open', steps: [plainStep(stepId('x'), 'open <address>')] };
  await set(constant('address', 'here'), constant('limit', '5'), constant('key', 'k', { secret: true }));
  await analyst('createArtefact', { body: { kind: 'shared', content: shared } });
  await analyst('createArtefact', { body: testCase({ title: 'Opens', steps: [{ kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: null, arguments: [] }, plainStep(stepId('n'), 'up to <limit>')] }) });
  await analyst('createArtefact', { body: testCase({ title: 'To "<limit>"', steps: [plainStep(stepId('n'), 'with <key> at <addresses>')] }) });
  await analyst('createArtefact', { body: { kind: 'feature', content: withText({ ...EMPTY_FEATURE, path: 'page.feature' }, file, () => `f${(ids += 1)}`) } });
  await take('Then');
  const touched = async (to: number | null = null, from = 1) => {
    const { changed, constants, touched: found } = (await analyst('findTouched', { body: { from, to } as never })).data;
    return [changed, constants.join(), ...found.map((t) => `${t.of} ${[...t.through, ...t.constants].join(' ')}`)];
  };
  const settingsSince = async (n: number, to?: number) => (await analyst('compareBaselines', { ...ofBaseline(n), query: to === undefined ? {} : { to: baselineNumber(to) } })).data.settings;
  expect(await settingsSince(1)).toEqual({ parts: [], constants: [] });
  // What is said of a constant, a new value of a secret and one that stands nowhere touch nothing.
  await set(constant('address', 'here', { description: 'The page' }), constant('limit', '5'), constant('key', 'another', { secret: true }), constant('nowhere', 'x'));
  expect(await touched()).toEqual([0, 'nowhere']);
  await set(constant('address', 'here', { others: { web: 'there' } }), constant('limit', '5'));
  expect(await touched()).toEqual([0, 'address,key', 'C-2 address', 'C-3 key', 'F-1/1 address']);
  await set(constant('address', 'there'), constant('limit', '6'));
  await save('S-1', { ...shared, steps: [plainStep(stepId('x'), 'leave <address>')] });
  expect(await touched()).toEqual([1, 'address,key,limit', 'C-2 S-1 address limit', 'C-3 key limit', 'F-1/1 address']);
  await take('Now');
  await set(constant('address', 'here'), constant('limit', '6'));
  expect(await touched(2)).toEqual([1, 'address,key,limit', 'C-2 S-1 address limit', 'C-3 key limit', 'F-1/1 address']);
  expect(await touched(null, 2)).toEqual([0, 'address', 'C-2 address', 'F-1/1 address']);
  const { version, settings } = (await analyst('readSettings')).data;
  await analyst('saveSettings', { body: { ...settings, depths: ['smoke'] } }, { 'if-match': `"${version}"` });
  expect([await settingsSince(2), await settingsSince(1, 2)]).toEqual([{ parts: ['depths', 'constants'], constants: ['address'] }, { parts: ['constants'], constants: ['address', 'key', 'limit'] }]);
});
