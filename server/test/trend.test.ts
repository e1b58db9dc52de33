import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { DEFAULT_RISK_SCALE } from '@caderno/core/basis';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_FEATURE, withText } from '@caderno/core/scenarios';
import { EMPTY_SUITE, entryId, type SuiteEntry } from '@caderno/core/suites';
import type { Trend } from '@caderno/contract';
import fc from 'fast-check';
import { inTransaction, execute } from '../src/database/index.ts';
import { condition, makeDatabase, makeProject, requirement, save, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let analyst: Caller;
let lead: Caller;
let reader: Caller;
let key: string;
let projects = 0;
let today = new Date('2026-03-01T10:00:00Z');

const DAY = 86_400_000;
const OTHER_SCALE = { ...DEFAULT_RISK_SCALE, risks: DEFAULT_RISK_SCALE.risks.map((row) => row.map(() => 'low' as const)) };

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url, { now: () => today });
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

/** A project of its own, on its first day. */
async function newProject(): Promise<void> {
  key = `trend${(projects += 1)}`;
  today = new Date('2026-03-01T10:00:00Z');
  const made = await makeProject(server.db, key);
  const as = (session: string): Caller => (name, input = {}, headers = {}) => server.as(session)(name, { ...input, params: Object.assign({}, { project: key }, input.params) }, headers);
  [analyst, lead, reader] = [as(made.analyst), as(made.lead), as(made.reader)];
  const smoke: SuiteEntry = { kind: 'part', id: entryId('p1'), title: 'all', depth: 1, rule: { of: 'cases', asks: 'tag:smoke', pinned: null }, runsIn: null };
  const beginnings = [
    requirement({ title: 'Readings', module: 'Meters', rating: { likelihood: 2, impact: 2 } }),
    requirement({ title: 'Bills', module: 'Bills' }),
    condition(['R-1'], { title: 'A reading' }),
    { kind: 'suite', content: { ...EMPTY_SUITE, title: 'Smoke', entries: [smoke] } } as const,
  ];
  for (const body of beginnings) expect((await analyst('createArtefact', { body })).status).toBe(200);
}

beforeEach(newProject);

const covering = (title: string, shows: boolean) => testCase({ title, tags: ['smoke'], estimate: 3, covers: [{ ...newCover('K-1', 1), expects: shows ? [stepId('a')] : [] }], steps: [plainStep(stepId('a'), 'read it', 'it is taken')] });
/** A feature with a scenario, and an outline of so many rows; one run takes three minutes. */
const bills = (rows: number) => ({ kind: 'feature' as const, content: withText({ ...EMPTY_FEATURE, path: `bills-${rows}-${randomUUID()}.feature` }, `@3min\nFeature: Bills\n  Scenario: one\n    Given a meter\n  Scenario Outline: each\n    Given <m>\n    Examples:\n      | m |\n${'      | 1 |\n'.repeat(rows)}`, randomUUID) });
const put = async (id: string, change: object) => {
  const { summary, content } = (await analyst('readArtefact', { params: { id } as never })).data;
  await save(analyst, id as never, summary.version, { kind: summary.kind, content: { ...content, ...change } } as never, '', undefined, key);
};

const ACTS = ['scenario', 'case', 'show', 'claim', 'module', 'rename', 'withdraw', 'back', 'meaning', 'condition', 'scale', 'undo'] as const;

