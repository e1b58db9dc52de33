import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { fileURLToPath } from 'node:url';
import { CoverageIndex, coverageReport } from '@caderno/core/coverage';
import { rangeProblems } from '@caderno/core/conditions';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { CoverageIndexes } from '../src/coverage/index.ts';
import { inTransaction } from '../src/database/index.ts';
import { loadDemo } from '../src/demo/index.ts';
import type { Heard } from '../src/http/index.ts';
import { startSession } from '../src/people/index.ts';
import { condition, onServer, requirement, save, startTwoServers, testCase, until, type Caller, type TestServer, type TwoServers } from './harness.ts';

const DEMO = fileURLToPath(new URL('../../demo/fonte-clara', import.meta.url));

let both: TwoServers;
let [one, two]: TestServer[] = [];
let [first, second]: Caller[] = [];

beforeAll(async () => {
  both = await startTwoServers();
  [one, two] = [both.server, both.other];
  [first, second] = [one.as(both.project.analyst), two.as(both.project.lead)];
});
afterAll(() => both.close());

describe('two servers on one database', () => {
  test('hear of each other’s changes, and count alike', async () => {
    const heard: Heard[] = [];
    const stop = two!.parts.feed.listen('p', (event) => heard.push(event));
    const r = (await first!('createArtefact', { body: requirement({ risk: 'high' }) })).data.summary.id as `R-${number}`;
    const k = (await first!('createArtefact', { body: condition([r]) })).data.summary.id as `K-${number}`;
    expect((await second!('readCoverage')).data).toMatchObject({ counts: { gap: 1 }, weighted: { gap: 9 } });
    const step = plainStep(stepId('s'), 'a', 'e');
    await first!('createArtefact', { body: testCase({ steps: [step], covers: [{ ...newCover(k, 1), expects: ['s' as never] }] }) });
    expect((await second!('readCoverage')).data).toEqual((await first!('readCoverage')).data);
    expect((await second!('readCoverage')).data.counts).toMatchObject({ shown: 1, gap: 0 });
    await until(() => (heard.filter((h) => h.kind === 'changed').length === 3 ? true : null));
    expect(heard.flatMap((h) => (h.kind === 'changed' ? [h.revision] : []))).toEqual([1, 2, 3]);
    stop();
  });

  test('a change of meaning makes what hangs on it suspect, until someone says it is right', async () => {
    const standing = async () => (await second!('readCoverage')).data.counts;
    await save(first!, 'R-1', 1, requirement({ risk: 'high', text: 'another meaning' }));
    expect(await standing()).toMatchObject({ suspect: 1, shown: 0 });
    await save(first!, 'K-1', 1, condition([], { requirements: [{ id: 'R-1', seenVersion: 2, anchor: null }] }));
    expect(await standing()).toMatchObject({ suspect: 0, shown: 1 });
  });

  test('an index that caught up equals one made from scratch, and the API’s figures', async () => {
    const caughtUp = new CoverageIndexes();
    const at = (indexes: CoverageIndexes) => inTransaction(one!.db, async (work) => (await indexes.at(work, both.project.id)).index);
    await at(caughtUp);
    const { id } = (await first!('createArtefact', { body: condition(['R-1'], { title: 'second' }) })).data.summary;
    await first!('setState', { params: { id: 'C-1' }, body: { state: 'withdrawn' } });
    await first!('setState', { params: { id: 'C-1' }, body: { state: 'draft' } });
    await first!('moveRequirement', { params: { id: 'R-1' }, body: { parent: null, after: null } });
    const [kept, scratch] = [await at(caughtUp), await at(new CoverageIndexes())];
    expect(kept).toBeInstanceOf(CoverageIndex);
    expect(coverageReport(kept)).toEqual(coverageReport(scratch));
    expect((await first!('readCoverage')).data).toEqual({ ...coverageReport(scratch), broken: [] });
    expect((await first!('listItems', { query: { standing: 'gap' } })).data.items.map((i) => i.condition)).toEqual([id]);
  });
});

test('after the database dropped every connection, requests and events go on by themselves', async () => {
  const heard: Heard[] = [];
  one!.parts.feed.listen('p', (event) => heard.push(event));
  await onServer(both.database.url, `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()`);
  const statuses = new Set<number>();
  await until(async () => {
    const { status, refusal } = await first!('createArtefact', { body: requirement({ title: 'after' }) });
    statuses.add(status);
    if (status !== 200) expect(refusal.code).toBe('database_unavailable');
    return status === 200 ? true : null;
  });
  // It cannot know what it missed, and says so.
  await until(() => heard.find((h) => h.kind === 'again') ?? null);
  await until(async () => ((await first!('readCoverage')).status === 200 ? true : null));
  expect(statuses.has(200)).toBe(true);
});

test('the demo loads through the services, whole and clean', async () => {
  await inTransaction(one!.db, (work) => work.db.query('TRUNCATE person CASCADE', { transaction: work.transaction }));
  await loadDemo(one!.db, one!.parts.secrets, one!.parts.files, DEMO, new Date('2026-11-25T09:00:00Z'));
  const [people] = await one!.db.query(`SELECT id FROM person WHERE name = 'Inês V.'`);
  const token = await inTransaction(one!.db, (work) => startSession(work, (people[0] as { id: string }).id));
  const call = one!.as(token);
  const { figures } = (await call('readProject', { params: { project: 'fonte-clara' } })).data;
  expect(figures.requirements).toBeGreaterThanOrEqual(20);
  expect(figures.conditions).toBeGreaterThanOrEqual(35);
  expect(figures.cases).toBeGreaterThanOrEqual(25);
  const { counts } = (await call('readCoverage', { params: { project: 'fonte-clara' } })).data;
  for (const standing of ['shown', 'linked', 'gap', 'suspect', 'leftOut'] as const) expect([standing, counts[standing] > 0]).toEqual([standing, true]);
  const design = (await call('readDesign', { params: { project: 'fonte-clara' }, query: { requirement: 'R-3' } })).data;
  expect(design.conditions.length).toBeGreaterThan(3);
  expect(design.conditions.flatMap((c) => (c.content.model.kind === 'valueRanges' ? rangeProblems(c.content.model) : []))).toEqual([]);
});
