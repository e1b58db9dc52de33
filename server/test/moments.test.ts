import { beforeEach, expect, test } from '@jest/globals';
import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { DEFAULT_RISK_SCALE } from '@caderno/core/basis';
import { baselineNumber } from '@caderno/core/baselines';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { api, momentKey, type AnyEndpoint, type Operation } from '@caderno/contract';
import fc from 'fast-check';
import { inTransaction } from '../src/database/index.ts';
import { sweepMoments } from '../src/moments/index.ts';
import { condition, eachInProject, requirement, testCase, type Caller } from './harness.ts';

const the = eachInProject('moments');
let analyst: Caller;

beforeEach(async () => {
  ({ analyst } = the);
  await analyst('createArtefact', { body: requirement({ title: 'Readings', module: 'Meters', rating: { likelihood: 2, impact: 2 } }) });
  await analyst('createArtefact', { body: { ...requirement({ title: 'By telephone' }), parent: 'R-1' } as never });
  await analyst('createArtefact', { body: condition(['R-1'], { title: 'A reading' }) });
  await analyst('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Open', steps: [plainStep(stepId('x'), 'open')] } } });
  const use = (pinned: number | null) => ({ kind: 'shared' as const, id: stepId(`u${pinned ?? 0}`), shared: 'S-1' as const, pinned, arguments: [] });
  await analyst('createArtefact', { body: testCase({ title: 'Give it', covers: [{ ...newCover('K-1', 1), expects: [stepId('a')] }], estimate: 4, steps: [use(null), use(1), plainStep(stepId('a'), 'give it', 'it is taken')] }) });
});

const OTHER_SCALE = { ...DEFAULT_RISK_SCALE, risks: DEFAULT_RISK_SCALE.risks.map((row) => row.map(() => 'low' as const)) };
const as = (project: string, session = the.sessions.analyst): Caller => (name, input = {}, headers = {}) => the.server.as(session)(name, { ...input, params: Object.assign({}, input.params, { project }) }, headers);
const take = async (of: object = { everything: true }) => (await analyst('takeBaseline', { body: { name: 'Then', note: '', of } as never })).data.number;
const openAt = (moment: string, call = analyst) => call('openMoment', { params: { moment } as never, body: {} });
const open = (n: number, call = analyst) => openAt(`B-${n}`, call);
const revision = async () => (await analyst('readProject')).data.figures.revision;
const save = async (id: string, change: object) => {
  const { summary, content } = (await analyst('readArtefact', { params: { id } as never })).data;
  return analyst('saveArtefact', { params: { id } as never, body: { kind: summary.kind, content: { ...content, ...change }, note: '' } as never }, { 'if-match': `"${summary.version}"` });
};

/** All that the chapters read of a project. */
async function readAll(call: Caller) {
  const heads = (await Promise.all(ARTEFACT_KINDS.map(async (kind) => (await call('listArtefacts', { query: { kind } as never })).data))).flat();
  const { modules, figures: { revision: _, ...figures } } = (await call('readProject')).data;
  const contents = await Promise.all(heads.map(async ({ id }) => {
    const params = { id } as never;
    const versions = (await call('listVersions', { params })).data.map((v) => [v.version, v.at, v.author]);
    return [id, (await call('readArtefact', { params })).data.content, versions];
  }));
  const coverage = (await call('readCoverage')).data;
  const [settings, suspect, texts, graph, items, found] = [
    (await call('readSettings')).data.settings, (await call('listSuspectLinks')).data, (await call('listBasisTexts')).data, (await call('readReuseGraph')).data, (await call('listItems', { query: {} as never })).data, (await call('find', { query: { words: 'give' } })).data,
  ];
  return JSON.parse(JSON.stringify({ modules, figures, heads, contents, coverage, settings, suspect, texts, graph, items, found })) as unknown;
}

const ACTS = ['case', 'requirement', 'shared', 'state', 'make', 'move', 'undo', 'settings', 'review', 'answer'] as const;

