import type { ArtefactId } from '../artefacts/index.ts';
import { isUse, usedBy, type Step } from './step.ts';

/** Whether a step is pinned to a version of something that is behind the latest. */
export function isBehind(step: Step, id: ArtefactId, latest: number): boolean {
  return isUse(step) && usedBy(step) === id && step.pinned !== null && step.pinned < latest;
}

/** The steps with all pinned uses of something moved on to its latest version; the same list when there is none. */
export function withPinsMoved(steps: readonly Step[], id: ArtefactId, latest: number): readonly Step[] {
  return steps.some((s) => isBehind(s, id, latest)) ? steps.map((s) => (isBehind(s, id, latest) ? { ...s, pinned: latest } : s)) : steps;
}
