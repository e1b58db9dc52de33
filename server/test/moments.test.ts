import { beforeEach, expect, test } from '@jest/globals';
import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { DEFAULT_RISK_SCALE } from '@caderno/core/basis';
import { baselineNumber } from '@caderno/core/baselines';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { api, momentKey, type AnyEndpoint, type Operation } from '@caderno/contract';
import fc from 'fast-check';
import { sweepMoments } from '../src/baselines/index.ts';
import { inTransaction } from '../src/database/index.ts';
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
const open = (n: number, call = analyst) => call('openMoment', { params: { baseline: baselineNumber(n) } as never, body: {} });
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

test('opened, a baseline is the whole project as it was, whatever was done since', async () => {
  // What the others change is never undone itself.
  const prepared = new Set((await analyst('listChanges', { query: {} })).data.map((c) => c.id));
  const act = fc.constantFrom('case', 'requirement', 'shared', 'state', 'make', 'move', 'undo', 'settings');
  const carryOut = async (a: string, i: number): Promise<void> => {
    if (a === 'case') await save('C-1', { title: `Case ${i}`, tags: [`t${i}`], covers: i % 2 === 0 ? [] : [newCover('K-1', 1)] });
    else if (a === 'requirement') await save('R-1', { text: `Text ${i}`, rating: { likelihood: i % 3, impact: 1 }, module: `M${i}` });
    else if (a === 'shared') await save('S-1', { steps: [plainStep(stepId('x'), `open ${i}`)] });
    else if (a === 'state') await analyst('setState', { params: { id: 'K-1' } as never, body: { state: (['draft', 'agreed', 'withdrawn'] as const)[i % 3]! } });
    else if (a === 'make') await analyst('createArtefact', { body: testCase({ title: `Given again ${i}` }) });
    else if (a === 'move') await analyst('moveRequirement', { params: { id: 'R-2' } as never, body: { parent: i % 2 === 0 ? null : 'R-1', after: null } });
    else if (a === 'undo') {
      const last = (await analyst('listChanges', { query: {} })).data.find((c) => !c.undone && c.action !== 'baseline' && !prepared.has(c.id));
      if (last !== undefined) await analyst('undoChange', { params: { change: last.id } as never, body: {} });
    } else {
      const { version, settings } = (await the.lead('readSettings')).data;
      await the.lead('saveSettings', { body: { ...settings, modules: [`M ${i}`], riskScale: i % 2 === 0 ? settings.riskScale : OTHER_SCALE } }, { 'if-match': `"${version}"` });
    }
  };
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 5 }), fc.array(act, { minLength: 1, maxLength: 8 }), async (before, after) => {
      for (const [i, a] of before.entries()) await carryOut(a, i);
      const number = await take();
      const then = await readAll(analyst);
      for (const [i, a] of after.entries()) await carryOut(a, i + 10);
      const opened = (await open(number)).data;
      expect(opened).toEqual({ key: momentKey(the.key, baselineNumber(number)), name: expect.any(String), role: 'reader' });
      expect(await readAll(as(opened.key))).toEqual(then);
    }),
    { numRuns: 8 },
  );
}, 240_000);

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
