import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Pin } from '../artefacts/index.ts';
import { usersOf, usesOf, type ReusableId, type UseEdge } from './index.ts';
import { C, S } from './testGraphs.ts';

const ids: readonly ReusableId[] = [S(1), S(2), S(3), C(1), C(2), C(3), C(4)];
const edges = fc.uniqueArray(fc.record({ from: fc.constantFrom(...ids), to: fc.constantFrom(...ids), pinned: fc.constantFrom<Pin[]>(null, null, 1, 2, 'agreed') }), { maxLength: 14, selector: (e) => `${e.from} ${e.to}` });

/** The judge: every way of up to seven uses, step by step. */
function ways(all: readonly UseEdge[], from: ReusableId): Map<ReusableId, { distance: number; follows: boolean }> {
  const found = new Map<ReusableId, { distance: number; follows: boolean }>();
  let ends = [{ at: from, follows: true }];
  for (let distance = 1; distance <= ids.length; distance += 1) {
    ends = ends.flatMap(({ at, follows }) => all.filter((e) => e.to === at).map((e) => ({ at: e.from, follows: follows && e.pinned === null })));
    for (const { at, follows } of ends) {
      const before = found.get(at);
      found.set(at, { distance: before?.distance ?? distance, follows: (before?.follows ?? false) || follows });
    }
    ends = [...new Map(ends.map((e) => [`${e.at} ${String(e.follows)}`, e])).values()];
  }
  found.delete(from);
  return found;
}

test('users, their distance and what a change reaches equal every way gone by hand; uses are the same seen from the other end', () => {
  let reached = 0;
  fc.assert(
    fc.property(edges, fc.constantFrom(...ids), (all, id) => {
      const users = usersOf(all, id);
      expect(new Map(users.map((u) => [u.id, { distance: u.distance, follows: u.follows }]))).toEqual(ways(all, id));
      expect(users.map((u) => u.distance)).toEqual(users.map((u) => u.distance).toSorted((a, b) => a - b));
      for (const user of users) expect(usesOf(all, user.id).map((u) => u.id)).toContain(id);
      for (const user of users.filter((u) => u.distance === 1)) expect(user.pinned).toBe(all.find((e) => e.from === user.id && e.to === id)?.pinned);
      reached += users.length;
    }),
    { numRuns: 300 },
  );
  expect(reached).toBeGreaterThan(200);
});
