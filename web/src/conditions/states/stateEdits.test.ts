import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { transitionId, type StateTransitionsModel } from '@caderno/core/conditions';
import { addState, makeInitial, newStates, removeTransition, textOf, withoutState, writeTransition } from './stateEdits.ts';

type Edit = (model: StateTransitionsModel) => StateTransitionsModel;
const name = fc.constantFrom('Active', 'Closed', 'First state', 'pays', 'leaves');

const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.tuple(fc.constantFrom('t1', 't2', 't3'), name, name, name, fc.constantFrom('', 'paid in full'), fc.nat(3)).map(([id, from, event, to, guard, after]): Edit => writeTransition(transitionId(id), { from, event, guard, to, action: '' }, after)),
  fc.nat(4).map((at): Edit => (model) => removeTransition(model.transitions[at]?.id ?? transitionId('none'))(model)),
  fc.nat(4).map((at): Edit => (model) => { const state = model.states[at]; return state === undefined ? model : withoutState(state.id)(model); }),
  fc.nat(4).map((at): Edit => (model) => { const state = model.states[at]; return state === undefined ? model : makeInitial(state.id)(model); }),
  fc.constant(addState),
);

test('whatever is edited, transitions lead between states that are there, by events that are there, and names are not doubled', () => {
  let transitions = 0;
  fc.assert(
    fc.property(fc.array(anyEdit, { maxLength: 20 }), (edits) => {
      const model = edits.reduce((m, edit) => edit(m), newStates());
      const [states, events] = [model.states.map((s) => s.id), model.events.map((e) => e.id)];
      for (const t of model.transitions) {
        expect(states).toContain(t.from);
        expect(states).toContain(t.to);
        expect(events).toContain(t.event);
      }
      expect(model.states.filter((s) => s.initial).length).toBeLessThanOrEqual(1);
      expect(new Set(model.events.map((e) => e.name)).size).toBe(model.events.length);
      transitions += model.transitions.length;
    }),
  );
  expect(transitions).toBeGreaterThan(50);
});

test('a transition is written as it is typed and reads so again; its event goes with the last one that has it', () => {
  const typed = { from: 'Active', event: 'bill overdue', guard: '60 days', to: 'Restricted', action: 'send a notice' };
  const model = writeTransition(transitionId('t'), typed, -1)(newStates());
  const [written] = model.transitions;
  expect(written && textOf(model, written)).toEqual(typed);
  expect(model.states.map((s) => s.name)).toEqual(['First state', 'Second state', 'Active', 'Restricted']);
  const renamed = writeTransition(transitionId('t'), { ...typed, event: 'overdue' }, -1)(model);
  expect(renamed.events.map((e) => e.name)).toEqual(['something happens', 'overdue']);
  expect(renamed.transitions).toHaveLength(2);
  expect(removeTransition(transitionId('t'))(renamed).events.map((e) => e.name)).toEqual(['something happens']);
});
