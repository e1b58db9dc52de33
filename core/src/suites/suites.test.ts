import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ArtefactId, CoveringId } from '../artefacts/index.ts';
import { linksOf, versionsNamedIn, withPins, withTargets } from '../kinds/index.ts';
import { NO_ITEMS, perTechnique } from '../coverage/index.ts';
import { DEEPEST_PART, configurationsRun, EMPTY_SUITE, endOfEntry, entryId, entryMoved, entryPutBefore, partSetIn, runsInAround, suiteFigures, suiteMembers, thatRun, withMemberMoved, withConfiguration, withMembers, withoutEntries, type EntryId, type MemberFacts, type SuiteEntry, type SuiteRule } from './index.ts';

const part = (id: string, depth = 1, rule: SuiteRule | null = null): SuiteEntry => ({ kind: 'part', id: entryId(id), title: id, depth, rule, runsIn: null });
const member = (of: CoveringId, pinned: number | 'agreed' | null = null): SuiteEntry => ({ kind: 'member', id: entryId(`m${of}`), of, pinned, runsIn: null });
const ids = (entries: readonly SuiteEntry[]) => entries.map((e) => e.id).join(' ');
const RULE: SuiteRule = { of: 'cases', asks: 'tag:smoke', pinned: 'agreed' };

/** Any entries, each with an id of its own. */
const entries: fc.Arbitrary<SuiteEntry[]> = fc.array(fc.record({ part: fc.boolean(), depth: fc.integer({ min: 1, max: DEEPEST_PART }), n: fc.integer({ min: 1, max: 6 }), rule: fc.boolean() }), { maxLength: 12 }).map((list) =>
  list.map((e, i): SuiteEntry => (e.part ? { kind: 'part', id: entryId(`p${i}`), title: `${i}`, depth: e.depth, rule: e.rule ? RULE : null, runsIn: null } : { kind: 'member', id: entryId(`m${i}`), of: `C-${e.n}`, pinned: null, runsIn: null })),
);

describe('members', () => {
  test('stand once, where they were picked; what rules find comes behind, in the part of the first rule that finds it', () => {
    const suite = [member('C-9'), part('a', 1, RULE), member('C-2', 3), part('b', 2, { ...RULE, pinned: null }), member('F-1/2')];
    const found = new Map<EntryId, CoveringId[]>([[entryId('a'), ['C-1', 'C-2', 'F-1/2']], [entryId('b'), ['C-9', 'C-1', 'C-3']]]);
    expect(suiteMembers({ entries: suite }, found).map((m) => [m.part, m.of, m.pinned, m.entry])).toEqual([
      [null, 'C-9', null, 'mC-9'], ['a', 'C-2', 3, 'mC-2'], ['a', 'C-1', 'agreed', null], ['b', 'F-1/2', null, 'mF-1/2'], ['b', 'C-3', null, null],
    ]);
  });

  test('are each once whatever is picked and found, and nobody is lost', () => {
    fc.assert(
      fc.property(entries, fc.array(fc.array(fc.integer({ min: 1, max: 9 }))), (list, finds) => {
        const parts = list.filter((e) => e.kind === 'part');
        const found = new Map(parts.map((p, i) => [p.id, (finds[i] ?? []).map((n): CoveringId => `C-${n}`)]));
        const all = suiteMembers({ entries: list }, found).map((m) => m.of);
        const wanted = new Set([...list.flatMap((e) => (e.kind === 'member' ? [e.of] : [])), ...parts.flatMap((p) => (p.kind === 'part' && p.rule !== null ? (found.get(p.id) ?? []) : []))]);
        expect(all).toHaveLength(new Set(all).size);
        expect(new Set(all)).toEqual(wanted);
      }),
    );
  });
});

