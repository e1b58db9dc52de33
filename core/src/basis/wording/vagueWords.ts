import { listedWords } from './lexicon.ts';
import type { WordingRule } from './rule.ts';
import { sentencesOf } from './sentences.ts';

/** The rules that hold for instructions as they do for requirements. */
const RULES: readonly WordingRule[] = ['vagueAmount', 'unverifiable', 'openList', 'placeholder'];

const IN_STEPS = /\b(?:as (?:expected|usual|normal)|works? (?:fine|correctly|properly|well)|(?:is|are) (?:correct|ok|okay|fine|right))\b/gi;

/** The words of a step that two people would understand differently, in reading order. */
export function vagueWords(text: string): string[] {
  const own = [...text.matchAll(IN_STEPS)].map((m) => m[0]);
  const listed = sentencesOf(text).flatMap(({ plain }) => listedWords(plain).filter((f) => RULES.includes(f.rule)).map((f) => plain.slice(f.at, f.at + f.length)));
  return [...own, ...listed.filter((words) => !own.some((o) => o.includes(words)))];
}
