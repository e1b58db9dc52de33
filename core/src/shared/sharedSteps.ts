import { NO_OWN, type OwnValues } from '../fields/index.ts';
import type { Parameter, Step } from '../cases/index.ts';

/** What a version of shared steps holds: steps written once, to be used in many cases. */
export interface SharedContent {
  readonly title: string;
  /** What they are for, and what holds when they are done. */
  readonly purpose: string;
  readonly steps: readonly Step[];
  readonly parameters: readonly Parameter[];
  readonly module: string;
  readonly tags: readonly string[];
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

export const EMPTY_SHARED: SharedContent = { title: '', purpose: '', steps: [], parameters: [], module: '', tags: [], own: NO_OWN };

/** The part whose change makes trace links to them suspect. */
export function sharedMeaning({ title, purpose, steps, parameters }: SharedContent): unknown {
  return [title, purpose, steps, parameters];
}
