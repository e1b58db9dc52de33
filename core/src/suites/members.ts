import type { CoveringId, Pin } from '../artefacts/index.ts';
import type { EntryId, SuiteContent, SuiteEntry, SuitePart } from './suite.ts';

/** A case or scenario that is in a suite, once, wherever it was picked or found first. */
export interface FoundMember {
  readonly of: CoveringId;
  readonly pinned: Pin;
  /** The entry that it was picked with; null: a rule found it. */
  readonly entry: EntryId | null;
  /** The part it stands in; null: it stands before the first. */
  readonly part: EntryId | null;
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
  let part: SuitePart | null = null;
  const closePart = (): void => {
    if (part?.rule == null) return;
    for (const of of found.get(part.id) ?? []) {
      if (picked.has(of) || seen.has(of)) continue;
      seen.add(of);
      members.push({ of, pinned: part.rule.pinned, entry: null, part: part.id });
    }
  };
  for (const entry of entries) {
    if (entry.kind === 'part') {
      closePart();
      part = entry;
    } else if (!seen.has(entry.of)) {
      seen.add(entry.of);
      members.push({ of: entry.of, pinned: entry.pinned, entry: entry.id, part: part?.id ?? null });
    }
  }
  closePart();
  return members;
}

/** The parts of a suite that have a rule. */
export function partsWithRules(entries: readonly SuiteEntry[]): (SuitePart & { readonly rule: NonNullable<SuitePart['rule']> })[] {
  return entries.flatMap((entry) => (entry.kind === 'part' && entry.rule !== null ? [{ ...entry, rule: entry.rule }] : []));
}
