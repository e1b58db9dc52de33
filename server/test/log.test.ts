import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { kindOfId, type ArtefactId } from '@caderno/core/artefacts';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { reportOfRows, type CoverageRow, type ReportHeads, type StandingCounts } from '@caderno/core/coverage';
import { ownFieldId, type OwnField } from '@caderno/core/fields';
import { HAS_VALUES, matchesQuery, parseQuery, soughtKey, wordsToFind } from '@caderno/core/find';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { MOST_CHANGED, PROJECT_EVENTS, aroundHeads, findableOf, unpackHeads, unpackRows, type ChangesSince, type Summary } from '@caderno/contract';
import fc from 'fast-check';
import { setTimeout as sleep } from 'node:timers/promises';
import pg from 'pg';
import { insertArtefacts, writeJournalEntry, reserveNumbers } from '../src/artefacts/index.ts';
import { inTransaction } from '../src/database/index.ts';
import { condition, makeDatabase, makeProject, onServer, requirement, save, startServer, startTwoServers, testCase, until, type Caller, type TwoServers } from './harness.ts';
import { pace } from '../../scripts/pace.mjs';

let two: TwoServers;
let call: Caller;

beforeAll(async () => {
  two = await startTwoServers();
  call = two.server.as(two.project.lead);
});
afterAll(() => two.close());

/** A page that is open on the project: filled once, then told what changed. */
class Page {
  heads = new Map<ArtefactId, Summary>();
  rows = new Map<string, CoverageRow>();
  revision = 0;
  edition: number | null = null;
  suspectLinks = 0;

  async fill(): Promise<this> {
    for (let after: string | undefined; ; ) {
      const page = (await call('readHeads', { query: { after } })).data;
      if (after === undefined) this.revision = page.revision;
      for (const head of unpackHeads(page.heads)) this.heads.set(head.id, head);
      this.suspectLinks = page.suspectLinks;
      if (page.next === null) break;
      after = page.next;
    }
    return this;
  }

  take(changes: ChangesSince): void {
    if (changes.kind !== 'changes') throw new Error(`Expected changes, got ${changes.kind}`);
    expect(changes.since).toBe(this.revision);
    for (const head of unpackHeads(changes.heads)) this.heads.set(head.id, head);
    for (const id of changes.gone) this.heads.delete(id);
    this.revision = changes.revision;
    this.suspectLinks = changes.suspectLinks;
  }

  async catchUp(through: Caller = call): Promise<void> {
    this.take((await through('readChanges', { query: { since: this.revision } })).data);
    const covered = (await through('readCoverageRows', { query: this.edition === null ? {} : { since: this.edition } })).data;
    expect(covered.since).toBe(this.edition);
    for (const row of unpackRows(covered.rows)) this.rows.set(row.id, row);
    for (const id of covered.gone) this.rows.delete(id);
    this.edition = covered.edition;
  }

  get reportHeads(): ReportHeads {
    const of = <K extends Summary['kind']>(kind: K) => [...this.heads.values()].filter((s): s is Extract<Summary, { kind: K }> => s.kind === kind);
    return { requirements: of('requirement'), conditions: of('condition'), cases: of('case') };
  }
}

const byId = (heads: ReadonlyMap<ArtefactId, Summary>) => [...heads.values()].sort((a, b) => a.id.localeCompare(b.id));

