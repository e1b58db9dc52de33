import { describe, expect, test } from '@jest/globals';
import { artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { packHeads, packRows, toWire, type ChangesSince, type CoverageSince, type Summary } from '@caderno/contract';
import fc from 'fast-check';
import { caseHead } from '../../../test/heads.ts';
import { foreseenOf, type Foreseen } from './foreseen.ts';
import { headsAfter, headsOf } from './headLists.ts';
import { ProjectLog, type LogSource } from './projectLog.ts';

const head = (n: number, title = `Case ${n}`, module = ''): Summary => caseHead(n, { title, module });
const place = (n: number, position: number): Summary => ({ kind: 'requirement', id: artefactId('requirement', n), title: `R ${n}`, state: 'draft', version: 1, meaningSince: 1, agreed: null, module: '', author: 'a', at: '2026-01-01T00:00:00.000Z', broken: false, own: {}, parent: null, position, type: 'rule', sourceId: '', risk: 'low', priority: 'low' });

/** A server of one project: every change is remembered, and may be asked for. */
class Server implements LogSource {
  readonly #past: { readonly heads: Summary[]; readonly gone: ArtefactId[] }[] = [];
  readonly #now = new Map<ArtefactId, Summary>();
  readonly #rows: CoverageSince[] = [];
  failures = 0;
  asked: string[] = [];
  /** Done while a page of the heads is read. */
  meanwhile = (): void => undefined;

  get revision(): number {
    return this.#past.length;
  }

  change(heads: Summary[], gone: ArtefactId[] = []): Extract<ChangesSince, { kind: 'changes' }> {
    for (const h of heads) this.#now.set(h.id, h);
    for (const id of gone) this.#now.delete(id);
    this.#past.push({ heads, gone });
    return this.#since(this.revision - 1);
  }

  cover(n: number, gaps: number): CoverageSince {
    const row = toWire({ kind: 'condition', id: artefactId('condition', n), weight: 1, standings: Array<'gap'>(gaps).fill('gap'), techniques: Array<'plain'>(gaps).fill('plain') });
    this.#rows.push({ since: this.#rows.length, edition: this.#rows.length + 1, revision: this.revision, rows: packRows([row]), gone: [] });
    return this.#rows.at(-1)!;
  }

  get all(): Summary[] {
    return [...this.#now.values()];
  }

  #since(since: number): Extract<ChangesSince, { kind: 'changes' }> {
    const past = this.#past.slice(since);
    const ids = [...new Set(past.flatMap((p) => [...p.heads.map((h) => h.id), ...p.gone]))];
    return { kind: 'changes', since, revision: this.revision, heads: packHeads(ids.flatMap((id) => this.#now.get(id) ?? [])), gone: ids.filter((id) => !this.#now.has(id)), touched: ids.map((id) => ({ id, to: [] })), settings: false, suspectLinks: 0 };
  }

  #answer<T>(what: string, make: () => T): Promise<T> {
    this.asked.push(what);
    if (this.failures > 0) {
      this.failures -= 1;
      return Promise.reject(new Error('gone'));
    }
    return Promise.resolve(make());
  }

  heads = (after: string | undefined) =>
    this.#answer('heads', () => {
      const numberOf = (h: Summary): number => Number(h.id.slice(2));
      const list = this.all.filter((h) => numberOf(h) > Number(after ?? 0)).sort((a, b) => numberOf(a) - numberOf(b));
      const some = list.slice(0, 2);
      const page = { revision: this.revision, heads: packHeads(some), next: list.length > 2 ? String(numberOf(some[1]!)) : null, suspectLinks: 0 };
      this.meanwhile();
      return page;
    });
  changes = (since: number) => this.#answer('changes', (): ChangesSince => (since > this.revision || this.revision - since > 50 ? { kind: 'tooOld', revision: this.revision } : this.#since(since)));
  rows = (since: number | undefined) =>
    this.#answer('rows', (): CoverageSince => {
      const written = this.#rows.slice(since ?? 0).map((r) => r.rows).flat();
      return { since: since ?? null, edition: this.#rows.length, revision: this.revision, rows: written, gone: [] };
    });
  goesOn = true;
  pause = () => Promise.resolve(this.goesOn);
}

const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 5));
const watched: (string | null)[] = [];
const open = async (server: Server): Promise<ProjectLog> => {
  watched.length = 0;
  const log = new ProjectLog(server, {
    onChanges: (changes) => {
      watched.push(changes === null ? null : changes.touched.map((t) => t.id).join(' '));
      return Promise.resolve();
    },
    onCoverage: (rows) => void watched.push(`rows ${[...rows].join(' ')}`),
  });
  log.begin();
  await settled();
  return log;
};
const ids = (log: ProjectLog): ArtefactId[] => [...(log.known()?.heads.byId.keys() ?? [])].sort();

