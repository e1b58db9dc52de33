import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ConditionId } from '../artefacts/index.ts';
import { inChecklistOrder, parseChecklist, reordered } from './index.ts';

test('lines become entries: indentation nests, bullets go, signs say the polarity', () => {
  const text = ['Receipt', '  - dated', '\t* ! in the future', '  2. stamped (positive)', '', '[ ] + Message', '    1.1) deep', '  [x] less deep'].join('\n');
  expect(parseChecklist(text)).toEqual([
    { title: 'Receipt', polarity: 'both', under: null },
    { title: 'dated', polarity: 'both', under: 0 },
    { title: 'in the future', polarity: 'negative', under: 1 },
    { title: 'stamped', polarity: 'positive', under: 0 },
    { title: 'Message', polarity: 'positive', under: null },
    { title: 'deep', polarity: 'both', under: 4 },
    { title: 'less deep', polarity: 'both', under: 4 },
  ]);
  expect(parseChecklist(Array(700).fill('x').join('\n'))).toHaveLength(500);
});

const k = (n: number, under: number | null, order = 0) => ({ id: `K-${n}` as ConditionId, content: { under: under === null ? null : (`K-${under}` as ConditionId), order } });
const drawn = (list: ReturnType<typeof k>[]) => inChecklistOrder(list).map(({ condition, level }) => `${'  '.repeat(level)}${condition.id}`);
const moved = (list: ReturnType<typeof k>[], n: number, move: 'up' | 'down' | 'in' | 'out') => {
  const changes = new Map(reordered(list, `K-${n}`, move).map((c) => [c.condition.id, c]));
  return list.map((c) => ({ ...c, content: { under: changes.get(c.id)?.under ?? (changes.has(c.id) ? null : c.content.under), order: changes.get(c.id)?.order ?? c.content.order } }));
};

test('a condition moves up, down, in and out', () => {
  const list = [k(1, null), k(2, null), k(3, 2), k(4, 2)];
  expect(drawn(list)).toEqual(['K-1', 'K-2', '  K-3', '  K-4']);
  expect(drawn(moved(list, 4, 'up'))).toEqual(['K-1', 'K-2', '  K-4', '  K-3']);
  expect(drawn(moved(list, 2, 'up'))).toEqual(['K-2', '  K-3', '  K-4', 'K-1']);
  expect(drawn(moved(list, 2, 'in'))).toEqual(['K-1', '  K-2', '    K-3', '    K-4']);
  expect(drawn(moved(list, 3, 'out'))).toEqual(['K-1', 'K-2', '  K-4', 'K-3']);
  expect(reordered(list, 'K-1', 'up')).toEqual([]);
  expect(reordered(list, 'K-1', 'in')).toEqual([]);
});

test('every condition stands once in the order, whatever circles and strangers there are; down takes back up', () => {
  const any = fc.array(fc.record({ under: fc.option(fc.integer({ min: 1, max: 9 })), order: fc.nat(3) }), { minLength: 1, maxLength: 7 }).map((list) => list.map(({ under, order }, i) => k(i + 1, under, order)));
  let ups = 0;
  fc.assert(
    fc.property(any, fc.integer({ min: 1, max: 7 }), (list, n) => {
      expect(inChecklistOrder(list).map((l) => l.condition.id).sort()).toEqual(list.map((c) => c.id).sort());
      if (reordered(list, `K-${n}`, 'up').length === 0) return;
      ups += 1;
      expect(drawn(moved(moved(list, n, 'up'), n, 'down'))).toEqual(drawn(list));
    }),
  );
  expect(ups).toBeGreaterThan(10);
});
