import type { ConditionId } from '../artefacts/index.ts';
import type { ConditionContent, Polarity } from './condition.ts';

/** A line of a pasted checklist. */
export interface ChecklistEntry {
  readonly title: string;
  readonly polarity: Polarity;
  /** Place of the entry it stands below, among the entries; null: below none. */
  readonly under: number | null;
}

export const MOST_CHECKLIST_ENTRIES = 500;
const LONGEST_TITLE = 300;

/** Bullets, numbers and boxes before an entry: `- `, `* `, `1.2) `, `[x] `. */
const BULLET = /^(?:[-*•–]\s+|\d+(?:\.\d+)*[.)]\s+)?(?:\[[ xX]?\]\s+)?/;

/**
 * The entries of a text, one a line: deeper indentation stands below the line before it, bullets and numbering are
 * taken off, `+` and `!` before the words (or `(positive)`, `(negative)` after them) say the polarity. Empty lines are
 * passed over; what is beyond {@link MOST_CHECKLIST_ENTRIES} is not read.
 */
export function parseChecklist(text: string): ChecklistEntry[] {
  const entries: ChecklistEntry[] = [];
  const open: { indent: number; at: number }[] = [];
  for (const line of text.split(/\r?\n/)) {
    if (line.trim() === '' || entries.length === MOST_CHECKLIST_ENTRIES) continue;
    const indent = /^\s*/.exec(line.replaceAll('\t', '    '))?.[0].length ?? 0;
    while ((open.at(-1)?.indent ?? -1) >= indent) open.pop();
    entries.push({ ...readEntry(line.trim()), under: open.at(-1)?.at ?? null });
    open.push({ indent, at: entries.length - 1 });
  }
  return entries;
}

function readEntry(line: string): Pick<ChecklistEntry, 'title' | 'polarity'> {
  const words = line.replace(BULLET, '');
  const sign = /^([+!])\s*(?=\S)/.exec(words)?.[1];
  const said = /\s*\((positive|negative)\)$/i.exec(words)?.[1]?.toLowerCase();
  const polarity = sign === '!' || said === 'negative' ? 'negative' : sign === '+' || said === 'positive' ? 'positive' : 'both';
  const title = words.replace(/^[+!]\s*(?=\S)/, '').replace(/\s*\((positive|negative)\)$/i, '');
  return { title: title.slice(0, LONGEST_TITLE), polarity };
}

interface Placed {
  readonly id: ConditionId;
  readonly content: Pick<ConditionContent, 'under' | 'order'>;
}

function siblingOrder(a: Placed, b: Placed): number {
  return a.content.order - b.content.order || Number(a.id.slice(2)) - Number(b.id.slice(2));
}

/**
 * Conditions as a checklist is read: each followed by those below it, with its depth from 0. One that stands below a
 * condition that is not among them, or below itself, stands below none.
 */
export function inChecklistOrder<P extends Placed>(conditions: readonly P[]): { readonly condition: P; readonly level: number }[] {
  const byId = new Map(conditions.map((c) => [c.id, c]));
  const below = new Map<ConditionId | null, P[]>();
  for (const condition of conditions) {
    const under = isBelowItself(condition, byId) || !byId.has(condition.content.under ?? condition.id) ? null : condition.content.under;
    below.set(under, [...(below.get(under) ?? []), condition]);
  }
  const from = (under: ConditionId | null, level: number): { condition: P; level: number }[] =>
    (below.get(under) ?? []).toSorted(siblingOrder).flatMap((condition) => [{ condition, level }, ...from(condition.id, level + 1)]);
  return from(null, 0);
}

function isBelowItself(condition: Placed, byId: ReadonlyMap<ConditionId, Placed>): boolean {
  const seen = new Set<ConditionId>([condition.id]);
  for (let at = condition.content.under; at !== null; at = byId.get(at)?.content.under ?? null) {
    if (seen.has(at)) return true;
    seen.add(at);
  }
  return false;
}

/**
 * Moves a condition one place up or down among those below the same, or one level out or in (below the one before
 * it); answers the places that change. Empty when it can go no further.
 */
export function reordered<P extends Placed>(conditions: readonly P[], id: ConditionId, move: 'up' | 'down' | 'in' | 'out'): { readonly condition: P; readonly under: ConditionId | null; readonly order: number }[] {
  const lines = inChecklistOrder(conditions);
  const at = lines.findIndex((l) => l.condition.id === id);
  const own = lines[at];
  if (own === undefined) return [];
  const parentOf = (line: number): ConditionId | null => lines.slice(0, line).findLast((l) => l.level < (lines[line]?.level ?? 0))?.condition.id ?? null;
  const under = parentOf(at);
  const siblings = lines.flatMap((l, i) => (parentOf(i) === under ? [l.condition] : []));
  const place = siblings.indexOf(own.condition);
  const asPlaces = (list: readonly P[], below: ConditionId | null) => list.flatMap((condition, order) => (condition.content.order === order && condition.content.under === below ? [] : [{ condition, under: below, order }]));
  if (move === 'up' || move === 'down') {
    const to = move === 'up' ? place - 1 : place + 1;
    if (to < 0 || to >= siblings.length) return [];
    const others = siblings.filter((c) => c !== own.condition);
    return asPlaces([...others.slice(0, to), own.condition, ...others.slice(to)], under);
  }
  const newParent = move === 'in' ? siblings[place - 1]?.id : under === null ? undefined : parentOf(lines.findIndex((l) => l.condition.id === under));
  if (newParent === undefined) return [];
  const there = lines.flatMap((l, i) => (parentOf(i) === newParent ? [l.condition] : []));
  const after = move === 'in' ? there.length : there.findIndex((c) => c.id === under) + 1;
  return asPlaces([...there.slice(0, after), own.condition, ...there.slice(after)], newParent);
}
