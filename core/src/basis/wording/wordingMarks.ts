import { passivesWithoutActor, secondDemands } from './grammar.ts';
import { listedWords } from './lexicon.ts';
import { numbersWithoutUnit } from './numbers.ts';
import { boundsKey, invertedRanges, overlappingBands, statedRanges, subjectKey, type StatedRange } from './ranges.ts';
import { WORDING_RULES, type Finding, type WordingMark, type WordingRule } from './rule.ts';
import { sentenceText, sentencesOf, type Sentence } from './sentences.ts';
import { unknownTerms, type Glossary } from './terms.ts';

/** Longest text looked through; beyond it the rest is not. */
export const LONGEST_WORDING = 50_000;

/** A text of the basis as the rules read it. */
export interface WordingText {
  readonly id: string;
  readonly text: string;
}

/** What one text gave: its marks, and the ranges it states, to be held against those of others. */
interface Reading {
  readonly marks: readonly WordingMark[];
  readonly ranges: readonly { readonly range: StatedRange; readonly sentence: string }[];
}

/**
 * The weak wording of a whole basis, kept text by text, so that one edit costs one text. Mutable inside.
 * Marks of a text stand in reading order.
 */
export class BasisWording {
  readonly #glossary: Glossary;
  readonly #rules: ReadonlySet<WordingRule>;
  readonly #readings = new Map<string, Reading>();
  /** By subject and unit, then by bounds: the texts that state them. Only other bounds of one subject contradict. */
  readonly #stated = new Map<string, Map<string, Set<string>>>();

  constructor(glossary: Glossary, off: readonly WordingRule[] = []) {
    this.#glossary = glossary;
    this.#rules = new Set(WORDING_RULES.filter((rule) => !off.includes(rule)));
  }

  /** Takes in a text, new or changed. */
  put({ id, text }: WordingText): void {
    this.remove(id);
    const sentences = sentencesOf(text.slice(0, LONGEST_WORDING));
    const marks = [...sentences.flatMap((sentence) => this.#marksOf(sentence)), ...(this.#rules.has('contradictingRange') ? contradictionsWithin(id, sentences) : [])];
    const ranges = this.#rules.has('contradictingRange')
      ? sentences.flatMap((sentence) => statedRanges(sentence, this.#glossary).map((range) => ({ range, sentence: sentenceText(sentence.plain) })))
      : [];
    this.#readings.set(id, { marks, ranges });
    for (const { range } of ranges) this.#state(range, id);
  }

  remove(id: string): void {
    for (const { range } of this.#readings.get(id)?.ranges ?? []) this.#unstate(range, id);
    this.#readings.delete(id);
  }

  marksOf(id: string): WordingMark[] {
    const reading = this.#readings.get(id);
    if (reading === undefined) return [];
    return [...reading.marks, ...reading.ranges.flatMap(({ range, sentence }) => this.#contradiction(id, range, sentence))].sort((a, b) => a.start - b.start || a.end - b.end);
  }

  #marksOf(sentence: Sentence): WordingMark[] {
    const found = withoutOverlaps(findings(sentence, this.#glossary).filter((f) => this.#rules.has(f.rule)));
    const text = sentenceText(sentence.plain);
    return found.map(({ rule, at, length }) => ({
      rule,
      start: sentence.start + at,
      end: sentence.start + at + length,
      words: sentenceText(sentence.plain.slice(at, at + length)),
      sentence: text,
      against: null,
    }));
  }

  #contradiction(id: string, range: StatedRange, sentence: string): WordingMark[] {
    const bounds = boundsKey(range);
    for (const [key, ids] of this.#stated.get(subjectKey(range)) ?? []) {
      const other = key === bounds ? undefined : [...ids].find((o) => o !== id);
      const against = this.#readings.get(other ?? '')?.ranges.find((r) => subjectKey(r.range) === subjectKey(range) && boundsKey(r.range) === key);
      if (other === undefined || against === undefined) continue;
      return [{ rule: 'contradictingRange', start: range.start, end: range.end, words: range.words, sentence, against: { id: other, words: against.range.words } }];
    }
    return [];
  }

  #state(range: StatedRange, id: string): void {
    const byBounds = this.#stated.get(subjectKey(range)) ?? new Map<string, Set<string>>();
    this.#stated.set(subjectKey(range), byBounds.set(boundsKey(range), (byBounds.get(boundsKey(range)) ?? new Set<string>()).add(id)));
  }

  #unstate(range: StatedRange, id: string): void {
    this.#stated.get(subjectKey(range))?.get(boundsKey(range))?.delete(id);
  }
}

/** Ranges that contradict themselves, and bands of one text that overlap. */
function contradictionsWithin(id: string, sentences: readonly Sentence[]): WordingMark[] {
  const mark = ({ start, end, words }: Pick<StatedRange, 'start' | 'end' | 'words'>, sentence: Sentence, against: WordingMark['against']): WordingMark => ({ rule: 'contradictingRange', start, end, words, sentence: sentenceText(sentence.plain), against });
  return [
    ...sentences.flatMap((sentence) => invertedRanges(sentence).map((range) => mark(range, sentence, null))),
    ...overlappingBands(sentences).map(({ band, sentence, with: other }) => mark(band, sentence, { id, words: other.words })),
  ];
}

function findings({ plain, fragment }: Sentence, glossary: Glossary): Finding[] {
  const anywhere = [...listedWords(plain), ...unknownTerms(plain, glossary)];
  return fragment ? anywhere : [...anywhere, ...secondDemands(plain), ...passivesWithoutActor(plain), ...numbersWithoutUnit(plain)];
}

/** Of two findings of one rule that overlap the longer stays. */
function withoutOverlaps(found: readonly Finding[]): Finding[] {
  const kept: Finding[] = [];
  for (const finding of [...found].sort((a, b) => b.length - a.length || a.at - b.at)) {
    const overlaps = kept.some((k) => k.rule === finding.rule && k.at < finding.at + finding.length && finding.at < k.at + k.length);
    if (!overlaps) kept.push(finding);
  }
  return kept.sort((a, b) => a.at - b.at);
}