/** What may happen to a project, as people's commands. */
const commands = {
  addRequirement: async () => call('createArtefact', { body: requirement({ title: 'R', risk: 'high', module: 'm' }) }),
  addAfterFirst: async (n: number) => call('createArtefact', { body: { ...requirement({ title: 'between' }), parent: null, after: `R-${n}` as const } }),
  addCondition: async (n: number) => call('createArtefact', { body: condition([`R-${n}`], { risk: n % 2 === 0 ? 'low' : null }) }),
  addCase: async (n: number) => call('createArtefact', { body: testCase({ module: 'm', estimate: n, steps: [plainStep(stepId('s'), 'a', 'e')], covers: [{ ...newCover(`K-${n}`, 1), expects: [stepId('s')] }] }) }),
  move: async (n: number) => call('moveRequirement', { params: { id: `R-${n}` }, body: { parent: null, after: null } }),
  rewrite: async (n: number, version: number) => save(call, `R-${n}`, version, requirement({ title: 'R', text: `text ${version}`, risk: 'medium' })),
  withdraw: async (n: number) => call('setState', { params: { id: `K-${n}` }, body: { state: 'withdrawn' } }),
  undo: async (n: number) => {
    const change = (await call('listChanges', { query: {} })).data[n];
    return call('undoChange', { params: { change: change?.id ?? '' }, body: {} });
  },
  scale: async (weight: number) => {
    const { settings, version } = (await call('readSettings')).data;
    return call('saveSettings', { body: { ...settings, riskScale: { ...settings.riskScale, weights: { ...settings.riskScale.weights, high: weight + 5 } } } }, { 'if-match': `"${version}"` });
  },
  split: async (n: number) => {
    const part = (title: string) => ({ title, text: 'A part of it.' });
    const design = (await call('readDesign', { query: { requirement: `R-${n}` } })).data;
    return call('splitRequirement', { params: { id: `R-${n}` }, body: { parts: [part('one'), part('two')], conditions: Object.fromEntries(design.conditions.map((c) => [c.id, 1])), questions: {}, children: {} } });
  },
};

test('a page brought up by what changed since knows what one filled anew does, whatever happens', async () => {
  for (const n of [1, 2, 3]) await commands.addRequirement().then(() => commands.addCondition(n));
  for (const n of [1, 2]) await commands.addCase(n);
  const page = await new Page().fill();
  await page.catchUp();
  const done: Record<string, number> = {};
  const command = fc.record({ name: fc.constantFrom(...(Object.keys(commands) as (keyof typeof commands)[])), n: fc.integer({ min: 1, max: 4 }), version: fc.integer({ min: 1, max: 3 }) });
  await fc.assert(
    fc.asyncProperty(fc.array(command, { minLength: 1, maxLength: 4 }), async (list) => {
      for (const { name, n, version } of list) {
        // Some are refused, as commands of people are: nothing has changed then.
        const { status } = await commands[name](n, version);
        if (status === 200) done[name] = (done[name] ?? 0) + 1;
      }
      await page.catchUp(two.other.as(two.project.reader));
      const anew = await new Page().fill();
      expect(byId(page.heads)).toEqual(byId(anew.heads));
      expect([page.revision, page.suspectLinks]).toEqual([anew.revision, anew.suspectLinks]);
      await anew.catchUp();
      expect(new Map([...page.rows].sort())).toEqual(new Map([...anew.rows].sort()));
      const { broken, ...report } = (await call('readCoverage')).data;
      expect([reportOfRows(page.reportHeads, page.rows), broken]).toEqual([report, []]);
    }),
    { numRuns: 25, seed: 11 },
  );
  expect(Object.keys(commands).filter((name) => (done[name] ?? 0) === 0)).toEqual([]);
});

test('too much at once, or a revision of another past, is to be read anew', async () => {
  const { revision } = (await call('readHeads', { query: {} })).data;
  expect((await call('readChanges', { query: { since: revision + 7 } })).data).toEqual({ kind: 'tooOld', revision });
  await inTransaction(two.server.db, async (work) => {
    const actor = { projectId: two.project.id, personId: two.project.people.lead, at: new Date(), commandId: null };
    const first = await reserveNumbers(work, two.project.id, 'shared', MOST_CHANGED + 1);
    const value = { kind: 'shared', content: { ...EMPTY_SHARED, title: 'many' } } as const;
    const { parts } = await insertArtefacts(work, actor, '00000000-0000-4000-8000-000000000001', Array.from({ length: MOST_CHANGED + 1 }, (_, i) => ({ number: first + i, value, parent: null, position: 0 })));
    await writeJournalEntry(work, actor, { action: 'write', parts, detail: '', note: '' }, '00000000-0000-4000-8000-000000000001');
  });
  expect((await call('readChanges', { query: { since: revision } })).data).toEqual({ kind: 'tooOld', revision: revision + 1 });
  expect((await new Page().fill()).heads.size).toBeGreaterThan(MOST_CHANGED);
});

test('what is marked as not readable is told like any change', async () => {
  const { id } = (await call('createArtefact', { body: testCase({ title: 'To be broken' }) })).data.summary;
  const page = await new Page().fill();
  await onServer(two.database.url, `UPDATE caderno.artefact_version v SET content = '7' FROM caderno.artefact a WHERE a.id = v.artefact_id AND a.title = 'To be broken'`);
  expect((await call('readArtefact', { params: { id } })).refusal.code).toBe('artefact_broken');
  await page.catchUp();
  expect(page.heads.get(id)).toMatchObject({ broken: true });
});

