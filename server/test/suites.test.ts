import { beforeEach, describe, expect, test } from '@jest/globals';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import type { CoveringId } from '@caderno/core/artefacts';
import { NO_ITEMS, perTechnique } from '@caderno/core/coverage';
import { EMPTY_FEATURE, withText } from '@caderno/core/scenarios';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { EMPTY_SUITE, entryId, type SuiteContent, type SuiteEntry, type SuiteRule } from '@caderno/core/suites';
import { z } from 'zod';
import { inTransaction, selectRows } from '../src/database/index.ts';
import { SuiteLines } from '../src/suites/index.ts';
import { condition, eachInProject, requirement, save, testCase, type Caller } from './harness.ts';

const the = eachInProject('suites');
let analyst: Caller;

const covering = (k: number, part: object = {}) => testCase({ steps: [plainStep(stepId('a'), 'give it', 'it is taken')], covers: [{ ...newCover(`K-${k}`, 1), expects: [stepId('a')] }], estimate: 4, ...part });
const part = (id: string, rule: SuiteRule | null = null): SuiteEntry => ({ kind: 'part', id: entryId(id), title: id, depth: 1, rule, runsIn: null });
const member = (of: CoveringId, pinned: number | 'agreed' | null = null): SuiteEntry => ({ kind: 'member', id: entryId(`m-${of.replace('/', '.')}`), of, pinned, runsIn: null });
const suite = (entries: readonly SuiteEntry[], more: Partial<SuiteContent> = {}) => ({ kind: 'suite' as const, content: { ...EMPTY_SUITE, title: 'Smoke', entries, ...more } });
const measured = async (entries: readonly SuiteEntry[], call = analyst) => (await call('measureSuite', { body: { entries: [...entries], configurations: [] } })).data;
const inOrder = async (entries: readonly SuiteEntry[]) => (await measured(entries)).members.map((m) => `${m.of} ${m.shows}`);

async function haveConfigurations(...names: readonly string[]): Promise<void> {
  const { version, settings } = (await analyst('readSettings')).data;
  await analyst('saveSettings', { body: { ...settings, configurations: names.map((id) => ({ id, name: id, factors: [] })) } }, { 'if-match': `"${version}"` });
}

let ids = 0;
const newId = (): string => `i${(ids += 1)}`;
const BILL = 'Feature: Bill\n\n  @smoke\n  Scenario: one\n    Given a meter\n    Then a bill\n\n  @smoke @2min\n  Scenario Outline: two\n    Given <n>\n    Examples:\n      | n |\n      | 1 |\n      | 2 |\n';

beforeEach(async () => {
  ({ analyst } = the);
  await analyst('createArtefact', { body: requirement({ title: 'Readings', rating: { likelihood: 2, impact: 2 } }) });
  for (const title of ['One', 'Two', 'Three']) await analyst('createArtefact', { body: condition(['R-1'], { title }) });
  await analyst('createArtefact', { body: covering(1, { title: 'First', tags: ['smoke'] }) });
  await analyst('createArtefact', { body: covering(2, { title: 'Second', estimate: null, execution: 'automated' }) });
  await analyst('createArtefact', { body: covering(3, { title: 'Third', tags: ['smoke'] }) });
  await analyst('createArtefact', { body: { kind: 'feature', content: withText({ ...EMPTY_FEATURE, path: 'bill.feature' }, BILL, newId) } });
});

