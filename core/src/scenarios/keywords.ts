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