describe('the stream of a project', () => {
  /** Reads events until the returned function is called. */
  async function listenOn(origin: string, lastRevision?: number) {
    const controller = new AbortController();
    const response = await fetch(`${origin}/api/v1/projects/p/events`, { headers: { cookie: `caderno_session=${two.project.reader}`, ...(lastRevision === undefined ? {} : { 'last-event-id': String(lastRevision) }) }, signal: controller.signal });
    const events: { event: string; id: string; data: unknown }[] = [];
    const read = async (): Promise<void> => {
      let rest = '';
      for await (const chunk of response.body!.pipeThrough(new TextDecoderStream())) {
        const parts = (rest + chunk).split('\n\n');
        rest = parts.pop() ?? '';
        for (const part of parts) events.push({ event: field(part, 'event'), id: field(part, 'id'), data: JSON.parse(field(part, 'data')) });
      }
    };
    void read().catch((error: unknown) => {
      if (!controller.signal.aborted) throw error;
    });
    const next = (event: keyof typeof PROJECT_EVENTS) => until(() => events.find((e) => e.event === event) ?? null);
    return { events, next, end: () => controller.abort() };
  }
  const field = (text: string, name: string): string => new RegExp(`^${name}: (.*)$`, 'm').exec(text)?.[1] ?? '';

  test('carries what changed through any server within two seconds, and what coverage makes of it; who comes back goes on where they were', async () => {
    const listening = await two.server.listen();
    const page = await new Page().fill();
    await page.catchUp();
    const stream = await listenOn(listening.origin);
    const open = PROJECT_EVENTS.open.parse((await stream.next('open')).data);
    expect(open).toEqual({ revision: page.revision, edition: page.edition });
    const sent = Date.now();
    const { id } = (await two.other.as(two.project.analyst)('createArtefact', { body: condition(['R-1'], { title: 'live' }) })).data.summary;
    const changes = await stream.next('changes');
    expect(Date.now() - sent).toBeLessThan(2_000 * pace());
    const told = PROJECT_EVENTS.changes.parse(changes.data);
    if (told.kind !== 'changes') throw new Error('A small change is pushed whole');
    expect([changes.id, told.touched]).toEqual([String(page.revision + 1), [{ id, to: ['R-1'] }]]);
    page.take(told);
    expect(page.heads.get(id)?.title).toBe('live');
    const rows = PROJECT_EVENTS.coverage.parse((await stream.next('coverage')).data);
    expect('rows' in rows && unpackRows(rows.rows)).toMatchObject([{ id, standings: ['gap'] }]);
    expect(JSON.stringify(stream.events).length).toBeLessThan(5_000);
    stream.end();

    const back = await listenOn(listening.origin, page.revision - 1);
    expect(PROJECT_EVENTS.changes.parse((await back.next('changes')).data)).toMatchObject({ since: page.revision - 1, revision: page.revision, touched: [{ id }] });
    back.end();
    await listening.close();
  });

  test('what would be too much to push is asked for', async () => {
    const listening = await two.server.listen();
    const stream = await listenOn(listening.origin);
    await stream.next('open');
    await call('writeArtefacts', { body: { made: Array.from({ length: 140 }, (_, i) => ({ ...requirement({ title: `${i} ${'long '.repeat(55)}` }) })), changed: [], withdrawn: [], detail: '' } });
    expect((await stream.next('changes')).data).toEqual({ kind: 'ask' });
    stream.end();
    await listening.close();
  });
});

test('two servers that count at once leave what either would', async () => {
  const { id } = (await call('createArtefact', { body: requirement({ title: 'counted twice' }) })).data.summary;
  for (let round = 0; round < 5; round += 1) {
    await call('createArtefact', { body: condition([id as `R-${number}`]) });
    const both = await Promise.all([two.server, two.other].map((s) => s.as(two.project.reader)('readCoverageRows', { query: {} })));
    const [a, b] = both.map(({ data }) => new Map(unpackRows(data.rows).map((row) => [row.id, row])));
    expect(a).toEqual(b);
    expect(both[0]!.data.revision).toBe((await call('readHeads', { query: {} })).data.revision);
  }
});

