import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ARTEFACT_STATES } from '../artefacts/index.ts';
import { stepsBack, type BackStep, type PresentStanding } from './index.ts';

const state = fc.constantFrom(...ARTEFACT_STATES);
const version = fc.integer({ min: 1, max: 3 });
const standing = fc.record({ version, state, isThere: fc.boolean() });

/** What a step does, said once more and plainly. */
function after(now: PresentStanding, step: BackStep, was: { version: number } | null): PresentStanding {
  if (step === 'remake') return { ...now, isThere: true };
  if (step === 'return') return { ...now, state: 'draft' };
  if (step === 'withdraw') return { ...now, state: 'withdrawn' };
  return { ...now, version: was?.version ?? 0 };
}

test('after the steps it is there exactly where it was, in the version of then; nothing that is so already is touched, and nothing becomes agreed', () => {
  fc.assert(
    fc.property(fc.option(fc.record({ version, state })), standing, (was, now) => {
      const steps = stepsBack(was, now);
      const then = steps.reduce((s, step) => after(s, step, was), now);
      const wasActive = was !== null && was.state !== 'withdrawn';
      expect(then.isThere && then.state !== 'withdrawn').toBe(wasActive);
      if (wasActive) expect(then.version).toBe(was.version);
      expect(stepsBack(was, then)).toEqual([]);
      expect(steps).toHaveLength(new Set(steps).size);
      if (now.state !== 'agreed') expect(then.state).not.toBe('agreed');
    }),
  );
});
