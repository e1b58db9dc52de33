import type { ArtefactState } from '../artefacts/index.ts';
import type { Frozen } from './baseline.ts';

/**
 * One step of bringing an artefact back to how a baseline holds it: made again after its making was undone, its content
 * of then as a new version, a draft again after it was withdrawn, or withdrawn as it was not there then.
 */
export type BackStep = 'remake' | 'content' | 'return' | 'withdraw';

/** How an artefact is now. `isThere`: its making was not undone. */
export interface PresentStanding {
  readonly version: number;
  readonly state: ArtefactState;
  readonly isThere: boolean;
}

/**
 * What it takes to have an artefact as it was, in order; none when it is so. `was` null: it was not there. Who agreed to
 * what stays with the versions: what comes back is a draft, whatever it was.
 */
export function stepsBack(was: Pick<Frozen, 'version' | 'state'> | null, now: PresentStanding): readonly BackStep[] {
  const isActive = now.isThere && now.state !== 'withdrawn';
  if (was === null || was.state === 'withdrawn') return isActive ? ['withdraw'] : [];
  const steps: BackStep[] = [];
  if (!now.isThere) steps.push('remake');
  if (now.version !== was.version) steps.push('content');
  if (now.state === 'withdrawn') steps.push('return');
  return steps;
}
