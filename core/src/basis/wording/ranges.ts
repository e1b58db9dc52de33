import { compareDecimals, parseDecimal } from '../../values/index.ts';
import type { Sentence } from './sentences.ts';
import type { Glossary } from './terms.ts';

/** A range a sentence states of a term: `password`, 12 to 64 `characters`. */
export interface StatedRange {
  /** Lower case, the glossary's spelling where it knows the term. */
  readonly subject: string;
  readonly unit: string;
  readonly from: string;
  readonly to: string;
  readonly start: number;
  readonly end: number;
  readonly words: string;
}

const NUMBER = String.raw`-?\d+(?:[  ,]\d{3})*(?:\.\d+)?`;
const UNIT = String.raw`(?:\s*(%|[\p{L}³²°]+))?`;
const RANGES = [
  new RegExp(String.raw`\b(?:from|between)\s+(${NUMBER})\s+(?:to|and|up to)\s+(${NUMBER})${UNIT}`, 'giu'),
  new RegExp(String.raw`\bat least\s+(${NUMBER})\s+and\s+(?:at most|no more than|not more than)\s+(${NUMBER})${UNIT}`, 'giu'),
  new RegExp(String.raw`(?<![\p{L}\d-])(${NUMBER})\s*(?:–|to|…)\s*(${NUMBER})\s*(%|[\p{L}³²°]+)`, 'giu'),
];

const SUBJECT = /(?:^|[,;:]\s+(?:and\s+)?|\b(?:when|if|where|that)\s+)(?:the|a|an|each|every|any|its|their)\s+((?:[\p{L}’'-]+\s+){1,4}?)(?:is|are|has|have|must|shall|should|will|may|can|lies|takes|carries|consists|contains|holds|lasts|ranges|counts)\b/giu;

/** The ranges of numbers in a sentence that say what they are of. */
export function statedRanges({ plain, start }: Sentence, glossary: Glossary): StatedRange[] {
  const found: StatedRange[] = [];
  for (const pattern of RANGES) {
    for (const match of plain.matchAll(pattern)) {
      const at = start + match.index;
      if (found.some((r) => r.start < at + match[0].length && r.end > at)) continue;
      const subject = subjectOf(plain.slice(0, match.index), glossary);
      if (subject === null) continue;
      const unit = unitWord(match[3] ?? '') || unitWord(/\b(?:number|amount|count) of ([\p{L} ]+?)\s*$/iu.exec(plain.slice(0, match.index))?.[1] ?? '');
      found.push({ subject, unit, from: match[1] ?? '', to: match[2] ?? '', start: at, end: at + match[0].trimEnd().length, words: match[0].trim() });
    }
  }
  return found;
}

/** What the words before a range speak of: the last glossary term, else the subject of the clause. */
function subjectOf(before: string, glossary: Glossary): string | null {
  const subject = [...before.matchAll(SUBJECT)].at(-1)?.[1]?.trim().toLowerCase();
  const term = glossary.placesIn(subject ?? before).at(-1)?.term.term.toLowerCase();
  return term ?? subject ?? null;
}

/** A range that ends before it begins: nothing lies in it. */
export function invertedRanges(sentence: Sentence): Omit<StatedRange, 'subject'>[] {
  return rangesIn(sentence).filter(({ from, to }) => isAbove(from, to));
}

/** A range of a band, with the words it hangs on. */
export interface Band extends Omit<StatedRange, 'subject'> {
  readonly head: string;
}

/** Bands of one text in which some value lies in two: those of the same unit that hang on the same words, the later of two. */
export function overlappingBands(sentences: readonly Sentence[]): { readonly band: Band; readonly sentence: Sentence; readonly with: Band }[] {
  const bands = sentences.flatMap((sentence) => rangesIn(sentence).flatMap((range) => (range.unit === '' || isAbove(range.from, range.to) ? [] : [{ sentence, band: { ...range, head: headOf(sentence, range.start) } }])));
  return bands.flatMap(({ band, sentence }, i) => {
    const before = bands.slice(0, i).find(({ band: other }) => other.unit === band.unit && sameHead(other.head, band.head) && isStaggered(other, band));
    return before === undefined ? [] : [{ band, sentence, with: before.band }];
  });
}

/** Each begins and ends before the other does, and they share a value; one within the other is meant as an exception. */
function isStaggered(a: Band, b: Band): boolean {
  const [lower, upper] = isAbove(b.from, a.from) ? [a, b] : [b, a];
  return isAbove(upper.from, lower.from) && isAbove(upper.to, lower.to) && !isAbove(upper.from, lower.to);
}

/** The two words before a range. */
function headOf({ plain, start }: Sentence, at: number): string {
  return (plain.slice(0, at - start).toLowerCase().match(/[\p{L}’'-]+/gu) ?? []).slice(-2).join(' ');
}

/** `one with` speaks of what was spoken of before. */
function sameHead(a: string, b: string): boolean {
  const [noun = '', joint = ''] = a.split(' ');
  const [other = '', otherJoint = ''] = b.split(' ');
  return joint !== '' && joint === otherJoint && (noun === other || /^(?:one|another|those|that)$/.test(other));
}

function isAbove(a: string, b: string): boolean {
  const [x, y] = [a, b].map((text) => parseDecimal(text.replaceAll(/[  ,]/g, '')));
  return x != null && y != null && compareDecimals(x, y) > 0;
}

function rangesIn({ plain, start }: Sentence): Omit<StatedRange, 'subject'>[] {
  const found: Omit<StatedRange, 'subject'>[] = [];
  for (const pattern of RANGES) {
    for (const match of plain.matchAll(pattern)) {
      const at = start + match.index;
      if (found.some((r) => r.start < at + match[0].length && r.end > at)) continue;
      found.push({ unit: unitWord(match[3] ?? ''), from: match[1] ?? '', to: match[2] ?? '', start: at, end: at + match[0].trimEnd().length, words: match[0].trim() });
    }
  }
  return found.sort((a, b) => a.start - b.start);
}

const NO_UNIT = /^(?:and|or|when|if|for|in|of|at|by|but|on|as|is|are|must|shall|inclusive|only)$/i;

function unitWord(word: string): string {
  return NO_UNIT.test(word) ? '' : word.toLowerCase().replace(/s$/, '');
}

/** Ranges of one subject and unit are to agree: those with other bounds contradict each other. */
export function subjectKey({ subject, unit }: StatedRange): string {
  return `${subject}\n${unit}`;
}

/** The bounds as numbers: `0.10` and `0.1` are the same. */
export function boundsKey({ from, to }: StatedRange): string {
  return `${numberKey(from)}\n${numberKey(to)}`;
}

function numberKey(text: string): string {
  const plain = text.replaceAll(/[  ,]/g, '');
  return parseDecimal(plain) !== null && plain.includes('.') ? plain.replace(/\.?0+$/, '') : plain;
}
