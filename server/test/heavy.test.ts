import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash, randomUUID } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import type { ArtefactId } from '@caderno/core/artefacts';
import { parameterId, rowId } from '@caderno/core/cases';
import type { HeavyLane } from '../src/http/heavyLane.ts';
import { makeDatabase, makeProject, startServer, testCase, type Caller, type TestServer } from './harness.ts';
import { pace } from '../../scripts/pace.mjs';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;
/** What was carried out in threads. */
const inThreads: string[] = [];

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
  call = server.as(project.analyst);
  const { heavy } = server.parts as { heavy: HeavyLane };
  const carryOut = heavy.carryOut.bind(heavy);
  heavy.carryOut = (job) => (inThreads.push(job.request.name), carryOut(job));
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const parameters = [{ id: parameterId('a'), name: 'a', type: 'text' as const, default: '', description: '' }];
/** Nothing that the database packs well. */
const longCell = (i: number): string => createHash('sha1').update(String(i)).digest('base64');
const tableOf = (rows: number, cell = longCell) => testCase({ title: 'Long', parameters, rows: Array.from({ length: rows }, (_, i) => ({ id: rowId(`r${i}`), name: '', description: '', cells: { a: cell(i) }, mark: null, aside: false })) });

/** Rows of a body of over a million letters. */
const LONG = 9_000;

async function make(rows: number): Promise<ArtefactId> {
  return (await call('createArtefact', { body: tableOf(rows) })).data.summary.id;
}

test('a large content is saved, read, merged by an undo and refused in a thread, with the answers of the server itself', async () => {
  const id = await make(LONG);
  const edited = tableOf(LONG, (i) => (i === 7 ? 'edited' : longCell(i)));
  const command = randomUUID();
  const save = () => call('saveArtefact', { params: { id }, body: { ...edited, note: 'seven' } }, { 'if-match': '"1"', 'command-id': command });
  const saved = await save();
  expect(saved.data.summary).toMatchObject({ version: 2 });
  expect((await save()).data.summary).toMatchObject({ version: 2 });
  const again = tableOf(LONG, (i) => (i === 7 ? 'edited' : i === 9 ? 'later' : longCell(i)));
  expect((await call('saveArtefact', { params: { id }, body: { ...again, note: '' } }, { 'if-match': '"1"' })).refusal).toMatchObject({ code: 'version_moved', head: 2 });
  await call('saveArtefact', { params: { id }, body: { ...again, note: '' } }, { 'if-match': '"2"' });
  const [, change] = (await call('listChanges', { query: {} })).data;
  expect(change).toMatchObject({ note: 'seven' });
  expect((await call('undoChange', { params: { change: change!.id }, body: {} })).status).toBe(200);
  const now = (await call('readArtefact', { params: { id } })).data;
  expect(now.summary.version).toBe(4);
  expect([7, 9].map((i) => (now.content as ReturnType<typeof tableOf>['content'] & { rows: { cells: Record<string, string> }[] }).rows[i]!.cells.a)).toEqual([longCell(7), 'later']);
  expect(new Set(inThreads)).toEqual(new Set(['createArtefact', 'saveArtefact', 'undoChange', 'readArtefact']));
});

test('a small content stays with the server; a stranger and a reader are refused before any thread is asked', async () => {
  const id = await make(3);
  inThreads.length = 0;
  await call('readArtefact', { params: { id } });
  expect((await server.as(null)('createArtefact', { body: tableOf(LONG) })).status).toBe(401);
  expect((await server.as(project.reader)('createArtefact', { body: tableOf(LONG) })).status).toBe(403);
  expect(inThreads).toEqual([]);
});

test('a change of few and small ones is made at once; of a large one, of many or of what a query finds in a thread', async () => {
  const ids = await Promise.all(Array.from({ length: 3 }, () => make(3)));
  const large = await make(LONG);
  const setState = (of: object) => call('changeMany', { body: { of, done: { kind: 'state', state: 'agreed' }, detail: 'Agreed' } as never });
  const clone = (id: ArtefactId, times: number) => call('changeMany', { body: { of: { ids: [id] }, done: { kind: 'clone', parts: [], sets: Array.from({ length: times }, () => []) }, detail: 'Cloned' } });
  inThreads.length = 0;
  expect((await setState({ ids })).data.changed).toBe(3);
  expect((await clone(ids[0]!, 2)).data.made).toHaveLength(2);
  expect((await setState({ ids: 'all of them' })).status).toBe(400);
  expect(inThreads).toEqual([]);
  expect((await setState({ ids: [large] })).data.changed).toBe(1);
  expect((await setState({ kind: 'case', query: 'module:nowhere' })).data.changed).toBe(0);
  expect((await call('changeMany', { body: { of: { ids: Array.from({ length: 51 }, (_, i) => `C-${900 + i}` as ArtefactId) }, done: { kind: 'state', state: 'draft' }, detail: 'None' } })).data.left).toHaveLength(51);
  expect(inThreads).toEqual(['changeMany', 'changeMany', 'changeMany']);
});

test('while 100 000 rows are saved, merged and undone others are answered', async () => {
  const small = await make(3);
  const before = pace();
  const waits: number[] = [];
  let asking = true;
  const others = (async () => {
    for (; asking; await sleep(25)) {
      const began = performance.now();
      await call('readArtefact', { params: { id: small } });
      waits.push(performance.now() - began);
    }
  })();
  const took: number[] = [];
  const timed = async <T>(action: Promise<T>): Promise<T> => {
    const began = performance.now();
    const answer = await action;
    took.push(Math.round(performance.now() - began));
    return answer;
  };
  const id = await timed(make(100_000));
  await timed(call('saveArtefact', { params: { id }, body: { ...tableOf(100_000, (i) => (i === 5 ? 'edited' : `${i}`)), note: 'five' } }, { 'if-match': '"1"' }));
  const [change] = (await call('listChanges', { query: {} })).data;
  expect((await timed(call('undoChange', { params: { change: change!.id }, body: {} }))).status).toBe(200);
  asking = false;
  await others;
  waits.sort((a, b) => a - b);
  const p95 = waits[Math.floor(waits.length * 0.95)]!;
  console.log(`100 000 rows: made ${took[0]} ms, saved ${took[1]} ms, undone ${took[2]} ms; others' p95 ${p95.toFixed(0)} ms of ${waits.length}, the longest ${waits.at(-1)!.toFixed(0)} ms`);
  // On two cores of which the tests take one: the budget is measured by the bench, this is what nobody should wait for.
  expect(p95).toBeLessThan(500 * Math.max(before, pace()));
}, 600_000);
