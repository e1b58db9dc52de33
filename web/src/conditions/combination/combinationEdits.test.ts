import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CombinationModel } from '@caderno/core/conditions';
import { addFactor, makeBase, newCombination, setGroup, withValue, withoutFactor } from './combinationEdits.ts';

type Edit = (model: CombinationModel) => CombinationModel;

const anyEdit: fc.Arbitrary<Edit> = fc.tuple(fc.constantFrom('add', 'without', 'group', 'base', 'invalid'), fc.nat(4), fc.integer({ min: 1, max: 6 })).map(([what, at, size]) => (model) => {
  const factor = model.factors[at % Math.max(1, model.factors.length)];
  if (what === 'add') return addFactor(model);
  if (what === 'group') return setGroup(model.factors.slice(at).map((f) => f.id), size)(model);
  if (factor === undefined) return model;
  const value = factor.values[size % factor.values.length]?.id ?? '';
  return what === 'without' ? withoutFactor(factor.id)(model) : what === 'base' ? makeBase(factor.id, value)(model) : withValue(factor.id, value, { valid: false })(model);
});

test('whatever is edited, groups hold two factors at least that are there, and a factor has one base at most', () => {
  let groups = 0;
  fc.assert(
    fc.property(fc.array(anyEdit, { maxLength: 15 }), (edits) => {
      const model = edits.reduce((m, edit) => edit(m), newCombination());
      const factors = model.factors.map((f) => f.id);
      for (const group of model.groups) {
        expect(group.factors.length).toBeGreaterThan(1);
        expect(group.factors.filter((f) => !factors.includes(f))).toEqual([]);
      }
      for (const factor of model.factors) expect(factor.values.filter((v) => v.base).length).toBeLessThanOrEqual(1);
      expect(new Set(factors).size).toBe(factors.length);
      groups += model.groups.length;
    }),
  );
  expect(groups).toBeGreaterThan(0);
});
