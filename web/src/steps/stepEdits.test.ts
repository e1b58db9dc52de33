import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CASE, parsePastedSteps, plainStep, stepId, type CaseContent, type Step, type StepId } from '@caderno/core/cases';
import { freshSteps, insertStep, insertSteps, moveSteps, newUse, removeSteps, withStep, writtenSteps, type StepsEdit } from './stepEdits.ts';

const step = (id: string, action = `do ${id}`, expected = ''): Step => plainStep(stepId(id), action, expected);
const content = (...steps: Step[]): CaseContent => ({ ...EMPTY_CASE, steps });
const ids = (c: CaseContent): string => c.steps.map((s) => s.id).join('');
const edited = (c: CaseContent, edit: StepsEdit): CaseContent => edit(c);

test('steps are put in after one, or first; moved past one another, and not beyond the ends; taken away', () => {
  const three = content(step('a'), step('b'), step('c'));
  expect(ids(edited(three, insertStep(stepId('b'), step('x'))))).toBe('abxc');
  expect(ids(edited(three, insertStep(null, step('x'))))).toBe('xabc');
  expect(ids(edited(three, moveSteps([stepId('b')], -1)))).toBe('bac');
  expect(edited(three, moveSteps([stepId('a')], -1))).toBe(three);
  expect(edited(three, moveSteps([stepId('gone')], 1))).toBe(three);
  expect(ids(edited(three, removeSteps([stepId('b')])))).toBe('ac');
});

test('any moves keep every step, once', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c', 'd'), fc.constantFrom(-1 as const, 1 as const)), { maxLength: 12 }), (moves) => {
      const after = moves.reduce((c, [id, direction]) => edited(c, moveSteps([stepId(id)], direction)), content(...['a', 'b', 'c', 'd'].map((id) => step(id))));
      expect([...ids(after)].sort().join('')).toBe('abcd');
      // A move and its reverse lead back.
      for (const [id, direction] of moves) if (edited(after, moveSteps([stepId(id)], direction)) !== after) expect(edited(edited(after, moveSteps([stepId(id)], direction)), moveSteps([stepId(id)], direction === 1 ? -1 : 1))).toEqual(after);
    }),
  );
});

test('pasted steps take the place of an empty one, and stand after one that says something', () => {
  const pasted = writtenSteps(parsePastedSteps('1. Open the form\n2. Save => It is stored'));
  expect(pasted.map((s) => [s.action, s.expected])).toEqual([['Open the form', ''], ['Save', 'It is stored']]);
  expect(edited(content(step('a'), step('e', '')), insertSteps(stepId('e'), pasted)).steps.map((s) => (s.kind === 'step' ? s.action : ''))).toEqual(['do a', 'Open the form', 'Save']);
  expect(edited(content(step('a')), insertSteps(stepId('a'), pasted)).steps).toHaveLength(3);
  expect(ids(edited(content(step('e', '')), insertSteps(stepId('e'), [])))).toBe('e');
  expect(ids(edited(content(step('e', '', 'only expected')), insertSteps(stepId('e'), [step('x')])))).toBe('ex');
});

test('a part is written into a step of its kind alone; what is used first takes the caller’s values', () => {
  const call = newUse('C-3');
  const both = content(step('a'), call);
  expect(edited(both, withStep(call.id, 'call', { pinned: 2 })).steps[1]).toMatchObject({ kind: 'call', case: 'C-3', pinned: 2, rows: { kind: 'mine' } });
  expect(edited(both, withStep(call.id, 'step', { action: 'lost' })).steps).toEqual(both.steps);
  expect(newUse('S-2')).toMatchObject({ kind: 'shared', shared: 'S-2', pinned: null, arguments: [] });
});

test('several steps move one place together and apart; those at the end stay; copies have ids of their own', () => {
  const five = content(...['a', 'b', 'c', 'd', 'e'].map((id) => step(id)));
  const of = (...letters: string[]): StepId[] => letters.map(stepId);
  expect(ids(edited(five, moveSteps(of('b', 'c'), -1)))).toBe('bcade');
  expect(ids(edited(five, moveSteps(of('b', 'd'), 1)))).toBe('acbed');
  expect(ids(edited(five, moveSteps(of('a', 'c'), -1)))).toBe('acbde');
  expect(edited(five, moveSteps(of('d', 'e'), 1))).toBe(five);
  const copies = freshSteps(five.steps);
  expect(copies.map((s) => (s.kind === 'step' ? s.action : ''))).toEqual(five.steps.map((s) => (s.kind === 'step' ? s.action : '')));
  expect(copies.some((s) => five.steps.some((other) => other.id === s.id))).toBe(false);
});