describe('what a suite comes to', () => {
  test('by hand and by rules, cases and scenarios, each once', async () => {
    const rules = [member('C-3'), part('smoke', { of: 'cases', asks: 'tag:smoke', pinned: null }), part('all', { of: 'cases', asks: 'minutes<5', pinned: null }), part('scenarios', { of: 'scenarios', asks: '@smoke and @2min', pinned: null })];
    expect(await inOrder(rules)).toEqual(['C-3 1', 'C-1 1', 'F-1/2 0']);
    expect(await measured(rules)).toMatchObject({ cases: 2, scenarios: 1, instances: 4, byHand: 2, minutes: 12, withoutMinutes: 0, counts: { shown: 2, gap: 1 }, byRisk: { high: { items: 3, shown: 2, elsewhere: 1 } } });
  });

  test('in each of its configurations, unless a part or a member says where it runs; of every suite so', async () => {
    await haveConfigurations('k1', 'k2', 'k3');
    const entries = [member('C-1'), { ...part('smoke', { of: 'cases', asks: 'tag:smoke', pinned: null }), runsIn: ['k2'] }, { ...member('F-1/2'), runsIn: ['gone'] }];
    const { data } = await analyst('measureSuite', { body: { entries, configurations: ['k1', 'k2', 'k3', 'gone'] } });
    expect(data).toMatchObject({ cases: 2, scenarios: 0, instances: 4, minutes: 16, members: [{ of: 'C-1', times: 3 }, { of: 'F-1/2', times: 0 }, { of: 'C-3', times: 1, runsIn: ['k2'] }] });
    await analyst('createArtefact', { body: { kind: 'suite', content: { ...EMPTY_SUITE, title: 'In three', entries, configurations: ['k1', 'k2', 'k3'] } } });
    expect((await analyst('readSuites')).data).toMatchObject([{ id: 'U-1', scenarios: 0, instances: 4, minutes: 16, members: ['C-1', 'F-1/2', 'C-3'] }]);
    // Who runs in none shows nothing, is worked out with nobody, and is not proposed once more to show what it would.
    const idle = [{ ...member('C-1'), runsIn: ['gone'] }, member('C-2')];
    expect((await analyst('measureSuite', { body: { entries: idle, configurations: ['k1'] } })).data).toMatchObject({ cases: 1, instances: 1, counts: { shown: 1 }, members: [{ of: 'C-1', times: 0, shows: 0 }, { of: 'C-2', shows: 1 }] });
    expect((await analyst('readShowing', { body: { entries: idle, configurations: ['k1'] } })).data.members.map((m) => m.of)).toEqual(['C-2']);
    expect((await analyst('findAdditions', { body: { entries: idle, configurations: ['k1'], condition: 'K-1' } })).data.proposed).toEqual([]);
    expect((await analyst('findAdditions', { body: { entries: idle.slice(1), configurations: ['k1'], condition: 'K-1' } })).data.proposed).toMatchObject([{ id: 'C-1' }]);
    // Where all are gone it is executed once, as it is handed off.
    await haveConfigurations();
    expect((await analyst('readSuites')).data).toMatchObject([{ instances: 4, minutes: 12 }]);
  });

  test('what members depend on is to come before them', async () => {
    await save(analyst, 'C-3', 1, covering(3, { title: 'Third', dependsOn: [{ id: 'C-1' }, { id: 'C-2' }] }), '', undefined, the.key);
    expect((await measured([member('C-3'), member('C-1')])).broken).toEqual([{ of: 'C-3', on: 'C-1', why: 'later' }, { of: 'C-3', on: 'C-2', why: 'absent' }]);
    expect((await measured([member('C-1'), member('C-2'), member('C-3')])).broken).toEqual([]);
  });

  test('rules live: what comes to match is in it, what is withdrawn is not', async () => {
    const rules = [part('smoke', { of: 'cases', asks: 'tag:smoke', pinned: null })];
    await save(analyst, 'C-2', 1, covering(2, { title: 'Second', tags: ['smoke'] }), '', undefined, the.key);
    await analyst('setState', { params: { id: 'C-1' } as never, body: { state: 'withdrawn' } });
    expect(await inOrder(rules)).toEqual(['C-2 1', 'C-3 1']);
    // Picked by hand it stays in its place, and counts nowhere.
    expect(await measured([member('C-1')])).toMatchObject({ cases: 0, instances: 0, counts: { shown: 0 }, members: [{ of: 'C-1', shows: 0, facts: { state: 'withdrawn' } }] });
  });

  test('rules that ask for nothing, for nothing that can be read, or for what nobody has find nothing', async () => {
    const asks = (of: 'cases' | 'scenarios', text: string) => inOrder([part('p', { of, asks: text, pinned: null })]);
    expect(await Promise.all([asks('cases', ' '), asks('scenarios', ''), asks('scenarios', '@a and'), asks('cases', 'tag:nobody'), asks('cases', 'is:mine')])).toEqual([[], [], [], [], []]);
    expect(await asks('cases', 'state:any')).toHaveLength(3);
  });

  test('members stay with a version, follow what is agreed, or the latest', async () => {
    await the.lead('setState', { params: { id: 'C-1' } as never, body: { state: 'agreed' } });
    await save(analyst, 'C-1', 1, covering(1, { title: 'First', estimate: 9, covers: [] }), '', undefined, the.key);
    const meant = async (pinned: 1 | 'agreed' | null) => {
      const { members, minutes, counts } = await measured([member('C-1', pinned)]);
      return [members[0]?.facts?.version, members[0]?.shows, minutes, counts.shown];
    };
    expect(await Promise.all([meant(1), meant('agreed'), meant(null)])).toEqual([[1, 1, 4, 1], [1, 1, 4, 1], [2, 0, 9, 0]]);
    expect((await measured([member('C-1', 7)])).members[0]?.facts).toBeNull();
  });

  test('scenarios too, at versions of their feature; one that is gone is told', async () => {
    const read = (await analyst('readArtefact', { params: { id: 'F-1' } as never })).data;
    if (read.kind !== 'feature') throw new Error('F-1 is a feature');
    await save(analyst, 'F-1', 1, { kind: 'feature', content: withText(read.content, BILL.replace('      | 2 |\n', '').replace('  @smoke\n  Scenario: one\n    Given a meter\n    Then a bill\n\n', ''), newId) }, '', undefined, the.key);
    const told = async (of: CoveringId, pinned: number | null) => (await measured([member(of, pinned)])).members[0]?.facts?.instances ?? null;
    expect(await Promise.all([told('F-1/1', null), told('F-1/1', 1), told('F-1/2', null), told('F-1/2', 1)])).toEqual([null, 1, 1, 2]);
  });

  test('what each member shows, counts and begins with is told, without those that count nowhere', async () => {
    await save(analyst, 'C-1', 1, covering(1, { title: 'First', preconditions: 'A meter\n is  open' }), '', undefined, the.key);
    await save(analyst, 'C-2', 1, covering(1, { title: 'Again the first', dependsOn: [{ id: 'C-1' }], preconditions: ' a meter is open' }), '', undefined, the.key);
    await analyst('setState', { params: { id: 'C-3' } as never, body: { state: 'withdrawn' } });
    await haveConfigurations('k1', 'k2');
    const { data } = await analyst('readShowing', { body: { entries: [member('C-1'), member('C-3'), member('F-1/1'), { ...part('p', { of: 'cases', asks: 'Again', pinned: null }), runsIn: ['k2'] }], configurations: ['k1', 'k2'] } });
    const setUp = data.members[0]?.setUp;
    expect(setUp).toMatch(/^[0-9a-f]{32}$/);
    expect(data).toEqual({
      weights: [9],
      members: [
        { of: 'C-1', instances: 1, minutes: 4, times: 2, kept: false, part: null, setUp, items: [0] },
        { of: 'F-1/1', instances: 1, minutes: null, times: 2, kept: false, part: null, setUp: 'F-1', items: [] },
        { of: 'C-2', instances: 1, minutes: 4, times: 1, kept: true, part: 'p', setUp, items: [0] },
      ],
      needs: [{ of: 'C-2', on: 'C-1' }],
    });
    // The version that is meant says what it begins with.
    expect((await analyst('readShowing', { body: { entries: [member('C-1', 1)], configurations: [] } })).data.members).toMatchObject([{ of: 'C-1', setUp: null }]);
  });

  test('of a risk, a depth or some requirements: whatever shows some of it, with all that it depends on, and how much nothing shows', async () => {
    const of = async (body: object) => (await analyst('readCandidates', { body })).data;
    expect((await of({})).members.map((m) => m.of)).toEqual(['C-1', 'C-2', 'C-3']);
    const later = await analyst('createArtefact', { body: testCase({ title: 'Before it', estimate: 7, dependsOn: [{ id: 'C-1' }] }) });
    expect(later.status).toBe(200);
    await save(analyst, 'C-2', 1, covering(2, { title: 'Second', dependsOn: [{ id: 'C-4' }] }), '', undefined, the.key);
    await save(analyst, 'K-2', 1, condition(['R-1'], { title: 'Two', depths: ['core'] }), '', undefined, the.key);
    const core = await of({ depth: 'core' });
    expect(core).toMatchObject({ weights: [9], shownByNothing: 0, needs: [{ of: 'C-2', on: 'C-4' }, { of: 'C-4', on: 'C-1' }] });
    expect(core.members.map((m) => [m.of, m.items.length, m.kept, m.minutes])).toEqual([['C-2', 1, false, 4], ['C-4', 0, false, 7], ['C-1', 0, false, 4]]);
    await analyst('createArtefact', { body: condition(['R-1'], { title: 'Nobody shows it' }) });
    expect((await of({ risk: 'high' })).shownByNothing).toBe(1);
    expect(await of({ risk: 'low' })).toEqual({ weights: [], members: [], needs: [], shownByNothing: 0 });
    expect((await of({ requirements: [] })).members).toEqual([]);
    expect((await of({ requirements: ['R-1'] })).members).toHaveLength(4);
  });

  test('what would show the rest is proposed', async () => {
    const { data } = await analyst('findAdditions', { body: { entries: [member('C-1')], configurations: [], risk: 'high' } });
    expect(data).toEqual({ proposed: [{ id: 'C-2', adds: 1 }, { id: 'C-3', adds: 1 }], shownByNothing: 0 });
    expect((await analyst('findAdditions', { body: { entries: [], configurations: [], condition: 'K-2' } })).data.proposed).toEqual([{ id: 'C-2', adds: 1 }]);
  });
});