/** Carries out acts of every kind; what the preparation did is never undone itself. */
async function actor() {
  const prepared = new Set((await analyst('listChanges', { query: {} })).data.map((c) => c.id));
  return async (a: (typeof ACTS)[number], i: number): Promise<void> => {
    if (a === 'case') await save('C-1', { title: `Case ${i}`, tags: [`t${i}`], covers: i % 2 === 0 ? [] : [newCover('K-1', 1)] });
    else if (a === 'requirement') await save('R-1', { text: `Text ${i}`, rating: { likelihood: i % 3, impact: 1 }, module: `M${i}` });
    else if (a === 'shared') await save('S-1', { steps: [plainStep(stepId('x'), `open ${i}`)] });
    else if (a === 'state') await analyst('setState', { params: { id: 'K-1' } as never, body: { state: (['draft', 'agreed', 'withdrawn'] as const)[i % 3]! } });
    else if (a === 'make') await analyst('createArtefact', { body: testCase({ title: `Given again ${i}` }) });
    else if (a === 'move') await analyst('moveRequirement', { params: { id: 'R-2' } as never, body: { parent: i % 2 === 0 ? null : 'R-1', after: null } });
    else if (a === 'undo') {
      const last = (await analyst('listChanges', { query: {} })).data.find((c) => !c.undone && c.action !== 'baseline' && !prepared.has(c.id));
      if (last !== undefined) await analyst('undoChange', { params: { change: last.id } as never, body: {} });
    } else if (a === 'review') {
      const asked = await analyst('askReview', { body: { title: `Look ${i}`, note: '', people: [the.people.lead], due: null, ids: ['C-1', 'R-1'] } as never });
      expect([200, 422]).toContain(asked.status);
      if (asked.status === 422) expect(asked.refusal.code).toBe('review_of_nothing');
    } else if (a === 'answer') {
      const [review] = (await analyst('listReviews')).data;
      const id = i % 2 === 0 ? 'C-1' : 'R-1';
      const { version } = (await analyst('readArtefact', { params: { id } as never })).data.summary;
      if (review !== undefined) await the.lead('answerReview', { params: { review: review.number } as never, body: { of: [{ id, version }], agrees: i % 3 !== 0, note: 'because' } });
    } else {
      const { version, settings } = (await the.lead('readSettings')).data;
      await the.lead('saveSettings', { body: { ...settings, modules: [`M ${i}`], riskScale: i % 2 === 0 ? settings.riskScale : OTHER_SCALE } }, { 'if-match': `"${version}"` });
    }
  };
}

test('opened, a baseline is the whole project as it was, whatever was done since', async () => {
  const carryOut = await actor();
  const act = fc.constantFrom(...ACTS);
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 5 }), fc.array(act, { minLength: 1, maxLength: 8 }), async (before, after) => {
      for (const [i, a] of before.entries()) await carryOut(a, i);
      const number = await take();
      const then = await readAll(analyst);
      for (const [i, a] of after.entries()) await carryOut(a, i + 10);
      const opened = (await open(number)).data;
      expect(opened).toEqual({ key: momentKey(the.key, { kind: 'baseline', baseline: baselineNumber(number) }), name: expect.any(String), role: 'reader', sees: null, at: expect.any(String) });
      expect(await readAll(as(opened.key))).toEqual(then);
    }),
    { numRuns: 8 },
  );
}, 240_000);

/** Requirements in the order of the outline, not of the numbers that their places happen to have. */
function inOrder(all: unknown): unknown {
  const { heads, contents, texts, ...rest } = all as { heads: { id: string; parent?: string | null; position?: number }[]; contents: [string][]; texts: { id: string }[] };
  const isBefore = (a: (typeof heads)[number], b: (typeof heads)[number]) => (a.position ?? 0) - (b.position ?? 0) || Number(a.id.slice(2)) - Number(b.id.slice(2));
  const places = heads.filter((h) => h.id.startsWith('R-')).toSorted(isBefore);
  const rankOf = (head: (typeof heads)[number]) => places.filter((p) => p.parent === head.parent).indexOf(head);
  const byId = (a: string, b: string) => (a < b ? -1 : 1);
  return {
    ...rest,
    heads: heads.map((head) => ({ ...head, position: rankOf(head) })).toSorted((a, b) => byId(a.id, b.id)),
    contents: contents.toSorted(([a], [b]) => byId(a, b)),
    texts: texts.toSorted((a, b) => byId(a.id, b.id)),
  };
}

test('any moment of the journal reads as the project did then, whatever was done since', async () => {
  const carryOut = await actor();
  let turn = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(fc.constantFrom(...ACTS), { minLength: 3, maxLength: 12 }), fc.integer({ min: 0, max: 20 }), async (acts, pick) => {
      const moments: { at: number; read: unknown }[] = [];
      for (const [i, a] of acts.entries()) {
        if (i === pick % acts.length || i === 1) moments.push({ at: await revision(), read: inOrder(await readAll(analyst)) });
        await carryOut(a, (turn += 1));
      }
      for (const { at, read } of moments) {
        const opened = await openAt(String(at));
        expect([opened.status, opened.data.key]).toEqual([200, `${the.key}@${at}`]);
        expect(inOrder(await readAll(as(opened.data.key)))).toEqual(read);
      }
    }),
    { numRuns: 10 },
  );
}, 240_000);

