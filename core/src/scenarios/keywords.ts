import { dialects } from '@cucumber/gherkin';

/** A keyword as it is written, with what ends it: a colon, or a space where the language has one. */
export interface Keyword {
  readonly of: 'feature' | 'rule' | 'background' | 'scenario' | 'scenarioOutline' | 'examples' | 'given' | 'when' | 'then' | 'and' | 'but';
  readonly text: string;
}

const TITLES = ['feature', 'rule', 'background', 'scenario', 'scenarioOutline', 'examples'] as const;
const STEPS = ['given', 'when', 'then', 'and', 'but'] as const;

/** The keywords of a language by its code in the standard; of English where there is no such language. */
export function keywordsOf(language: string): Keyword[] {
  const words = dialects[language] ?? dialects.en;
  if (words === undefined) throw new Error('The standard has keywords in English: expected some, got none');
  return [
    ...STEPS.flatMap((of) => words[of].filter((text) => text !== '* ').map((text) => ({ of, text }))),
    ...TITLES.flatMap((of) => words[of].map((text) => ({ of, text: `${text}:` }))),
  ].filter(({ of, text }, i, all) => all.findIndex((other) => other.text === text) === i || of === 'given');
}

/** The word of a language for it: for a scenario the one that its outlines are called by (`Scenario`, not `Example`), otherwise the first. */
export function keywordFor(of: Keyword['of'], language: string): string {
  const words = keywordsOf(language).filter((k) => k.of === of).map((k) => k.text);
  const outline = keywordsOf(language).find((k) => k.of === 'scenarioOutline')?.text.toLowerCase() ?? '';
  return (of === 'scenario' ? words.find((word) => outline.includes(word.slice(0, -1).toLowerCase())) : undefined) ?? words[0] ?? '';
}
