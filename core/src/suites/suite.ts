import type { CoveringId, Pin } from '../artefacts/index.ts';
import { NO_OWN, type OwnValues } from '../fields/index.ts';
import type { Configuration } from '../shared/index.ts';
import type { RunsIn } from './runsIn.ts';

export type EntryId = string & { readonly __brand: 'EntryId' };

/** The one maker of ids of entries. */
export function entryId(text: string): EntryId {
  return text as EntryId;
}

/** What keeps a part of a suite filled: a query over cases, or a tag expression over scenarios. */
export interface SuiteRule {
  readonly of: 'cases' | 'scenarios';
  readonly asks: string;
  /** Whether what it finds is meant as it was agreed last, or as it is now (null). */
  readonly pinned: Exclude<Pin, number>;
}

/** Parts within parts: 1 is the outermost. */
export const DEEPEST_PART = 4;

/** A heading: what follows belongs to it, up to the next heading of its depth or one further out. */
export interface SuitePart {
  readonly kind: 'part';
  readonly id: EntryId;
  readonly title: string;
  /** From 1 to {@link DEEPEST_PART}. */
  readonly depth: number;
  /** What it finds comes behind the members that were picked by hand. Null: they all were. */
  readonly rule: SuiteRule | null;
  readonly runsIn: RunsIn;
}

/** A case or a scenario, picked by hand. A pin of a scenario is one to a version of its feature. */
export interface SuiteMember {
  readonly kind: 'member';
  readonly id: EntryId;
  readonly of: CoveringId;
  readonly pinned: Pin;
  readonly runsIn: RunsIn;
}

/** A line of a suite. */
export type SuiteEntry = SuitePart | SuiteMember;

/** What a version of a suite holds: an ordered choice of cases and scenarios in headed parts. */
export interface SuiteContent {
  readonly title: string;
  /** What it is chosen for. */
  readonly purpose: string;
  /** Where it stands among the others: names parted by `/`; empty: at the top. */
  readonly folder: string;
  readonly entries: readonly SuiteEntry[];
  /** Those of the project in which it is executed; none: once, whatever there is. */
  readonly configurations: readonly Configuration['id'][];
  readonly module: string;
  /** Display name of a member; empty: nobody. */
  readonly owner: string;
  readonly tags: readonly string[];
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

export const EMPTY_SUITE: SuiteContent = { title: '', purpose: '', folder: '', entries: [], configurations: [], module: '', owner: '', tags: [], own: NO_OWN };

/** The members that were picked by hand, in their order. */
export function pickedMembers({ entries }: Pick<SuiteContent, 'entries'>): SuiteMember[] {
  return entries.flatMap((entry) => (entry.kind === 'member' ? [entry] : []));
}
