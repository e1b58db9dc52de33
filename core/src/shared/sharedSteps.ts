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
}

export const EMPTY_SHARED: SharedContent = { title: '', purpose: '', steps: [], parameters: [], module: '', tags: [] };

/** The part whose change makes trace links to them suspect. */
export function sharedMeaning({ title, purpose, steps, parameters }: SharedContent): unknown {
  return [title, purpose, steps, parameters];
}
