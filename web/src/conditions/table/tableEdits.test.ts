import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { DecisionTableModel } from '@caderno/core/conditions';
import { addAction, addCondition, addRule, moveRule, newTable, removeRule, setAction, setEntry, toggleImpossible, valueTyped, withoutLine } from './tableEdits.ts';

type Edit = (model: DecisionTableModel) => DecisionTableModel;

/** An edit that is told by places: of lines and rules as they are when it is made. */
const anyEdit: fc.Arbitrary<Edit> = fc.tuple(fc.constantFrom('condition', 'action', 'without', 'rule', 'removeRule', 'move', 'entry', 'outcome', 'impossible'), fc.nat(5), fc.nat(5)).map(([what, a, b]) => (model) => {
  const rule = model.rules[a % Math.max(1, model.rules.length)];
  const condition = model.conditions[b % Math.max(1, model.conditions.length)];
  const action = model.actions[b % Math.max(1, model.actions.length)];
  switch (what) {
    case 'condition':
      return addCondition(model);
    case 'action':
      return addAction(model);
    case 'without':
      return withoutLine((a % 2 === 0 ? condition : action)?.id ?? '')(model);
    case 'rule':
      return addRule(a, b % 2 === 0 ? rule : undefined)(model);
    case 'removeRule':
      return removeRule(rule?.id ?? '')(model);
    case 'move':
      return moveRule(a, b)(model);
    case 'entry':
      return condition === undefined ? model : setEntry(rule?.id ?? '', condition.id, a % 2 === 0 ? [] : [condition.values[0]?.id ?? ''])(model);
    case 'outcome':
      return action === undefined ? model : setAction(rule?.id ?? '', action.id, a % 2 === 0 ? '' : 'done')(model);
    default:
      return toggleImpossible(rule?.id ?? '')(model);
  }
});

test('whatever is edited, no rule speaks of a line or a value that is gone, ids do not repeat, and an impossible rule does nothing', () => {
  let removed = 0;
  fc.assert(
    fc.property(fc.array(anyEdit, { maxLength: 20 }), (edits) => {
      const model = edits.reduce((m, edit) => edit(m), newTable());
      const values = new Map(model.conditions.map((c) => [c.id as string, new Set(c.values.map((v) => v.id))]));
      const actions = new Set(model.actions.map((a) => a.id));
      for (const rule of model.rules) {
        for (const [condition, chosen] of Object.entries(rule.entries)) {
          expect(chosen.length).toBeGreaterThan(0);
          for (const value of chosen) expect(values.get(condition)?.has(value)).toBe(true);
        }
        expect(Object.keys(rule.actions).filter((a) => !actions.has(a))).toEqual([]);
        expect(Object.values(rule.actions)).not.toContain('');
      }
      expect(new Set(model.rules.map((r) => r.id)).size).toBe(model.rules.length);
      if (model.conditions.length < 2) removed += 1;
    }),
  );
  expect(removed).toBeGreaterThan(0);
});

test('a rule said impossible loses what it did; moved beyond the ends it stays', () => {
  const table = newTable();
  const [first] = table.rules;
  const [action] = table.actions;
  const done = setAction(first?.id ?? '', action?.id ?? '', 'paid')(table);
  expect(toggleImpossible(first?.id ?? '')(done).rules[0]).toMatchObject({ impossible: true, actions: {} });
  expect(moveRule(0, 2)(table)).toBe(table);
  expect(moveRule(0, 1)(table).rules.map((r) => r.id)).toEqual([table.rules[1]?.id, first?.id]);
});

test('typing the same letter goes on to the next value that begins with it', () => {
  const condition = { ...newTable().conditions[0]!, values: ['A', 'AB', 'b', 'abc'].map((value) => ({ id: value, value, aliases: [] })) };
  expect([[], ['A'], ['AB'], ['abc'], ['b']].map((entry) => valueTyped(condition, entry, 'a'))).toEqual(['A', 'AB', 'abc', 'A', 'A']);
  expect(valueTyped(condition, [], 'x')).toBeNull();
});