async function act(a: (typeof ACTS)[number], i: number): Promise<void> {
  const cases = (await analyst('listArtefacts', { query: { kind: 'case' } })).data;
  const one = cases[i % Math.max(1, cases.length)];
  if (a === 'scenario') await analyst('createArtefact', { body: bills(i) });
  else if (a === 'case' || one === undefined) await analyst('createArtefact', { body: covering(`Case ${i}`, i % 2 === 0) });
  else if (a === 'show' || a === 'claim') await put(one.id, { covers: covering('', a === 'show').content.covers });
  else if (a === 'module') await put('R-1', { module: `M${i % 3}` });
  else if (a === 'rename') await put('R-2', { title: `Bills ${i}` });
  else if (a === 'withdraw' || a === 'back') await analyst('setState', { params: { id: one.id } as never, body: { state: a === 'back' ? 'draft' : 'withdrawn' } });
  else if (a === 'meaning') await put('R-1', { text: `Other ${i}` });
  else if (a === 'condition') await analyst('createArtefact', { body: condition(['R-2', 'R-1'], { title: `Another ${i}` }) });
  else if (a === 'scale') {
    const { version, settings } = (await lead('readSettings')).data;
    await lead('saveSettings', { body: { ...settings, riskScale: i % 2 === 0 ? DEFAULT_RISK_SCALE : OTHER_SCALE } }, { 'if-match': `"${version}"` });
  } else {
    const last = (await analyst('listChanges', { query: {} })).data.find((c) => !c.undone && (c.artefact?.startsWith('C-') ?? false));
    if (last !== undefined) await analyst('undoChange', { params: { change: last.id } as never, body: {} });
  }
}

/** What the pages say at this moment. */
async function live() {
  const { counts, weighted, byTechnique, byModule, requirements, unanalysed, cases, instances, minutes } = (await analyst('readCoverage')).data;
  const suites = (await analyst('readSuites')).data;
  const scenarios = (await analyst('listArtefacts', { query: { kind: 'feature' } })).data.flatMap((f) => (f.kind === 'feature' && f.state !== 'withdrawn' ? f.scenarios : []));
  const runs = scenarios.reduce((sum, s) => sum + s.instances, 0);
  return {
    revision: (await analyst('readProject')).data.figures.revision,
    figures: { counts, weighted, byTechnique, byModule: byModule.map((m) => ({ module: m.module, counts: m.counts })), requirements: requirements.length, unanalysed: unanalysed.length, cases, instances, minutes, scenarios: { scenarios: scenarios.length, byHand: 0, instances: runs, minutes: 3 * runs } },
    suites: suites.map((s) => s.counts),
    requirements: requirements.map((r) => [r.id, r.counts]),
  };
}

async function countAll(): Promise<Trend> {
  for (;;) {
    const { status, data } = await reader('countTrend', { body: {} });
    expect(status).toBe(200);
    if (data.left === 0) return (await reader('readTrend')).data;
  }
}

const forget = () => inTransaction(server.db, (work) => execute(work, 'DELETE FROM trend_point'));

test('whatever was done on whatever days, each day is counted as the pages said it then; counted again it is the same', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.array(fc.constantFrom(...ACTS), { minLength: 1, maxLength: 4 }), { minLength: 2, maxLength: 4 }), async (days) => {
      await newProject();
      const said = [await live()];
      for (const [d, acts] of days.entries()) {
        today = new Date(today.getTime() + DAY * (1 + (d % 2)));
        for (const [i, a] of acts.entries()) await act(a, d + i);
        const now = await live();
        // A day on which nothing came about is none.
        if (now.revision !== said.at(-1)?.revision) said.push(now);
      }
      today = new Date(today.getTime() + DAY);
      const { points, left } = await countAll();
      expect(left).toBe(0);
      expect(points.map(({ revision, figures: { byRisk: _, suites, ...figures } }) => ({ revision, figures, suites: suites.map((s) => s.counts) }))).toEqual(said.map(({ requirements: __, ...day }) => day));
      const nowSaid = await live();
      const { now } = (await reader('readTrend')).data;
      expect({ revision: now.revision, counts: now.figures.counts, suites: now.figures.suites.map((s) => s.counts) }).toEqual({ revision: nowSaid.revision, counts: nowSaid.figures.counts, suites: nowSaid.suites });
      const lines = (await reader('readRequirementTrend', { params: { id: 'R-1' } as never })).data;
      expect(lines.map((l) => l.counts)).toEqual(said.map((day) => day.requirements.find(([id]) => id === 'R-1')?.[1]));
      await forget();
      expect((await countAll()).points).toEqual(points);
    }),
    { numRuns: 6 },
  );
}, 300_000);

