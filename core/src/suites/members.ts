import type { CoveringId, Pin } from '../artefacts/index.ts';
import type { RunsIn } from './runsIn.ts';
import type { EntryId, SuiteContent, SuiteEntry, SuitePart } from './suite.ts';

/** A case or scenario that is in a suite, once, wherever it was picked or found first. */
export interface FoundMember {
  readonly of: CoveringId;
  readonly pinned: Pin;
  /** The entry that it was picked with; null: a rule found it. */
  readonly entry: EntryId | null;
  /** The part it stands in; null: it stands before the first. */
  readonly part: EntryId | null;
  /** As it says itself, or the innermost part around it that says so; null: in all. */
  readonly runsIn: RunsIn;
}

/** What rules find, by the part that has the rule. */
export type RulesFind = ReadonlyMap<EntryId, readonly CoveringId[]>;

/**
 * The members of a suite in its order: in each part those picked by hand, then what its rule finds. Who was picked by hand anywhere is there and
 * nowhere else; what several rules find is where the first of them is.
 */
export function suiteMembers({ entries }: Pick<SuiteContent, 'entries'>, found: RulesFind): FoundMember[] {
  const members: FoundMember[] = [];
  const seen = new Set<CoveringId>();
  const picked = new Set(entries.flatMap((entry) => (entry.kind === 'member' ? [entry.of] : [])));
  let within: readonly SuitePart[] = [];
  const closePart = (): void => {
    const part = within.at(-1);
    if (part?.rule == null) return;
    for (const of of found.get(part.id) ?? []) {
      if (picked.has(of) || seen.has(of)) continue;
      seen.add(of);
      members.push({ of, pinned: part.rule.pinned, entry: null, part: part.id, runsIn: runsInOf(within) });
    }
  };
  for (const entry of entries) {
    if (entry.kind === 'part') {
      closePart();
      within = [...around(within, entry), entry];
    } else if (!seen.has(entry.of)) {
      seen.add(entry.of);
      members.push({ of: entry.of, pinned: entry.pinned, entry: entry.id, part: within.at(-1)?.id ?? null, runsIn: entry.runsIn ?? runsInOf(within) });
    }
  }
  closePart();
  return members;
}

/** Where an entry runs that says nothing of itself: in those of the innermost part around it that says so; null: in all. */
export function runsInAround(entries: readonly SuiteEntry[], id: EntryId): RunsIn {
  let within: readonly SuitePart[] = [];
  for (const entry of entries) {
    const isPart = entry.kind === 'part';
    if (entry.id === id) return runsInOf(isPart ? around(within, entry) : within);
    if (isPart) within = [...around(within, entry), entry];
  }
  return null;
}

/** Those of the parts that a part stands in, from the outermost. */
function around(within: readonly SuitePart[], { depth }: SuitePart): SuitePart[] {
  return within.filter((part) => part.depth < depth);
}

function runsInOf(within: readonly SuitePart[]): RunsIn {
  return within.findLast((part) => part.runsIn !== null)?.runsIn ?? null;
}

/** The parts of a suite that have a rule. */
export function partsWithRules(entries: readonly SuiteEntry[]): (SuitePart & { readonly rule: NonNullable<SuitePart['rule']> })[] {
  return entries.flatMap((entry) => (entry.kind === 'part' && entry.rule !== null ? [{ ...entry, rule: entry.rule }] : []));
}
