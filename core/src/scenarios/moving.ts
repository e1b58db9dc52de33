import { lineId, type FeatureContent, type FeaturePart, type PartId } from './feature.ts';
import type { NewId } from './identities.ts';

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