test('who counts is one server at a time; when it dies another goes on within five seconds', async () => {
  const holder = new pg.Client({ connectionString: two.database.url });
  holder.on('error', () => undefined);
  await holder.connect();
  await holder.query(`SELECT pg_advisory_lock(hashtextextended('caderno coverage ' || $1, 0))`, [two.project.id]);
  await call('createArtefact', { body: requirement({ title: 'counted later' }) });
  let counted = false;
  const asked = two.other.as(two.project.reader)('readCoverageRows', { query: {} }).then(({ status }) => {
    counted = true;
    return status;
  });
  await sleep(600);
  expect(counted).toBe(false);
  const killed = Date.now();
  await onServer(two.database.url, `SELECT pg_terminate_backend(pid) FROM pg_locks WHERE locktype = 'advisory' AND granted AND database = (SELECT oid FROM pg_database WHERE datname = current_database())`);
  expect(await asked).toBe(200);
  expect(Date.now() - killed).toBeLessThan(5_000 * pace());
});

test('a database of before the log is taken over: what there is is told whole, and what changes from then on', async () => {
  const old = await makeDatabase();
  const before = await startServer(old.url);
  const { reader, analyst } = await makeProject(before.db);
  for (const title of ['one', 'two']) await before.as(analyst)('createArtefact', { body: requirement({ title }) });
  // As it was before that step.
  await before.db.query(`DROP TRIGGER artefact_made ON artefact; DROP TRIGGER artefact_altered ON artefact; DROP FUNCTION caderno.artefact_revision; ALTER TABLE artefact DROP revision;
    DROP TABLE coverage_state, coverage_row, draft_sequence; ALTER TABLE import_file RENAME alive_at TO begun_at; DELETE FROM migration WHERE name = '0008-log'`);
  await before.close();
  const after = await startServer(old.url);
  const page = (await after.as(reader)('readHeads', { query: {} })).data;
  expect([page.revision, unpackHeads(page.heads).map((h) => h.title)]).toEqual([2, ['one', 'two']]);
  await after.as(analyst)('setState', { params: { id: 'R-2' }, body: { state: 'withdrawn' } });
  expect((await after.as(reader)('readChanges', { query: { since: 2 } })).data).toMatchObject({ kind: 'changes', revision: 3, touched: [{ id: 'R-2' }] });
  expect((await after.as(reader)('readCoverageRows', { query: {} })).data).toMatchObject({ edition: 1, revision: 3 });
  await after.close();
  await old.drop();
});