test('only what is agreed is read at its agreed versions, with its basis and what it uses; older moments of the journal go', async () => {
  for (const id of ['C-1', 'K-1']) await analyst('setState', { params: { id } as never, body: { state: 'agreed' } });
  await save('C-1', { title: 'Given otherwise', steps: [plainStep(stepId('a'), 'give it', 'it is taken')] });
  await save('S-1', { steps: [plainStep(stepId('x'), 'open wide')] });
  await analyst('createArtefact', { body: testCase({ title: 'Never agreed' }) });
  const [at, opened] = [await revision(), (await openAt(`${await revision()}-agreed`)).data];
  expect(opened.key).toBe(`${the.key}@${at}-agreed`);
  const agreed = as(opened.key);
  const heads = (await Promise.all(ARTEFACT_KINDS.map(async (kind) => (await agreed('listArtefacts', { query: { kind } as never })).data))).flat();
  // Nobody agreed to the shared steps, nor to the requirements: they are there as they stand, as the case could not be read without, and nobody would know what is not shown.
  expect(heads.map((h) => [h.id, h.version, h.state])).toEqual([['R-1', 1, 'draft'], ['R-2', 1, 'draft'], ['K-1', 1, 'agreed'], ['C-1', 1, 'agreed'], ['S-1', 2, 'draft']]);
  expect((await agreed('readArtefact', { params: { id: 'C-1' } as never })).data.content).toMatchObject({ title: 'Give it', steps: [{ pinned: null }, { pinned: 1 }, {}] });
  expect((await agreed('readCoverage')).data).toMatchObject({ counts: { shown: 1 } });
  expect((await agreed('listSuspectLinks')).data).toEqual([]);
  expect((await openAt(`${at + 1}`)).refusal.code).toBe('moment_unknown');
  for (let earlier = 1; earlier < at; earlier += 1) for (const text of [`${earlier}`, `${earlier}-agreed`]) expect((await openAt(text)).status).toBe(200);
  expect((await as(`${the.key}@1`)('readSettings')).refusal.code).toBe('project_unknown');
  expect((await as(`${the.key}@${at - 1}-agreed`)('readSettings')).status).toBe(200);
  const [[kept]] = (await the.server.db.query(`SELECT count(*)::int AS count FROM project WHERE key LIKE '${the.key}@%'`)) as unknown as [[{ count: number }]];
  expect(kept.count).toBe(12);
});

test('nobody changes it, whoever they are; whoever is in the project reads it, and nobody else', async () => {
  const { key } = (await open(await take())).data;
  for (const [name, endpoint] of Object.entries<AnyEndpoint>(api)) {
    if (!endpoint.path.includes(':project') || endpoint.method === 'GET' || endpoint.reads === true) continue;
    const answer = await as(key, the.sessions.administrator)(name as Operation, { params: { id: 'C-1', requirement: 'R-1', baseline: '1', review: '1' } as never, body: {} as never });
    expect([name, answer.refusal.code]).toEqual([name, 'moment_is_past']);
  }
  expect((await as(key, the.sessions.reader)('readArtefact', { params: { id: 'C-1' } as never })).status).toBe(200);
  expect((await as(key, the.sessions.administrator)('listMemberEvents')).refusal.code).toBe('role_too_low');
  const elsewhere = (await the.server.as(the.sessions.administrator)('createProject', { body: { key: `${the.key}-x`, name: 'Another' } })).data;
  expect((await as(`${elsewhere.key}@B-1`)('readSettings')).refusal.code).toBe('project_unknown');
  await the.administrator('removeMember', { params: { person: the.people.reader } as never });
  expect((await as(key, the.sessions.reader)('readArtefact', { params: { id: 'C-1' } as never })).refusal.code).toBe('project_unknown');
  expect((await the.server.as(the.sessions.analyst)('readSession')).data.projects.map((p) => p.key)).toEqual([the.key]);
  expect([(await as(`${the.key}@B-0`)('readSettings')).status, (await open(7)).refusal.code]).toEqual([404, 'baseline_unknown']);
});

test('two who open it at once open one; of a part it holds that part; long unopened it goes and is made again', async () => {
  const number = await take({ ids: ['C-1'] });
  const both = await Promise.all([open(number), open(number, the.reader)]);
  expect(both.map((b) => [b.status, b.data.key])).toEqual([[200, `${the.key}@B-1`], [200, `${the.key}@B-1`]]);
  const ids = async () => (await Promise.all(ARTEFACT_KINDS.map(async (kind) => (await as(`${the.key}@B-1`)('listArtefacts', { query: { kind } as never })).data))).flat().map((h) => h.id);
  expect(await ids()).toEqual(['C-1', 'S-1']);
  await the.server.db.query(`UPDATE project SET seen_at = now() - interval '8 days' WHERE key = '${the.key}@B-1'`);
  await inTransaction(the.server.db, sweepMoments);
  expect((await as(`${the.key}@B-1`)('readSettings')).refusal.code).toBe('project_unknown');
  await open(number);
  expect(await ids()).toEqual(['C-1', 'S-1']);
  expect((await analyst('readProject')).data.figures.cases).toBe(1);
});