describe('the store of a project', () => {
  test('is filled page by page, together with what happened meanwhile, and again when the server was away', async () => {
    const server = new Server();
    server.change([head(1), head(2), head(3)]);
    server.failures = 2;
    let done = false;
    server.meanwhile = () => {
      if (!done) server.change([head(4)], ['C-1']);
      done = true;
    };
    const log = await open(server);
    expect(ids(log)).toEqual(['C-2', 'C-3', 'C-4']);
    expect(log.known()).toMatchObject({ revision: 2, coverage: { edition: 0 } });
  });

  test('gives up when the session is over, and begins anew with whoever asks next', async () => {
    const server = new Server();
    server.change([head(1)]);
    Object.assign(server, { failures: 1, goesOn: false });
    const log = await open(server);
    expect([log.known(), server.asked]).toEqual([null, ['heads']]);
    const stop = log.subscribe(() => undefined);
    await settled();
    expect(ids(log)).toEqual(['C-1']);
    stop();
  });

  test('takes in what follows, asks for what does not, and takes nothing in twice', async () => {
    const server = new Server();
    server.change([head(1)]);
    const log = await open(server);
    server.asked = [];
    log.takeChanges(server.change([head(2)]));
    expect([ids(log), server.asked]).toEqual([['C-1', 'C-2'], []]);
    const lost = server.change([head(3)]);
    const late = server.change([head(4)]);
    log.takeChanges(late);
    await settled();
    log.takeChanges(lost);
    expect([ids(log), server.asked, watched]).toEqual([['C-1', 'C-2', 'C-3', 'C-4'], ['changes'], ['C-2', 'C-3 C-4']]);
    log.takeChanges({ kind: 'ask' });
    await settled();
    expect(server.asked).toEqual(['changes', 'changes']);
  });

  test('is read anew, with all that hangs on it, when its revision is none of the server’s past; a server that calls that too old too is left alone', async () => {
    const server = new Server();
    for (const n of [1, 2, 3]) server.change([head(n)]);
    const log = await open(server);
    // Restored from a backup of before.
    const restored = new Server();
    restored.change([head(1)]);
    Object.assign(server, { heads: restored.heads, changes: restored.changes });
    await log.refresh();
    expect([ids(log), log.known()?.revision, watched.at(-1)]).toEqual([['C-1'], 1, null]);
    let asked = 0;
    Object.assign(server, { changes: () => Promise.resolve({ kind: 'tooOld', revision: (asked += 1) }) });
    await expect(log.refresh()).rejects.toThrow('too old');
    expect(asked).toBe(2);
  });

  test('knows from where the stream goes on what it missed', async () => {
    const server = new Server();
    server.change([head(1)]);
    const log = await open(server);
    server.asked = [];
    log.takePlace({ revision: 1, edition: 0 });
    expect(server.asked).toEqual([]);
    server.change([head(2)]);
    server.cover(1, 2);
    log.takePlace({ revision: 2, edition: 1 });
    await settled();
    expect([ids(log), server.asked.sort(), log.known()?.coverage?.rows.get('K-1')]).toMatchObject([['C-1', 'C-2'], ['changes', 'rows'], { standings: ['gap', 'gap'] }]);
  });

  test('has the coverage rows it was told of, whichever it missed; an edition of before changes nothing', async () => {
    const server = new Server();
    const log = await open(server);
    const first = server.cover(1, 1);
    log.takeCoverage(first);
    server.cover(1, 2);
    log.takeCoverage(server.cover(2, 3));
    await settled();
    log.takeCoverage(first);
    const standings = ['K-1', 'K-2'].map((id) => log.known()?.coverage?.rows.get(id)).map((row) => row?.kind === 'condition' && row.standings.length);
    expect([standings, watched]).toEqual([[2, 3], ['rows K-1', 'rows K-1 K-2']]);
  });

  test('after any news in any order it is what the server has', async () => {
    const step = fc.record({ n: fc.integer({ min: 1, max: 6 }), gone: fc.boolean(), told: fc.constantFrom('at once', 'never', 'late', 'ask') });
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 10 }), async (steps) => {
        const server = new Server();
        const log = await open(server);
        const late: ChangesSince[] = [];
        for (const { n, gone, told } of steps) {
          const news = gone ? server.change([], [artefactId('case', n)]) : server.change([head(n, `v${server.revision}`)]);
          if (told === 'at once') log.takeChanges(news);
          if (told === 'late') late.push(news);
          if (told === 'ask') log.takeChanges({ kind: 'ask' });
        }
        for (const news of late.reverse()) log.takeChanges(news);
        await log.refresh();
        expect([...(log.known()?.heads.byId ?? [])].sort()).toEqual(server.all.map((h) => [h.id, h]).sort());
      }),
      { numRuns: 60 },
    );
  });
});

