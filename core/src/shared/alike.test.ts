import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { plainStep, stepId, type Step } from '../cases/index.ts';
import { findAlike, type Alike } from './index.ts';
import { C, newUse } from './testGraphs.ts';
import { likeness, wordsOf } from './wordsOfSteps.ts';

function alikeIn(cases: readonly (readonly Step[])[]): Alike {
  const search = findAlike(cases.map((steps, i) => ({ id: C(i + 1), content: { steps } })));
  for (let next = search.next(); ; next = search.next()) if (next.done === true) return next.value;
}

const written = (...actions: string[]): Step[] => actions.map((action, i) => plainStep(stepId(`s${i}`), action));

test('a run that stands in several cases is told once, as long as all its places allow; a longer one of fewer places besides', () => {
  const run = ['Open the big old ledger of the office', 'Enter the reading of meter <meter> at noon', 'Press Send and wait for the receipt'];
  const nearly = ['Open the big old ledger of an office', 'Enter the reading of meter <meter> at night', 'Press Send and wait for a receipt'];
  const { runs, cases } = alikeIn([written('Sign in', ...run, 'Sign out'), written('Wait', 'Sign in', ...nearly), written('Look', 'Around', ...run, 'Sign out now')]);
  expect(runs).toEqual([
    { length: 3, places: [{ id: C(1), steps: ['s1', 's2', 's3'] }, { id: C(2), steps: ['s2', 's3', 's4'] }, { id: C(3), steps: ['s2', 's3', 's4'] }] },
    // In two of them it is longer.
    { length: 4, places: [{ id: C(1), steps: ['s0', 's1', 's2', 's3'] }, { id: C(2), steps: ['s1', 's2', 's3', 's4'] }] },
  ]);
  expect(cases).toEqual([{ first: C(1), second: C(2), likeness: 0.8 }]);
});

test('cases that are nearly the same are told as a pair; uses are alike to uses of the same only', () => {
  const steps = [...written('Open the ledger', 'Enter 5 into the field', 'Send it off'), newUse('u', 1)];
  const { cases } = alikeIn([steps, [...steps.slice(0, 3), newUse('u', 2), newUse('v', 1)], written('Something else', 'That is', 'Not alike')]);
  expect(cases).toEqual([{ first: C(1), second: C(2), likeness: 8 / 9 }]);
});

test('what a third case shares only the beginning of is told whole for the two that share it all', () => {
  const all = ['Open', 'Read', 'Write', 'Wait', 'Send', 'Close'];
  expect(alikeIn([written(...all), written(...all), written('Open', 'Read', 'Write', 'Leave')]).runs.map((r) => [r.length, r.places.map((p) => p.id)])).toEqual([[6, [C(1), C(2)]], [3, [C(1), C(2), C(3)]]]);
});

test('a run does not overlap itself', () => {
  const same = written(...Array.from({ length: 7 }, () => 'again and again'));
  expect(alikeIn([same]).runs).toEqual([{ length: 3, places: [{ id: C(1), steps: ['s0', 's1', 's2'] }, { id: C(1), steps: ['s3', 's4', 's5'] }] }]);
});

test('on random cases of a few words: each run told stands where it is said to, and any three equal steps are within one', () => {
  const action = fc.constantFrom('open the door', 'close the window', 'wait', 'sing a very long song', 'sing a very long tune', 'enter <x>');
  let told = 0;
  fc.assert(
    fc.property(fc.array(fc.array(action, { minLength: 2, maxLength: 8 }).map((list) => written(...list)), { minLength: 2, maxLength: 5 }), (all) => {
      const { runs, cases } = alikeIn(all);
      told += runs.length;
      expect(new Set(runs.map((r) => JSON.stringify(r))).size).toBe(runs.length);
      const stepsAt = (place: { id: string; steps: readonly string[] }): Step[] => place.steps.flatMap((id) => all[Number(place.id.slice(2)) - 1]?.filter((s) => s.id === id) ?? []);
      for (const run of runs) {
        const [first = [], ...others] = run.places.map(stepsAt);
        expect(first).toHaveLength(run.length);
        // Each differs in a word at most from the first of its group.
        for (const other of others) other.forEach((step, i) => expect(isLike(step, first[i], 0.5)).toBe(true));
      }
      // Judge: any three steps that stand word for word in two cases are told within some run, here or where they stand too.
      const windows = all.flatMap((steps, c) => steps.slice(0, -2).map((_, at) => ({ id: C(c + 1), steps: steps.slice(at, at + 3), text: JSON.stringify(steps.slice(at, at + 3).map((s) => s.kind === 'step' && s.action)) })));
      const texts = runs.flatMap((r) => r.places.map(stepsAt));
      for (const window of windows) {
        if (!windows.some((w) => w.text === window.text && w.id !== window.id)) continue;
        expect(texts.some((steps) => steps.some((_, at) => at + 3 <= steps.length && window.steps.every((step, i) => isLike(step, steps[at + i], 0.5))))).toBe(true);
      }
      for (const pair of cases) expect(pair.likeness).toBeGreaterThanOrEqual(0.8);
    }),
    { seed: 21, numRuns: 1000 },
  );
  expect(told).toBeGreaterThan(50);
});

function isLike(a: Step, b: Step | undefined, least: number): boolean {
  return a.kind === 'step' && b?.kind === 'step' && likeness(wordsOf(a), wordsOf(b)) >= least;
}
