import { expect, test } from '@jest/globals';
import { STANDINGS } from '@caderno/core/coverage';
import { TECHNIQUES } from '@caderno/core/conditions';
import fc from 'fast-check';
import type { Summary } from './kinds/index.ts';
import { packHeads, packRows, rowFromWire, toWire, unpackHeads, unpackRows } from './log.ts';

const common = fc.record({ title: fc.string(), state: fc.constantFrom('draft' as const, 'withdrawn' as const), version: fc.integer({ min: 1, max: 9 }), meaningSince: fc.constant(1), agreed: fc.constantFrom(null, 1), module: fc.constantFrom('', 'm'), author: fc.constant('a'), at: fc.constant('2026-01-01T00:00:00Z'), broken: fc.boolean(), own: fc.dictionary(fc.constantFrom('f1', 'f2'), fc.oneof(fc.string(), fc.array(fc.string()))) });
const number = fc.integer({ min: 1, max: 999_999_999 });
const head: fc.Arbitrary<Summary> = fc.oneof(
  fc.tuple(common, number, fc.option(number), fc.constantFrom('high' as const, 'low' as const)).map(([c, n, parent, risk]): Summary => ({ kind: 'requirement', id: `R-${n}`, ...c, parent: parent === null ? null : `R-${parent}`, position: n, type: 'rule', sourceId: '', risk, priority: risk })),
  fc.tuple(common, number, fc.array(number)).map(([c, n, of]): Summary => ({ kind: 'condition', id: `K-${n}`, ...c, model: 'plain', polarity: 'both', risk: null, depths: [], requirements: of.map((r): `R-${number}` => `R-${r}`) })),
  fc.tuple(common, number, fc.array(fc.string()), fc.option(fc.double({ min: 0, max: 9, noNaN: true }))).map(([c, n, tags, estimate]): Summary => ({ kind: 'case', id: `C-${n}`, ...c, priority: 'low', tags, owner: '', caseKind: 'charter', execution: 'automated', steps: n, expected: 0, rows: 3, dataSet: n % 2 === 0 ? null : `D-${n}`, estimate: estimate === null ? null : estimate + 0, covers: [`K-${n}`] })),
  fc.tuple(common, number).map(([c, n]): Summary => ({ kind: 'shared', id: `S-${n}`, ...c, tags: [], steps: 0, parameters: ['p'], phrases: [{ phrase: 'a {}', takes: ['p', null] }] })),
);
const overWire = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

test('heads come out of their columns as they went in', () => {
  fc.assert(
    fc.property(fc.array(head, { maxLength: 20 }), (heads) => {
      const back = unpackHeads(overWire(packHeads(heads)));
      const sorted = (list: readonly Summary[]) => overWire([...list]).sort((a, b) => `${a.kind} ${JSON.stringify(a)}`.localeCompare(`${b.kind} ${JSON.stringify(b)}`));
      expect(sorted(back)).toEqual(sorted(heads));
    }),
  );
});

test('coverage rows come out as they went in, and techniques that are all alike take one digit', () => {
  const item = fc.tuple(fc.constantFrom(...STANDINGS), fc.constantFrom(...TECHNIQUES));
  fc.assert(
    fc.property(fc.array(item), number, (items, n) => {
      const row = { kind: 'condition' as const, id: `K-${n}` as const, weight: 3, standings: items.map(([s]) => s), techniques: items.map(([, t]) => t) };
      const other = { kind: 'case' as const, id: `C-${n}` as const, shows: true, counts: n % 2 === 0 ? null : { instances: n, steps: 2 } };
      expect(unpackRows(overWire(packRows([row, other].map(toWire))))).toEqual([row, other]);
      expect(rowFromWire(overWire(toWire(row)))).toEqual(row);
    }),
  );
  expect(toWire({ kind: 'condition', id: 'K-1', weight: 1, standings: ['gap', 'shown'], techniques: ['plain', 'plain'] })).toMatchObject({ standings: '53', techniques: '5' });
});

test('a table that is none of ours is refused: another kind, a column too short, a field that is missing or wrong', () => {
  const shared: Summary = { kind: 'shared', id: 'S-1', title: 't', state: 'draft', version: 1, meaningSince: 1, agreed: null, module: '', author: 'a', at: '2026-01-01T00:00:00Z', broken: false, own: {}, tags: [], steps: 1, parameters: [], phrases: [] };
  const [table] = packHeads([shared, { ...shared, id: 'S-2' }]);
  const { title, ...untitled } = table!.columns;
  expect(unpackHeads([table!])).toHaveLength(2);
  expect(title).toEqual({ same: 't' });
  for (const columns of [{ ...table!.columns, kind: { same: 'user' } }, { ...table!.columns, id: { each: ['S-1'] } }, untitled, { ...table!.columns, id: { each: ['S-1', 'C-2'] } }, { ...table!.columns, kind: { each: ['shared', 'case'] } }]) expect(() => unpackHeads([{ length: 2, columns }])).toThrow();
  expect(() => unpackRows([{ length: 1, columns: { kind: { same: 'condition' }, id: { same: 'K-1' }, weight: { same: 1 }, standings: { same: '9' }, techniques: { same: '0' } } }])).toThrow();
});
