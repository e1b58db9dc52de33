import type { PinOf } from '../artefacts/index.ts';
import { isUse, usedBy, type Step } from './step.ts';

/** The steps with each use pinned as is said of what it uses; the same list when none is another. */
export function stepsWithPins(steps: readonly Step[], pinOf: PinOf): readonly Step[] {
  const made = steps.map((step) => {
    const pinned = isUse(step) ? pinOf(usedBy(step), step.pinned) : null;
    return isUse(step) && pinned !== step.pinned ? { ...step, pinned } : step;
  });
  return made.some((step, i) => step !== steps[i]) ? made : steps;
}