describe('the matrix', () => {
  const matrix = async (across: 'covering' | 'suites', call = analyst, project = the.key): Promise<string[]> => {
    const { conditions, columns, cells } = (await call('readMatrix', { params: { project }, query: { across } })).data;
    return Array.from({ length: cells.length / 7 }, (_, i) => cells.slice(i * 7, i * 7 + 7)).map(([k = -1, c = -1, ...counts]) => `${conditions[k]} ${columns[c]} ${counts.join(' ')}`).sort();
  };

  test('says what each case shows of each condition, and what each suite does at the versions it means', async () => {
    await analyst('createArtefact', { body: suite([member('C-1', 1), member('C-2')]) });
    await analyst('createArtefact', { body: suite([part('p', { of: 'cases', asks: 'tag:smoke', pinned: null })]) });
    await analyst('createArtefact', { body: suite([member('C-3')], { title: 'Away' }) });
    await analyst('setState', { params: { id: 'U-3' } as never, body: { state: 'withdrawn' } });
    await save(analyst, 'C-1', 1, covering(3, { title: 'First', tags: ['smoke'] }), '', undefined, the.key);
    expect(await matrix('covering')).toEqual(['K-2 C-2 1 0 0 0 0', 'K-3 C-1 1 0 0 0 0', 'K-3 C-3 1 0 0 0 0']);
    expect(await matrix('suites', the.reader)).toEqual(['K-1 U-1 1 0 0 0 0', 'K-2 U-1 1 0 0 0 0', 'K-3 U-2 1 0 0 0 0']);
    // What is only claimed, or waits for an answer, says so.
    await save(analyst, 'C-3', 1, covering(3, { title: 'Third', steps: [] }), '', undefined, the.key);
    expect(await matrix('covering')).toContain('K-3 C-3 0 0 0 1 0');
    expect((await analyst('readMatrix', { query: { across: 'rows' as never } })).status).toBe(400);
  });

  test('of a baseline is that of then', async () => {
    await the.lead('takeBaseline', { body: { name: 'Then', note: '', of: { everything: true } } });
    await save(analyst, 'C-1', 1, covering(2, { title: 'First' }), '', undefined, the.key);
    await analyst('openMoment', { params: { moment: 'B-1' } as never, body: {} });
    expect(await matrix('covering', the.server.as(the.sessions.analyst), `${the.key}@B-1`)).toEqual(['K-1 C-1 1 0 0 0 0', 'K-2 C-2 1 0 0 0 0', 'K-3 C-3 1 0 0 0 0']);
  });
});

