import type { CoveringId, Pin } from '../artefacts/index.ts';
import { DEEPEST_PART, type EntryId, type SuiteEntry, type SuitePart } from './suite.ts';

type Entries = readonly SuiteEntry[];

/** Where the part that begins at a place ends: before the next heading of its depth or further out. A member ends behind itself. */
export function endOfEntry(entries: Entries, at: number): number {
  const first = entries[at];
  if (first === undefined) return at;
  if (first.kind === 'member') return at + 1;
  const next = entries.findIndex((entry, i) => i > at && entry.kind === 'part' && entry.depth <= first.depth);
  return next < 0 ? entries.length : next;
}

/** With more members, each once: at the end of the part with an id, before the parts in it, or of the whole (null). What is there already stays where it is. */
export function withMembers(entries: Entries, of: readonly CoveringId[], part: EntryId | null, newId: () => EntryId): Entries {
  const there = new Set(entries.flatMap((entry) => (entry.kind === 'member' ? [entry.of] : [])));
  const added = [...new Set(of)].flatMap((id): SuiteEntry[] => (there.has(id) ? [] : [{ kind: 'member', id: newId(), of: id, pinned: null, runsIn: null }]));
  if (added.length === 0) return entries;
  const at = part === null ? entries.length : endOfMembers(entries, part);
  return [...entries.slice(0, at), ...added, ...entries.slice(at)];
}

function endOfMembers(entries: Entries, part: EntryId): number {
  const from = entries.findIndex((entry) => entry.id === part);
  if (from < 0) return entries.length;
  const next = entries.findIndex((entry, i) => i > from && entry.kind === 'part');
  return next < 0 ? entries.length : next;
}

/** Without some entries. Of a part only its heading goes: its members come to stand in what is above it. */
export function withoutEntries(entries: Entries, gone: ReadonlySet<EntryId>): Entries {
  return entries.filter((entry) => !gone.has(entry.id));
}

/**
 * With another in the place of a member, as when the one was merged into the other; where the other is in it already, there. One that stays with a
 * version stays: that version is still the one that was meant.
 */
export function withMemberMoved(entries: Entries, from: CoveringId, to: CoveringId): Entries {
  let isThere = entries.some((entry) => entry.kind === 'member' && entry.of === to);
  return entries.flatMap((entry) => {
    if (entry.kind === 'part' || entry.of !== from || typeof entry.pinned === 'number') return [entry];
    if (isThere) return [];
    isThere = true;
    return [{ ...entry, of: to }];
  });
}

/**
 * An entry moved up or down by one: a member over the line beside it, a part with all that is in it over the part beside it, of its depth.
 * The very same where there is nowhere to go.
 */
export function entryMoved(entries: Entries, id: EntryId, by: 1 | -1): Entries {
  const at = entries.findIndex((entry) => entry.id === id);
  const moved = entries[at];
  if (moved === undefined) return entries;
  const end = endOfEntry(entries, at);
  if (by === 1) {
    const next = entries[end];
    if (next === undefined || (moved.kind === 'part' && (next.kind !== 'part' || next.depth < moved.depth))) return entries;
    const over = moved.kind === 'member' ? end + 1 : endOfEntry(entries, end);
    return [...entries.slice(0, at), ...entries.slice(end, over), ...entries.slice(at, end), ...entries.slice(over)];
  }
  const before = moved.kind === 'member' ? at - 1 : partBefore(entries, at, moved);
  return before < 0 ? entries : [...entries.slice(0, before), ...entries.slice(at, end), ...entries.slice(before, at), ...entries.slice(end)];
}

/** Where the part of the same depth before one begins; -1: there is none. */
function partBefore(entries: Entries, at: number, { depth }: SuitePart): number {
  for (let i = at - 1; i >= 0; i -= 1) {
    const entry = entries[i];
    if (entry?.kind === 'part' && entry.depth <= depth) return entry.depth === depth ? i : -1;
  }
  return -1;
}

/** An entry, a part with all that is in it, put before another one, or at the end (null); the very same where that is within itself. */
export function entryPutBefore(entries: Entries, id: EntryId, before: EntryId | null): Entries {
  const at = entries.findIndex((entry) => entry.id === id);
  if (at < 0 || before === id) return entries;
  const end = endOfEntry(entries, at);
  const block = entries.slice(at, end);
  if (before !== null && block.some((entry) => entry.id === before)) return entries;
  const rest = [...entries.slice(0, at), ...entries.slice(end)];
  const to = before === null ? rest.length : rest.findIndex((entry) => entry.id === before);
  return to < 0 || to === at ? entries : [...rest.slice(0, to), ...block, ...rest.slice(to)];
}

/** A part with those in it set further in or out; the very same where the deepest or the outermost is there. */
export function partSetIn(entries: Entries, id: EntryId, by: 1 | -1): Entries {
  const at = entries.findIndex((entry) => entry.id === id);
  if (entries[at]?.kind !== 'part') return entries;
  const end = endOfEntry(entries, at);
  const fits = entries.slice(at, end).every((entry) => entry.kind === 'member' || (entry.depth + by >= 1 && entry.depth + by <= DEEPEST_PART));
  return fits ? entries.map((entry, i) => (i >= at && i < end && entry.kind === 'part' ? { ...entry, depth: entry.depth + by } : entry)) : entries;
}

/** With what a member means set. */
export function withEntryPinned(entries: Entries, id: EntryId, pinned: Pin): Entries {
  return entries.map((entry) => (entry.id === id && entry.kind === 'member' ? { ...entry, pinned } : entry));
}