test('lists stay in order however heads come, go and move; a list in which nothing happened stays the same', () => {
  const some = fc.array(fc.record({ n: fc.integer({ min: 1, max: 90 }), module: fc.constantFrom('', 'b', 'a', 'ä'), position: fc.integer({ min: 1, max: 9 }), gone: fc.boolean() }), { maxLength: 70 });
  fc.assert(
    fc.property(some, some, (first, then) => {
      const heads = (list: typeof first) => list.flatMap(({ n, module, position }): Summary[] => [head(n, `${n}`, module), place(n, position)]);
      const gone = then.flatMap(({ n, gone: g }) => (g ? [artefactId('case', n)] : []));
      const after = headsAfter(headsOf(heads(first)), heads(then), gone);
      const anew = headsOf(after.byId.values());
      expect(after.lists.case.map((h) => h.id)).toEqual(anew.lists.case.map((h) => h.id));
      expect(after.lists.requirement.map((h) => h.id)).toEqual(anew.lists.requirement.map((h) => h.id));
      expect(headsAfter(after, [], ['C-95']).lists.case).toBe(after.lists.case);
    }),
  );
  expect(headsOf([head(2, '', 'ä'), head(10, '', 'a'), head(9, '', 'a'), head(1, '', 'b')]).lists.case.map((h) => h.id)).toEqual(['C-9', 'C-10', 'C-2', 'C-1']);
});

describe('a command that is shown at once', () => {
  const withdrawn: Foreseen = { ids: ['C-1', 'C-9'], head: (h) => ({ ...h, state: 'withdrawn' }) };
  const filled = async () => {
    const server = new Server();
    server.change([head(1), head(2), head(3)]);
    const log = new ProjectLog(server, { onChanges: () => Promise.resolve(), onCoverage: () => undefined });
    await log.refresh();
    return { server, log, states: () => log.known()!.heads.lists.case.map((c) => c.state) };
  };

  test('is there before the server knows of it, and stays when it is confirmed', async () => {
    const { server, log, states } = await filled();
    const before = log.known()!.heads;
    const settle = log.foresee(withdrawn);
    expect(states()).toEqual(['withdrawn', 'draft', 'draft']);
    expect(before.lists.case[0]?.state).toBe('draft');
    // Somebody else’s change comes in between.
    log.takeChanges(server.change([head(2, 'Renamed')]));
    expect([states(), log.known()!.heads.byId.get('C-2')?.title]).toEqual([['withdrawn', 'draft', 'draft'], 'Renamed']);
    server.change([caseHead(1, { state: 'withdrawn', version: 2 })]);
    await log.refresh();
    settle();
    settle();
    expect([states(), log.known()!.heads.byId.get('C-1')?.version]).toEqual([['withdrawn', 'draft', 'draft'], 2]);
  });

  test('is taken back when it was refused, and others go on being shown', async () => {
    const { log, states } = await filled();
    const [one, other] = [log.foresee(withdrawn), log.foresee({ ids: ['C-1', 'C-3'], head: (h) => ({ ...h, title: `${h.title}!` }) })];
    expect([states()[0], log.known()!.heads.byId.get('C-1')?.title]).toEqual(['withdrawn', 'Case 1!']);
    one();
    expect([states(), log.known()!.heads.byId.get('C-1')?.title, log.known()!.heads.byId.get('C-3')?.title]).toEqual([['draft', 'draft', 'draft'], 'Case 1!', 'Case 3!']);
    other();
    expect(log.known()!.heads.byId.get('C-3')?.title).toBe('Case 3');
  });

  test('is told of heads as the server will make it, and of those alone that it concerns', () => {
    type Done = Parameters<typeof foreseenOf>[0]['done'];
    const foreseen = (done: Done) => foreseenOf({ of: { ids: ['C-1', 'R-1'] }, done });
    const [case1, requirement1] = [head(1), place(1, 1)];
    const after = (done: Done) => [foreseen(done)!.head(case1), foreseen(done)!.head(requirement1)];
    expect(after({ kind: 'edit', edit: { kind: 'module', module: 'Meters' } })).toMatchObject([{ module: 'Meters' }, { module: 'Meters' }]);
    const risky = after({ kind: 'edit', edit: { kind: 'risk', risk: 'high' } });
    expect([risky[0] === case1, risky[1]]).toMatchObject([true, { risk: 'high' }]);
    expect(foreseen({ kind: 'edit', edit: { kind: 'rating', part: 'impact', step: 1 } })).toBeNull();
    expect([foreseen({ kind: 'clone', parts: [], sets: [[]] }), foreseenOf({ of: { kind: 'case', query: '' }, done: { kind: 'state', state: 'agreed' } })]).toEqual([null, null]);
  });
});