describe('entries', () => {
  const list = [part('a'), member('C-1'), part('a1', 2), member('C-2'), part('b'), member('C-3')];

  test('a part goes with all that is in it, over the part beside it; a member over the line beside it', () => {
    expect(ids(entryMoved(list, entryId('a'), 1))).toBe('b mC-3 a mC-1 a1 mC-2');
    expect(ids(entryMoved(list, entryId('b'), -1))).toBe('b mC-3 a mC-1 a1 mC-2');
    expect(ids(entryMoved(list, entryId('mC-3'), -1))).toBe('a mC-1 a1 mC-2 mC-3 b');
    expect(entryMoved(list, entryId('a1'), 1)).toBe(list);
    expect(entryMoved(list, entryId('a1'), -1)).toBe(list);
    expect(entryMoved(list, entryId('b'), 1)).toBe(list);
    expect(endOfEntry(list, 0)).toBe(4);
  });

  test('moved there and back it is as before; nothing is lost by any move', () => {
    fc.assert(
      fc.property(entries, fc.nat(11), fc.constantFrom<1 | -1>(1, -1), fc.nat(12), (before, at, by, to) => {
        const id = before[at]?.id ?? entryId('none');
        const moved = entryMoved(before, id, by);
        if (moved !== before) expect(entryMoved(moved, id, by === 1 ? -1 : 1)).toEqual(before);
        for (const after of [moved, entryPutBefore(before, id, before[to]?.id ?? null), partSetIn(before, id, by)]) expect(after.map((e) => e.id).toSorted()).toEqual(before.map((e) => e.id).toSorted());
        const setIn = partSetIn(before, id, by);
        expect(setIn.every((e) => e.kind === 'member' || (e.depth >= 1 && e.depth <= DEEPEST_PART))).toBe(true);
      }),
      { numRuns: 500 },
    );
  });

  test('are put before another with all that is in them, never into themselves', () => {
    expect(ids(entryPutBefore(list, entryId('b'), entryId('a1')))).toBe('a mC-1 b mC-3 a1 mC-2');
    expect(ids(entryPutBefore(list, entryId('mC-1'), null))).toBe('a a1 mC-2 b mC-3 mC-1');
    expect(entryPutBefore(list, entryId('a'), entryId('mC-2'))).toBe(list);
    expect(entryPutBefore(list, entryId('a'), entryId('b'))).toBe(list);
  });

  test('members are added once, at the end of a part before the parts in it; a heading goes without its members', () => {
    let n = 0;
    const added = withMembers(list, ['C-3', 'C-7', 'C-7', 'F-2/1'], entryId('a'), () => entryId(`n${(n += 1)}`));
    expect(ids(added)).toBe('a mC-1 n1 n2 a1 mC-2 b mC-3');
    expect(withMembers(list, ['C-3'], null, () => entryId('x'))).toBe(list);
    expect(ids(withoutEntries(list, new Set([entryId('a1'), entryId('mC-3')])))).toBe('a mC-1 mC-2 b');
  });
});

describe('what it links to', () => {
  const value = { kind: 'suite' as const, content: { ...EMPTY_SUITE, entries: [member('C-1', 4), { ...member('C-1', 'agreed'), id: entryId('again') }, member('F-3/2', 5), part('p')] } };

  test('is each case and feature once, as loosely as any member means it; pinned versions are named', () => {
    expect(linksOf(value).map((l) => [l.to, l.type, l.pinned])).toEqual([['C-1', 'uses', 'agreed'], ['F-3', 'uses', 5]]);
    expect(versionsNamedIn(value)).toEqual([{ id: 'C-1', version: 4 }, { id: 'F-3', version: 5 }]);
  });

  test('goes to another project, scenarios with their features; what is not there stays out', () => {
    const led = withTargets(value, { id: <I extends ArtefactId>(id: I) => ((id as string) === 'F-3' ? ('F-8' as I) : null), version: (_, version) => version + 1 });
    expect(led.content.entries).toEqual([{ kind: 'member', id: 'mF-3/2', of: 'F-8/2', pinned: 6, runsIn: null }, part('p')]);
  });

  test('is pinned otherwise as is said', () => {
    expect(withPins(value, (of, pinned) => (of === 'F-3' ? null : pinned))?.content.entries[2]).toEqual(member('F-3/2'));
    expect(withPins(value, (_, pinned) => pinned)).toBe(value);
  });
});

test('one that was merged into another gives its place to that one, unless it is there already or a version is meant', () => {
  const again = { ...member('C-1', 'agreed'), id: entryId('again') };
  expect(withMemberMoved([member('C-9'), member('C-1'), part('p'), again, member('C-1', 4)], 'C-1', 'C-2')).toEqual([member('C-9'), { ...member('C-1'), of: 'C-2' }, part('p'), member('C-1', 4)]);
  expect(withMemberMoved([member('C-1'), member('C-2', 3)], 'C-1', 'C-2')).toEqual([member('C-2', 3)]);
});

