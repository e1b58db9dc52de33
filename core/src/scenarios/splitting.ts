import type { PartKind } from './feature.ts';
import type { LineRole, ReadFeature } from './reading.ts';

/** A run of lines that make a part; `to` is not of it. */
export interface PartSpan {
  readonly kind: PartKind;
  readonly from: number;
  readonly to: number;
}

const BEGINS: Partial<Record<LineRole, PartKind>> = { background: 'background', rule: 'rule', scenario: 'scenario' };

/** The parts of a feature file: all lines, each in one part. Tags above a keyword, and comments right above them, are of what they stand above. */
export function partSpans({ lines }: ReadFeature): PartSpan[] {
  const starts: { kind: PartKind; from: number }[] = [{ kind: 'head', from: 0 }];
  for (const [i, { role }] of lines.entries()) {
    const kind = BEGINS[role];
    if (kind !== undefined) starts.push({ kind, from: beginOf(lines, i) });
  }
  const spans = starts.map(({ kind, from }, i) => ({ kind, from, to: starts[i + 1]?.from ?? lines.length }));
  // A file that begins with a background has no head; an empty file is a head of one empty line.
  return spans.filter(({ from, to }) => to > from);
}

/** Where what a keyword begins has its first line: above it stand its tags, among blank lines and comments, and comments right above. */
function beginOf(lines: ReadFeature['lines'], keyword: number): number {
  let begin = keyword;
  for (let i = keyword - 1; i >= 0; i -= 1) {
    const role = lines[i]?.role;
    if (role === 'tags' || (role === 'comment' && begin === i + 1)) begin = i;
    else if (role !== 'blank' && role !== 'comment') return begin;
  }
  return begin;
}
