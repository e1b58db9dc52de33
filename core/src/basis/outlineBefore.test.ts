import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { RequirementId } from '../artefacts/index.ts';
import { makesCircle, movedPlaces, orderOutline, outlineBefore, type MoveMade, type OutlinePlace } from './index.ts';

const R = (n: number) => `R-${n}` as RequirementId;
const inOrder = (places: readonly OutlinePlace[]) => orderOutline(places).map(({ place, depth }) => `${'  '.repeat(depth)}${place.id}`);

test('moves taken back one by one lead to the outline of before, whatever was made or numbered anew meanwhile', () => {
  const act = fc.oneof(
    fc.record({ does: fc.constant('move' as const), id: fc.integer({ min: 1, max: 6 }), below: fc.integer({ min: 0, max: 6 }), after: fc.integer({ min: 0, max: 6 }) }),
    fc.record({ does: fc.constant('make' as const) }),
    fc.record({ does: fc.constant('renumber' as const) }),
  );
  fc.assert(
    fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
      const first: OutlinePlace[] = [1, 2, 3, 4, 5, 6].map((n) => ({ id: R(n), parent: n > 3 ? R(1) : null, position: n }));
      let places = first;
      let made = 6;
      const moves: MoveMade<RequirementId>[] = [];
      const siblingsOf = (parent: RequirementId | null) => orderOutline(places).map((e) => e.place).filter((p) => p.parent === parent);
      for (const a of acts) {
        if (a.does === 'make') places = movedPlaces([...places, { id: R((made += 1)), parent: null, position: 0 }], R(made), { parent: null, after: null });
        else if (a.does === 'renumber') places = orderOutline(places).map(({ place }, i) => ({ ...place, position: 10 * (i + 1) }));
        else {
          const [id, parent] = [R(a.id), a.below === 0 ? null : R(a.below)];
          if (makesCircle(places, id, parent)) continue;
          const self = places.find((p) => p.id === id)!;
          const own = siblingsOf(self.parent);
          moves.push({ id, from: { parent: self.parent, position: self.position, after: own[own.indexOf(self) - 1]?.id ?? null } });
          places = movedPlaces(places, id, { parent, after: siblingsOf(parent).find((p) => p.id === R(a.after) && p.id !== id)?.id ?? null });
        }
      }
      const now = orderOutline(places).map((e) => e.place);
      expect(inOrder(outlineBefore(now, moves).filter((p) => Number(p.id.slice(2)) <= 6))).toEqual(inOrder(first));
    }),
    { numRuns: 500 },
  );
});

test('a place kept by its number alone is found as well as can be', () => {
  const now = [R(3), R(1), R(2)].map((id) => ({ id, parent: null }));
  expect(outlineBefore(now, [{ id: R(3), from: { parent: null, position: 3 } }]).map((p) => p.id)).toEqual([R(1), R(2), R(3)]);
});
