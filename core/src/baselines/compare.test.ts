import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ARTEFACT_STATES } from '../artefacts/index.ts';
import { byId, compareFrozen, type Frozen, type FrozenChange } from './index.ts';

const item = (id: Frozen['id'], version: number, more: Partial<Frozen> = {}): Frozen => ({ id, version, meaningSince: version, state: 'draft', title: id, module: '', ...more });

test('added, changed in meaning or not, stood otherwise, gone; in working order', () => {
  const before = [item('C-2', 1), item('C-10', 3), item('R-1', 2), item('K-4', 1, { state: 'withdrawn' }), item('S-1', 1), item('D-1', 4)];
  const after = [item('C-2', 2, { meaningSince: 1 }), item('C-10', 5), item('R-1', 2, { state: 'agreed' }), item('K-4', 2), item('S-1', 2, { state: 'withdrawn' }), item('D-1', 4)];
  const shown = (changes: FrozenChange[]) => changes.map((c) => [c.kind, c.kind === 'gone' ? c.from.id : c.to.id, c.kind === 'changed' ? c.meant : null]);
  expect(shown(compareFrozen(before, after))).toEqual([['state', 'R-1', null], ['added', 'K-4', null], ['changed', 'C-2', false], ['changed', 'C-10', true], ['gone', 'S-1', null]]);
});

const moment = fc.uniqueArray(
  fc.record({ n: fc.integer({ min: 1, max: 6 }), version: fc.integer({ min: 1, max: 4 }), since: fc.integer({ min: 1, max: 4 }), state: fc.constantFrom(...ARTEFACT_STATES) }),
  { selector: (i) => i.n },
).map((items) => items.map(({ n, version, since, state }) => item(n % 2 === 0 ? `R-${n}` : `C-${n}`, version, { meaningSince: Math.min(since, version), state })));

/** A moment with changes made to it; what is withdrawn is left out on both sides. */
function changed(before: readonly Frozen[], changes: readonly FrozenChange[]): Frozen[] {
  const items = new Map(before.filter((i) => i.state !== 'withdrawn').map((i) => [i.id, i]));
  for (const change of changes) {
    if (change.kind === 'gone') items.delete(change.from.id);
    else items.set(change.to.id, change.to);
  }
  return [...items.values()].sort((a, b) => byId(a.id, b.id));
}

function backwards(change: FrozenChange): FrozenChange {
  if (change.kind === 'added') return { kind: 'gone', from: change.to };
  if (change.kind === 'gone') return { kind: 'added', to: change.from };
  return { ...change, from: change.to, to: change.from };
}

test('backwards it is the same the other way round, one after the other it comes to the whole, and of the same nothing', () => {
  fc.assert(
    fc.property(moment, moment, moment, (a, b, c) => {
      const active = (items: readonly Frozen[]) => changed(items, []);
      expect(compareFrozen(b, a)).toEqual(compareFrozen(a, b).map(backwards));
      // What differs in neither version nor state differs in nothing that is told.
      const told = (items: readonly Frozen[]) => items.map(({ id, version, state }) => [id, version, state]);
      expect(told(changed(changed(a, compareFrozen(a, b)), compareFrozen(b, c)))).toEqual(told(active(c)));
      expect(compareFrozen(a, a)).toEqual([]);
    }),
  );
});
