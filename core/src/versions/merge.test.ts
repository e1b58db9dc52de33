import { expect, test, describe } from '@jest/globals';
import fc from 'fast-check';
import { mergeContent, type Json } from './index.ts';

const step = (id: string, action = id, expected = '') => ({ id, action, expected });
const base = { title: 'T', steps: [step('a'), step('b'), step('c')], tags: ['x'] };

describe('one side only', () => {
  test('fields changed on one side each are both taken', () => {
    expect(mergeContent(base, { ...base, title: 'mine' }, { ...base, tags: ['y'] })).toEqual({ content: { ...base, title: 'mine', tags: ['y'] }, conflicts: [] });
  });
  test('steps changed, added and moved on different sides are all taken', () => {
    const mine = { ...base, steps: [step('a', 'a!'), step('b'), step('new'), step('c')] };
    const theirs = { ...base, steps: [step('c'), step('a'), step('b', 'b', 'then')] };
    expect(mergeContent(base, mine, theirs)).toEqual({ content: { ...base, steps: [step('c'), step('a', 'a!'), step('b', 'b', 'then'), step('new')] }, conflicts: [] });
  });
  test('both parts of one step, one by each', () => {
    const { content, conflicts } = mergeContent({ s: [step('a')] }, { s: [step('a', 'mine')] }, { s: [step('a', 'a', 'theirs')] });
    expect([content, conflicts]).toEqual([{ s: [step('a', 'mine', 'theirs')] }, []]);
  });
});

test('a third text settles a conflict too', () => {
  const { content, conflicts } = mergeContent(base, { ...base, title: 'mine' }, { ...base, title: 'theirs' }, new Map([['title', { own: 'of both' }]]));
  expect([content, conflicts]).toEqual([{ ...base, title: 'of both' }, []]);
});

describe('both changed the same', () => {
  const mine = { ...base, title: 'mine', steps: [step('a', 'mine'), step('b')] };
  const theirs = { ...base, title: 'theirs', steps: [step('a', 'theirs'), step('b'), step('c', 'c!')] };
  test('conflicts name the place and both sides; mine stands meanwhile', () => {
    const { content, conflicts } = mergeContent(base, mine, theirs);
    expect(conflicts.map((c) => [c.path, c.mine, c.theirs])).toEqual([
      ['title', 'mine', 'theirs'],
      ['steps/a/action', 'mine', 'theirs'],
      ['steps/c', undefined, step('c', 'c!')],
    ]);
    expect(content).toMatchObject({ title: 'mine', steps: [step('a', 'mine'), step('b')] });
  });
  test('choices settle them', () => {
    const { content, conflicts } = mergeContent(base, mine, theirs, new Map([['title', 'theirs'], ['steps/a/action', 'mine'], ['steps/c', 'theirs']]));
    expect([content, conflicts]).toEqual([{ ...base, title: 'theirs', steps: [step('a', 'mine'), step('b'), step('c', 'c!')] }, []]);
  });
  test('two different orders of one list are a conflict', () => {
    const order = (...ids: string[]) => ({ s: ids.map((id) => step(id)) });
    expect(mergeContent(order('a', 'b', 'c'), order('b', 'a', 'c'), order('a', 'c', 'b')).conflicts.map((c) => c.path)).toEqual(['s/(order)']);
  });
});

const element = fc.record({ id: fc.constantFrom('1', '2', '3', '4'), t: fc.constantFrom('x', 'y') });
const arbitrary: fc.Arbitrary<Json> = fc.record({ t: fc.constantFrom('x', 'y', 'z'), list: fc.uniqueArray(element, { selector: (e) => e.id, maxLength: 4 }) });

test('laws: one-sided changes win, equal changes agree, no element is doubled', () => {
  fc.assert(
    fc.property(arbitrary, arbitrary, arbitrary, (b, m, t) => {
      expect(mergeContent(b, m, b)).toEqual({ content: m, conflicts: [] });
      expect(mergeContent(b, b, t)).toEqual({ content: t, conflicts: [] });
      expect(mergeContent(b, m, m)).toEqual({ content: m, conflicts: [] });
      const { content } = mergeContent(b, m, t) as unknown as { content: { list: { id: string }[] } };
      const ids = content.list.map((e) => e.id);
      expect(new Set(ids).size).toBe(ids.length);
    }),
  );
});

/** The plain order: what the leading side lacks is put, one after the other, behind the nearest one before it that is there. */
function plainOrder(base: readonly string[], mine: readonly string[], theirs: readonly string[]): string[] {
  const moved = (side: readonly string[]) => base.filter((id) => side.includes(id)).join() !== side.filter((id) => base.includes(id)).join();
  const [leading, other] = moved(theirs) && !moved(mine) ? [theirs, mine] : [mine, theirs];
  const order = [...leading];
  other.forEach((id, i) => {
    if (order.includes(id)) return;
    const neighbour = other.slice(0, i).reverse().find((before) => order.includes(before));
    order.splice(neighbour === undefined ? 0 : order.indexOf(neighbour) + 1, 0, id);
  });
  // Whoever removed what the other left as it was wins.
  return order.filter((id) => !base.includes(id) || (mine.includes(id) && theirs.includes(id)));
}

test('the order of a merged list is the plain one', () => {
  const idList = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 8 });
  let inserted = 0;
  fc.assert(
    fc.property(idList, idList, idList, (b, m, t) => {
      const list = (order: readonly string[]) => ({ s: order.map((id) => step(id)) });
      const { content, conflicts } = mergeContent(list(b), list(m), list(t));
      fc.pre(conflicts.length === 0);
      const order = (content as unknown as { s: { id: string }[] }).s.map((e) => e.id);
      expect(order).toEqual(plainOrder(b, m, t));
      if (order.length > Math.max(m.length, t.length)) inserted += 1;
    }),
    { numRuns: 600 },
  );
  expect(inserted).toBeGreaterThan(20);
});

test('rows by the ten thousand are merged in a moment', () => {
  const rows = (n: number, change: (i: number) => string) => ({ rows: Array.from({ length: n }, (_, i) => ({ id: `r${i}`, cells: { a: change(i) } })) });
  const merge = (n: number): number => {
    const [base, mine, theirs] = [rows(n, String), rows(n, (i) => (i % 2 === 0 ? `m${i}` : String(i))), rows(n + 500, (i) => (i % 2 === 1 ? `t${i}` : String(i)))];
    const began = performance.now();
    expect(mergeContent(base, mine, { rows: theirs.rows.toReversed() }).conflicts).toEqual([]);
    return performance.now() - began;
  };
  const best = (n: number): number => Math.min(merge(n), merge(n), merge(n));
  // Twenty times as much takes about twenty times as long; four hundred times with a look through the list for each row.
  expect(best(20_000) / best(1_000)).toBeLessThan(100);
});
