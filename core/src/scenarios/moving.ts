import { lineId, textOf, type FeatureContent, type FeaturePart, type PartId } from './feature.ts';
import type { NewId } from './identities.ts';
import { languageOf, readFeature } from './reading.ts';
import { withLinksSettled, withWrittenFor } from './writtenFor.ts';

/** A part that another may change places with: the head and a background stay where they are. */
const MOVES: ReadonlySet<FeaturePart['kind']> = new Set(['scenario']);

/**
 * The feature with a scenario one place further up (-1) or down (1), into the rule above or out of its own where it
 * stands at its edge; the very same where there is no such place. Lines keep their order within; blank lines between stay between.
 */
export function withMoved(content: FeatureContent, id: PartId, by: -1 | 1, newId: NewId): FeatureContent {
  const at = content.parts.findIndex((p) => p.id === id);
  const part = content.parts[at];
  const neighbour = content.parts[at + by];
  if (part === undefined || !MOVES.has(part.kind) || neighbour === undefined || neighbour.kind === 'head' || neighbour.kind === 'background') return content;
  // Above the first rule stands what belongs to no rule; a scenario that passes a rule changes sides.
  const parts = content.parts.toSpliced(at, 1).toSpliced(at + by, 0, part);
  return { ...content, parts: parted(content.parts, parts, newId) };
}

/** The feature with a scenario in front of another part of it, which is where it is dropped; null: at the end. The very same where it cannot stand there. */
export function withPlaced(content: FeatureContent, id: PartId, before: PartId | null, newId: NewId): FeatureContent {
  const part = content.parts.find((p) => p.id === id);
  const others = content.parts.filter((p) => p.id !== id);
  const at = before === null ? others.length : others.findIndex((p) => p.id === before);
  if (part === undefined || !MOVES.has(part.kind) || at < 0 || (others[at] !== undefined && others[at].kind !== 'scenario' && others[at].kind !== 'rule')) return content;
  const parts = others.toSpliced(at, 0, part);
  return parts.every((p, i) => p === content.parts[i]) ? content : { ...content, parts: parted(content.parts, parts, newId) };
}

/**
 * Two features, with a scenario of the first at the end of the second, or above its first rule, with all that is its
 * own and what it covers; it gets a number there when it is saved. What stood above it does not come along: tags and
 * backgrounds of the feature and the rule. Null: it is no scenario of the first, or the languages are not the same.
 */
export function movedToFeature(from: FeatureContent, to: FeatureContent, id: PartId, newId: NewId): { readonly from: FeatureContent; readonly to: FeatureContent } | null {
  const part = from.parts.find((p) => p.id === id);
  if (part === undefined || !MOVES.has(part.kind) || languageOf(readFeature(textOf(from))) !== languageOf(readFeature(textOf(to)))) return null;
  // What the scenario itself is written for goes along; what its feature is written for stays with that.
  const own = from.requirements.filter((r) => r.parts.includes(id));
  const linked = own.reduce((content, cover) => withWrittenFor(content, cover, [id]), withPartAtEnd(to, { ...part, number: 0 }, newId));
  return { from: withLinksSettled({ ...from, parts: endedAs(from.parts, from.parts.filter((p) => p !== part)) }), to: linked };
}

/** The feature with another scenario behind those of no rule: a blank line between, its lines ending as those of the file. */
export function withPartAtEnd(content: FeatureContent, part: FeaturePart, newId: NewId): FeatureContent {
  const rule = content.parts.findIndex((p) => p.kind === 'rule');
  const at = rule < 0 ? content.parts.length : rule;
  const end = content.parts.some((p) => p.lines.some((l) => l.text.endsWith('\r'))) ? '\r' : '';
  const ended = (lines: FeaturePart['lines']): FeaturePart['lines'] => withBlankEnd(lines, newId).map((line) => ({ ...line, text: line.text.replace(/\r$/, '') + end }));
  const before = content.parts.slice(0, at).map((p, i) => (i === at - 1 && !isBlank(p.lines.at(-1)?.text) ? { ...p, lines: ended(p.lines) } : p));
  return { ...content, parts: endedAs(content.parts, [...before, { ...part, lines: ended(part.lines) }, ...content.parts.slice(at)]) };
}

function withBlankEnd(lines: FeaturePart['lines'], newId: NewId): FeaturePart['lines'] {
  return isBlank(lines.at(-1)?.text) ? lines : [...lines, { id: lineId(newId()), text: '' }];
}

/** Where another part is the last now, it ends as the file did: with as many blank lines, and no carriage return where no line feed follows. */
export function endedAs(before: readonly FeaturePart[], after: readonly FeaturePart[]): FeaturePart[] {
  const last = after.at(-1);
  if (last === undefined || last.id === before.at(-1)?.id) return [...after];
  const blanks = (part: FeaturePart | undefined): number => (part?.lines.length ?? 0) - (part?.lines.findLastIndex((l) => !isBlank(l.text)) ?? -1) - 1;
  const lines = last.lines.slice(0, last.lines.length - Math.max(0, blanks(last) - blanks(before.at(-1))));
  return [...after.slice(0, -1), { ...last, lines: lines.map((line, i) => (i === lines.length - 1 && line.text.endsWith('\r') ? { ...line, text: line.text.slice(0, -1) } : line)) }];
}

/** A file that ends without a blank line would run its last part into what comes to stand behind it: the blank line at the new end goes there. */
function parted(before: readonly FeaturePart[], after: readonly FeaturePart[], newId: NewId): FeaturePart[] {
  const last = before.at(-1);
  const ended = after.at(-1);
  if (last === undefined || ended === undefined || last === ended || isBlank(last.lines.at(-1)?.text)) return [...after];
  return after.map((part) => {
    if (part === last) return { ...part, lines: [...part.lines, { id: lineId(newId()), text: '' }] };
    return part === ended && isBlank(part.lines.at(-1)?.text) ? { ...part, lines: part.lines.slice(0, -1) } : part;
  });
}

function isBlank(text: string | undefined): boolean {
  return text !== undefined && text.trim() === '';
}
