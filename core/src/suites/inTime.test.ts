import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { artefactId } from '../artefacts/index.ts';
import { entriesInOrder, entryId, inTimeProblem, membersInOrder, riskCurve, suiteMembers, type ShowingMember, type ShowingMembers, type SuiteEntry } from './index.ts';

const C = (n: number) => artefactId('case', n);
const part = (id: string, rule = false, depth = 1): SuiteEntry => ({ kind: 'part', id: entryId(id), title: id, depth, rule: rule ? { of: 'cases', asks: 'x', pinned: null } : null, runsIn: null });
const pick = (n: number): SuiteEntry => ({ kind: 'member', id: entryId(`m${n}`), of: C(n), pinned: n, runsIn: null });
const words = (entries: readonly SuiteEntry[]) => entries.map((e) => (e.kind === 'part' ? `${e.title}.${e.depth}` : e.of)).join(' ');

/** A suite with what its members show: its rule finds C-8 and C-9. */
const ENTRIES = [pick(1), pick(2), part('bills'), pick(3), part('late', false, 2), pick(4), pick(5), part('rule', true, 2)];
const shows: Readonly<Record<number, readonly [minutes: number | null, items: readonly number[], setUp?: string]>> = { 1: [10, [0]], 2: [1, [1]], 3: [5, []], 4: [9, [2], 'dry'], 5: [null, [3], 'dry'], 8: [1, [0]], 9: [1, [3]] };
function showingOf(entries: readonly SuiteEntry[], needs: ShowingMembers['needs'] = []): ShowingMembers {
  const members = suiteMembers({ entries }, new Map([[entryId('rule'), [C(8), C(9)]]])).map(({ of, entry, part: at }): ShowingMember => {
    const [minutes, items, setUp] = shows[Number(of.slice(2))] ?? [null, []];
    return { of, instances: of === C(5) ? 2 : 1, minutes, times: 1, kept: entry === null, part: at, setUp: setUp ?? null, items };
  });
  return { weights: [9, 9, 3, 1], members, needs };
}

describe('the order in which most risk is shown soonest', () => {
  test('stays within parts and leaves to rules what is theirs; or goes over all that was picked by hand', () => {
    const showing = showingOf(ENTRIES);
    expect(membersInOrder(showing, { inParts: true, together: false }).join(' ')).toBe('C-2 C-1 C-3 C-5 C-4 C-8 C-9');
    const whole = membersInOrder(showing, { inParts: false, together: false });
    expect(whole.join(' ')).toBe('C-2 C-1 C-5 C-4 C-3 C-8 C-9');
    expect(words(entriesInOrder(ENTRIES, whole, { inParts: false }))).toBe('C-2 C-1 C-5 C-4 C-3 rule.1');
    expect(membersInOrder(showingOf(ENTRIES, [{ of: C(2), on: C(4) }]), { inParts: false, together: false }).join(' ')).toBe('C-4 C-2 C-1 C-5 C-3 C-8 C-9');
  });

  test('the suite written in that order has that order, keeps every member with its pin, and what was added meanwhile comes last', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([1, 2, 3, 4, 5]), fc.boolean(), fc.boolean(), fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 3 }), (numbers, inParts, together, headings) => {
        const entries = [...new Set(headings)].reduce<SuiteEntry[]>((list, id, i) => [...list.slice(0, 2 * i), part(id), ...list.slice(2 * i)], [...numbers.map(pick), part('rule', true)]);
        const order = membersInOrder(showingOf(entries), { inParts, together });
        const next = entriesInOrder(entries, order, { inParts });
        expect(showingOf(next).members.map((m) => m.of)).toEqual(order);
        const picked = (list: readonly SuiteEntry[]) => list.filter((e) => e.kind === 'member').toSorted((a, b) => a.id.localeCompare(b.id));
        expect(picked(next)).toEqual(picked(entries));
        if (inParts) expect(next.filter((e) => e.kind === 'part')).toEqual(entries.filter((e) => e.kind === 'part'));
        const late = entriesInOrder([...entries, pick(7)], order, { inParts });
        expect(inParts ? late.at(-1) : late.filter((e) => e.kind === 'member').at(-1)).toEqual(pick(7));
      }),
    );
  });

  test('the curve goes by minutes of all instances, one for each of which nobody said any', () => {
    expect(riskCurve(showingOf(ENTRIES), [C(2), C(5), C(8), C(77)])).toEqual([{ cost: 0, shown: 0 }, { cost: 1_000, shown: 9 }, { cost: 3_000, shown: 10 }, { cost: 4_000, shown: 19 }]);
  });

  test('out of their parts members run where they ran, and so do parts that a rule keeps', () => {
    const where = (entries: readonly SuiteEntry[], ...ids: string[]) => entries.map((e) => (e.id === entryId('bills') ? { ...e, runsIn: ids } : e));
    const loose = entriesInOrder(where(ENTRIES, 'k1'), [C(5), C(4), C(3), C(1), C(2)], { inParts: false });
    expect(loose.map((e) => [e.kind === 'part' ? e.title : e.of, e.runsIn])).toEqual([[C(5), ['k1']], [C(4), ['k1']], [C(3), ['k1']], [C(1), null], [C(2), null], ['rule', ['k1']]]);
    // Within their parts nothing is said anew.
    expect(entriesInOrder(where(ENTRIES, 'k1'), [C(2), C(1)], { inParts: true }).filter((e) => e.runsIn !== null).map((e) => e.id)).toEqual(['bills']);
  });
});

test('what fits in some minutes is asked for with all that stays by a rule', () => {
  const { candidates, limit, items, weights } = inTimeProblem(showingOf(ENTRIES, [{ of: C(1), on: C(3) }]), 7.5, true);
  expect({ limit, items, weights: weights.length, kept: candidates.map((c) => c.kept), needs: candidates[0]?.needs }).toEqual({ limit: 7_500, items: 4, weights: 4, kept: [false, false, false, false, false, true, true], needs: [2] });
  expect(inTimeProblem(showingOf(ENTRIES), 7.5, false).candidates.some((c) => c.kept)).toBe(false);
});