describe('in which configurations', () => {
  const inOnly = (entry: SuiteEntry, ...ids: string[]): SuiteEntry => ({ ...entry, runsIn: ids });

  test('something runs is said by itself, or by the innermost part around it that says so', () => {
    const list = [member('C-1'), inOnly(part('a', 1, RULE), 'k1', 'k2'), member('C-2'), part('a1', 2, RULE), inOnly(member('C-3'), 'k3'), inOnly(part('a2', 2), 'k2'), member('C-4'), part('b'), member('C-5')];
    const found = suiteMembers({ entries: list }, new Map([[entryId('a'), ['C-6']], [entryId('a1'), ['C-7']]]));
    expect(found.map((m) => [m.of, m.runsIn])).toEqual([['C-1', null], ['C-2', ['k1', 'k2']], ['C-6', ['k1', 'k2']], ['C-3', ['k3']], ['C-7', ['k1', 'k2']], ['C-4', ['k2']], ['C-5', null]]);
    expect(found.map((m) => configurationsRun(m.runsIn, ['k2', 'k1']))).toEqual([['k2', 'k1'], ['k2', 'k1'], ['k2', 'k1'], [], ['k2', 'k1'], ['k2'], ['k2', 'k1']]);
    expect(configurationsRun(['k1'], [])).toEqual([null]);
    // Around an entry is what it has where it says nothing itself.
    for (const { id, kind } of list) {
      const bare = list.map((e) => (e.id === id ? { ...e, runsIn: null } : e));
      const around = runsInAround(list, id);
      if (kind === 'member') expect(around).toEqual(suiteMembers({ entries: bare }, new Map()).find((m) => m.entry === id)?.runsIn);
      else expect([id, around]).toEqual([id, id === 'a1' || id === 'a2' ? ['k1', 'k2'] : null]);
    }
  });

  test('ticks are told as all of them again, never as a list that a new one would be missing from', () => {
    const [own, all] = [(...ids: string[]) => ({ own: ids, around: null }), ['a', 'b', 'c']];
    expect(withConfiguration({ own: null, around: null }, 'b', false, all)).toEqual(['a', 'c']);
    expect(withConfiguration(own('a', 'c'), 'b', true, all)).toBeNull();
    // One that is gone from the suite does not stay behind.
    expect(withConfiguration(own('a', 'gone'), 'b', true, all)).toEqual(['a', 'b']);
    // Within a part that runs in some, all of them is something to say, and those of the part are nothing.
    expect(withConfiguration({ own: ['a', 'b'], around: ['a'] }, 'c', true, all)).toEqual(['a', 'b', 'c']);
    expect(withConfiguration({ own: ['a', 'b'], around: ['a'] }, 'b', false, all)).toBeNull();
  });

  test('of its own project a suite runs is not carried to another', () => {
    const { configurations, entries } = withTargets({ kind: 'suite', content: { ...EMPTY_SUITE, configurations: ['k1'], entries: [inOnly(part('p'), 'k1'), inOnly(member('C-1'), 'k1')] } }, { id: (id) => id, version: (_, version) => version }).content;
    expect([configurations, entries]).toEqual([[], [part('p'), member('C-1')]]);
  });
});

test('figures count who is there and not withdrawn; minutes that nobody said are told and not guessed', () => {
  const none = { counts: NO_ITEMS, weighted: NO_ITEMS, byTechnique: perTechnique(() => NO_ITEMS), byRisk: { high: { items: 0, shown: 0, elsewhere: 0 }, medium: { items: 0, shown: 0, elsewhere: 0 }, low: { items: 0, shown: 0, elsewhere: 0 } }, requirements: [] };
  const known: MemberFacts = { state: 'draft', version: 1, head: 2, execution: 'byHand', instances: 1, minutes: 5 };
  const members = suiteMembers({ entries: [member('C-1'), member('C-2'), member('C-3'), member('F-1/1'), member('C-4')] }, new Map());
  const facts = new Map<CoveringId, MemberFacts>([['C-1', { ...known, instances: 2 }], ['C-2', { ...known, state: 'withdrawn' }], ['F-1/1', { ...known, execution: 'automated', minutes: null, instances: 4 }], ['C-4', known]]);
  const figures = suiteFigures(members, [], facts, [{ of: 'C-1', on: 'C-4' }, { of: 'C-4', on: 'C-1' }, { of: 'C-4', on: 'C-2' }, { of: 'C-2', on: 'C-9' }], { ...none, cases: [{ id: 'C-1', counts: { instances: 3, steps: 9 }, shows: 2, alone: 1 }] });
  expect(figures).toMatchObject({ cases: 2, scenarios: 1, instances: 8, byHand: 2, minutes: 20, withoutMinutes: 1, broken: [{ of: 'C-1', on: 'C-4', why: 'later' }, { of: 'C-4', on: 'C-2', why: 'absent' }] });
  expect(figures.members.map((m) => [m.of, m.facts?.instances ?? null, m.shows])).toEqual([['C-1', 3, 2], ['C-2', 1, 0], ['C-3', null, 0], ['F-1/1', 4, 0], ['C-4', 1, 0]]);
  // C-1 in both configurations, F-1/1 in one, C-4 in none of them, so that it counts nowhere: 3 × 2 + 4 instances.
  const runsIn: Readonly<Record<string, string[]>> = { 'F-1/1': ['k2'], 'C-4': ['k9'] };
  const inTwo = suiteFigures(members.map((m) => ({ ...m, runsIn: runsIn[m.of] ?? null })), ['k1', 'k2'], facts, [{ of: 'C-1', on: 'C-4' }], { ...none, cases: [{ id: 'C-1', counts: { instances: 3, steps: 9 }, shows: 2, alone: 1 }] });
  expect(inTwo).toMatchObject({ cases: 1, scenarios: 1, instances: 10, minutes: 30, withoutMinutes: 1, broken: [{ of: 'C-1', on: 'C-4', why: 'absent' }] });
  expect(thatRun(inTwo.members, ['k1', 'k2']).map((m) => m.of)).toEqual(['C-1', 'C-2', 'C-3', 'F-1/1']);
  expect(inTwo.members.map((m) => m.times)).toEqual([2, 2, 2, 1, 0]);
});