test('the last change of a day tells what it came to; the day that goes on is not counted, nor are days without a change', async () => {
  await act('case', 0);
  today = new Date('2026-03-01T23:59:59Z');
  await act('case', 1);
  today = new Date('2026-03-04T00:00:00Z');
  await act('case', 3);
  expect((await reader('readTrend')).data).toEqual({ points: [], days: 1, left: 1, now: { revision: 7, at: '2026-03-04T00:00:00.000Z', figures: expect.objectContaining({ cases: 3 }) } });
  const { points } = await countAll();
  expect(points.map((p) => [p.at, p.figures.cases])).toEqual([['2026-03-01T23:59:59.000Z', 2]]);
  today = new Date('2026-03-05T08:00:00Z');
  expect((await countAll()).points.map((p) => [p.at.slice(0, 10), p.figures.cases])).toEqual([['2026-03-01', 2], ['2026-03-04', 3]]);
});

test('what made a curve bend: the requirements of the day, and its journal', async () => {
  today = new Date('2026-03-03T10:00:00Z');
  await act('case', 0);
  await act('rename', 1);
  today = new Date('2026-03-09T10:00:00Z');
  const [first, second] = (await countAll()).points;
  expect((await reader('readBends', { params: { revision: second!.revision } as never })).data).toEqual({
    from: first!.revision, total: 1,
    bends: [{ id: 'R-1', title: 'Readings', before: expect.objectContaining({ shown: 0, gap: 1 }), after: expect.objectContaining({ shown: 1, gap: 0 }) }],
  });
  expect((await reader('readBends', { params: { revision: first!.revision } as never })).data).toMatchObject({ from: 0, total: 2 });
  expect((await reader('readBends', { params: { revision: second!.revision - 1 } as never })).refusal.code).toBe('moment_unknown');
  // Today goes on: what it comes to is told against the last day.
  await act('claim', 0);
  const now = (await reader('readTrend')).data.now.revision;
  expect((await reader('readBends', { params: { revision: now } as never })).data).toMatchObject({ from: second!.revision, total: 1, bends: [{ id: 'R-1', before: { shown: 1 }, after: { shown: 0, linked: 1 } }] });
  const journal = (await reader('listChanges', { query: { after: first!.revision, before: second!.revision + 1 } })).data;
  expect(journal.map((c) => [c.action, c.artefact])).toEqual([['save', 'R-2'], ['create', 'C-1']]);
});

test('what other code counted is shown until it is counted again; nothing that was made for counting is left; two who ask are answered alike', async () => {
  today = new Date('2026-03-02T10:00:00Z');
  const before = (await countAll()).points;
  await inTransaction(server.db, (work) => execute(work, `UPDATE trend_point SET computation = 'earlier', figures = jsonb_set(figures, '{cases}', '99')`));
  expect((await reader('readTrend')).data).toMatchObject({ days: 1, left: 1, points: [{ figures: { cases: 99 } }] });
  const answers = await Promise.all([reader('countTrend', { body: {} }), analyst('countTrend', { body: {} })]);
  expect(answers.map((a) => a.data)).toEqual([{ left: 0 }, { left: 0 }]);
  expect((await reader('readTrend')).data.points).toEqual(before);
  // Counted by code that did not count what is told now, a day is not told until it is counted again.
  await inTransaction(server.db, (work) => execute(work, `UPDATE trend_point SET computation = 'earlier', figures = figures - 'scenarios'`));
  expect((await reader('readTrend')).data).toMatchObject({ days: 1, left: 1, points: [] });
  expect((await countAll()).points).toEqual(before);
  const projectsThere = (await inTransaction(server.db, (work) => work.db.query('SELECT key FROM project WHERE key LIKE $1', { bind: ['%@%'], transaction: work.transaction })))[0];
  expect(projectsThere).toEqual([]);
});