test('a query means the same to the browser’s list of heads and to the database', async () => {
  await call('createArtefact', { body: testCase({ title: 'Tagged reading', module: 'Readings %', owner: 'Rui', tags: ['Smoke'], priority: 'high', execution: 'automated', kind: 'charter', estimate: 3 }) });
  await call('createArtefact', { body: testCase({ title: 'Withdrawn reading' }) }).then(({ data }) => call('setState', { params: { id: data.summary.id }, body: { state: 'withdrawn' } }));
  // One that means something else now than what was agreed, one that is agreed as it is.
  for (const title of ['Newer', 'Agreed as it is']) {
    const { summary } = (await call('createArtefact', { body: testCase({ title }) })).data;
    await call('setState', { params: { id: summary.id }, body: { state: 'agreed' } });
    if (title === 'Newer') await save(call, summary.id, 1, testCase({ title, objective: 'Another' }));
  }
  const { version, settings } = (await call('readSettings')).data;
  const own = (id: string, type: OwnField['type'], choices: string[] = []): OwnField => ({ id: ownFieldId(id), name: id, of: ['case', 'requirement'], type, choices: choices.map((name) => ({ id: name.slice(0, 1), name })), required: false, begins: null, help: '', removed: false });
  const fields = [own('runs-on', 'choices', ['Kiosk', 'Phone, new']), own('cost', 'number'), own('due', 'date'), own('team', 'text', ['Kiosk']), own('notes', 'longText'), own('signed', 'yesNo')];
  await call('saveSettings', { body: { ...settings, fields } }, { 'if-match': `"${version}"` });
  const filled = [
    { 'runs-on': ['P', 'gone'], cost: '2.50', due: '2026-02-28', team: 'K', notes: `${'long '.repeat(100)} until the END`, signed: 'yes' }, { 'runs-on': 'Kiosk', cost: 'dear', due: '2026-02-30', team: ['Field', 'K'], notes: 'short%', signed: 'no' },
    { cost: ['1', '2'], due: '12026-01-01', team: '50%' }, { 'runs-on': 'PHONE, NEW', cost: '+0007', due: 'soon' },
  ];
  for (const values of filled) await call('createArtefact', { body: testCase({ title: 'Filled', own: values }) });
  await call('createArtefact', { body: requirement({ title: 'Filled', own: filled[0]! }) });
  // A requirement without a risk of note, a condition with one of its own, and depths.
  await call('createArtefact', { body: requirement({ title: 'Low', risk: 'low', module: 'Bills' }) });
  await call('createArtefact', { body: condition(['R-1'], { depths: ['Smoke run'], risk: 'high' }) });
  const page = await new Page().fill();
  await page.catchUp();
  const { heads } = page;
  const report = new Map(reportOfRows(page.reportHeads, page.rows).requirements.map((r): [ArtefactId, StandingCounts] => [r.id, r.counts]));
  const around = aroundHeads({ heads, rows: page.rows, requirements: () => report });
  const asking = { name: 'Rui', now: Date.now() + 1_000 };
  const term = fc.constantFrom(
    'state:any', 'state:draft', 'state:withdrawn', 'module:read', 'module:%', 'module:m', 'module:bill', 'tag:smoke', 'priority:high', 'risk:high', 'risk:medium', 'risk:low', 'owner:ru', 'author:a', 'kind:charter', 'execution:automated', 'technique:plain', 'technique:valueranges',
    'polarity:both', 'type:rule', 'status:open', 'standing:gap', 'standing:shown', 'depth:"smoke run"', 'requirement:R-1', 'minutes>2', 'minutes<=3', 'steps>=1', 'rows:0', 'version>1', 'coverage<50%', 'coverage>=0', 'coverage:100', 'updated<1h', 'updated>1d', 'updated:today',
    ...HAS_VALUES.map((value) => `has:${value}`), 'is:broken', 'is:showing', 'is:newer', '-is:newer', 'covers:K-1', 'id:C-1', 'id:R-1', 'K-1', 'R-1', 'C-2', 'reading', '"tagged reading"', 'read', 'nowhere', '…',
    ...['runs-on:kiosk', 'runs-on:"phone, new"', 'cost>2', 'cost<=2.5', 'cost:7', 'due<2026-03-01', 'due>=2026-02-28', 'due:2026-02-28', 'due>1d', 'team:kiosk', 'team:"field, k"', 'team:%', 'notes:"the end"', 'notes:short', 'notes:%', 'signed:yes', 'has:runs-on', 'has:notes', 'has:due'],
  );
  const some3 = fc.array(fc.tuple(fc.constantFrom('', '', '-'), term), { minLength: 1, maxLength: 3 }).map((terms) => terms.map(([not, t]) => not + t).join(' '));
  const query = fc.tuple(some3, fc.constantFrom('', ' or ', ' -(', ' ('), some3).map(([one, joint, other]) => (joint === '' ? one : joint.includes('(') ? `${one}${joint}${other})` : one + joint + other));
  let [some, none] = [0, 0];
  await fc.assert(
    fc.asyncProperty(query, fc.constantFrom('requirement', 'condition', 'case', 'question', 'shared', 'dataSet'), async (text, kind) => {
      const parsed = parseQuery(text, fields);
      const words = new Map<string, ReadonlySet<ArtefactId>>();
      for (const sought of wordsToFind(parsed)) words.set(soughtKey(sought), new Set((await call('findByWords', { query: { kind, words: sought.words, ...(sought.field === null ? {} : { field: sought.field }) } })).data.ids));
      const here = [...heads.values()].filter((h) => kindOfId(h.id) === kind && matchesQuery(parsed, findableOf(h, around, {}), (sought) => words.get(soughtKey(sought)) ?? null, asking)).map((h) => h.id);
      const there = (await call('listArtefacts', { query: { kind, query: text } })).data.map((h) => h.id);
      expect([text, kind, here.sort()]).toEqual([text, kind, there.sort()]);
      if (there.length > 0) some += 1;
      else none += 1;
    }),
    { numRuns: 600, seed: 3 },
  );
  expect([some > 100, none > 100]).toEqual([true, true]);
});