describe('a suite as an artefact', () => {
  test('is versioned, merged undone entry by entry, listed with its figures, and names what it uses', async () => {
    await analyst('createArtefact', { body: suite([member('C-1')]) });
    await save(analyst, 'U-1', 1, suite([member('C-1'), member('C-2')]), '', undefined, the.key);
    const [added] = (await analyst('listChanges', { query: {} })).data;
    await save(the.lead, 'U-1', 2, suite([member('C-3'), member('C-1'), member('C-2')]), '', undefined, the.key);
    // What somebody did later stays: entries are told apart by their ids.
    await analyst('undoChange', { params: { change: added?.id } as never, body: {} });
    const { content } = (await analyst('readArtefact', { params: { id: 'U-1' } as never })).data;
    expect((content as SuiteContent).entries).toEqual([member('C-3'), member('C-1')]);
    expect((await analyst('readSuites')).data).toMatchObject([{ id: 'U-1', cases: 2, minutes: 8, withoutMinutes: 0, counts: { shown: 2 }, members: ['C-3', 'C-1'] }]);
    expect((await analyst('listArtefacts', { query: { kind: 'suite', query: 'tag:none' } })).data).toEqual([]);
    expect((await analyst('createArtefact', { body: suite([member('C-77')]) })).status).toBe(422);
    expect((await analyst('createArtefact', { body: suite([member('C-1', 9)]) })).status).toBe(404);
  });

  test('is reviewed with its members, those of rules too, and what they use', async () => {
    await analyst('createArtefact', { body: { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Open', steps: [plainStep(stepId('x'), 'open')] } } });
    await analyst('createArtefact', { body: testCase({ title: 'Uses it', steps: [{ kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: null, arguments: [] }] }) });
    await analyst('createArtefact', { body: suite([member('C-4'), part('p', { of: 'cases', asks: 'tag:smoke', pinned: null })]) });
    expect((await analyst('readHanging', { params: { id: 'U-1' } as never })).data).toEqual(['U-1', 'C-1', 'C-3', 'C-4', 'S-1']);
    const asked = await the.lead('askReview', { body: { title: 'Smoke', note: '', due: null, people: [the.people.lead], ids: ['U-1', 'C-1'] } });
    expect(asked.data.review.items.map((i) => i.id)).toEqual(['U-1', 'C-1']);
    expect((await analyst('readArtefact', { params: { id: 'U-1' } as never })).data.summary.state).toBe('inReview');
  });

  test('is frozen in a baseline with all that it reaches and shows', async () => {
    await analyst('createArtefact', { body: suite([member('C-1'), member('F-1/1')]) });
    const taken = await the.lead('takeBaseline', { body: { name: 'Then', note: '', of: { suite: 'U-1' } } });
    expect(taken.status).toBe(200);
    await save(analyst, 'U-1', 1, suite([member('C-2')]), '', undefined, the.key);
    await save(analyst, 'C-1', 1, covering(1, { title: 'Other', covers: [] }), '', undefined, the.key);
    const opened = (await analyst('openMoment', { params: { moment: 'B-1' } as never, body: {} })).data;
    const then = the.server.as(the.sessions.analyst);
    const key = `${the.key}@B-1`;
    expect(opened).toMatchObject({ key });
    expect((await then('readSuites', { params: { project: key } })).data).toMatchObject([{ id: 'U-1', cases: 1, scenarios: 1, counts: { shown: 1 }, members: ['C-1', 'F-1/1'] }]);
  });
});

describe('the suites something is in', () => {
  test('by hand, by a rule, through its scenarios; not those that are withdrawn or only name another', async () => {
    const smoke: SuiteRule = { of: 'cases', asks: 'tag:smoke', pinned: 'agreed' };
    await analyst('createArtefact', { body: suite([member('C-1', 1), member('F-1/2'), member('F-1/1')], { title: 'By hand' }) });
    await analyst('createArtefact', { body: suite([part('p', smoke), part('q', { of: 'scenarios', asks: '@2min', pinned: null })], { title: 'By rules' }) });
    await analyst('createArtefact', { body: suite([member('C-2'), part('r', { of: 'cases', asks: 'no such (', pinned: null })], { title: 'Others' }) });
    const inSuites = async (id: 'C-1' | 'C-2' | 'F-1') => (await analyst('readSuitesOf', { params: { id } as never })).data.map((s) => `${s.id} ${s.title}: ${s.members.map((m) => `${m.of} ${m.pinned ?? 'latest'}${m.byRule ? ' by rule' : ''}`).join(', ')}`);
    expect(await inSuites('C-1')).toEqual(['U-1 By hand: C-1 1', 'U-2 By rules: C-1 agreed by rule']);
    expect(await inSuites('F-1')).toEqual(['U-1 By hand: F-1/2 latest, F-1/1 latest', 'U-2 By rules: F-1/2 latest by rule']);
    expect(await inSuites('C-2')).toEqual(['U-3 Others: C-2 latest']);
    await analyst('setState', { params: { id: 'U-3' } as never, body: { state: 'withdrawn' } });
    expect(await inSuites('C-2')).toEqual([]);
  });
});

describe('what all suites come to', () => {
  test('is worked out once for a revision, anew after a change, after a while and where it failed', async () => {
    await analyst('createArtefact', { body: suite([part('p', { of: 'cases', asks: 'tag:smoke', pinned: null })]) });
    const [project] = await inTransaction(the.server.db, (work) => selectRows(work, z.object({ id: z.string() }), 'SELECT id::text FROM project WHERE key = $1', [the.key]));
    let asked = 0;
    let failing = false;
    const lines = new SuiteLines();
    const read = async (now: number) => {
      const none = { counts: NO_ITEMS, weighted: NO_ITEMS, byTechnique: perTechnique(() => NO_ITEMS), byRisk: {} as never, requirements: [], cases: [] };
      const chosen = async (choices: readonly unknown[]) => ((asked += 1), failing ? Promise.reject(new Error('gone')) : choices.map(() => none));
      return (await lines.read({ db: the.server.db, projectId: project!.id, now, chosen, cells: () => Promise.reject(new Error('not asked')), matrix: () => Promise.reject(new Error('not asked')), asked: () => Promise.reject(new Error('not asked')), additions: () => Promise.reject(new Error('not asked')) })).map((line) => line.members);
    };
    expect(await Promise.all([read(0), read(0)])).toEqual([[['C-1', 'C-3']], [['C-1', 'C-3']]]);
    expect(asked).toBe(1);
    expect(await read(1_000)).toEqual([['C-1', 'C-3']]);
    expect(asked).toBe(1);
    await save(analyst, 'C-2', 1, covering(2, { title: 'Second', tags: ['smoke'] }), '', undefined, the.key);
    expect(await read(2_000)).toEqual([['C-1', 'C-2', 'C-3']]);
    expect(asked).toBe(2);
    failing = true;
    await expect(read(100_000)).rejects.toThrow('gone');
    failing = false;
    expect(await read(100_000)).toEqual([['C-1', 'C-2', 'C-3']]);
    expect(asked).toBe(4);
  });
});
