import { NO_OWN, type OwnValues } from '../fields/index.ts';
import type { Parameter, ParameterId, Step } from '../cases/index.ts';

/** A phrase of scenarios that says in short what shared steps say in full. */
export interface DetailedPhrase {
  /** Its own, so that changes of several people are told apart. */
  readonly id: string;
  /** The key of the phrase. */
  readonly phrase: string;
  /** For each value of the phrase, in their order, the parameter that takes it; null: none does. */
  readonly values: readonly (ParameterId | null)[];
}

/** What a version of shared steps holds: steps written once, to be used in many cases. */
export interface SharedContent {
  readonly title: string;
  /** What they are for, and what holds when they are done. */
  readonly purpose: string;
  readonly steps: readonly Step[];
  readonly parameters: readonly Parameter[];
  /** The phrases whose detail they are. */
  readonly phrases: readonly DetailedPhrase[];
  readonly module: string;
  readonly tags: readonly string[];
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

export const EMPTY_SHARED: SharedContent = { title: '', purpose: '', steps: [], parameters: [], phrases: [], module: '', tags: [], own: NO_OWN };

/** The part whose change makes trace links to them suspect. */
export function sharedMeaning({ title, purpose, steps, parameters, phrases }: SharedContent): unknown {
  // What was written before phrases had their detail means what it meant.
  return phrases.length === 0 ? [title, purpose, steps, parameters] : [title, purpose, steps, parameters, phrases];
}
