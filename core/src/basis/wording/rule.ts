/** What weak wording is looked for; each can be switched off in a project. */
export const WORDING_RULES = [
  'vagueAmount',
  'unverifiable',
  'openList',
  'hiddenAlternative',
  'severalDemands',
  'passiveWithoutActor',
  'numberWithoutUnit',
  'placeholder',
  'unknownTerm',
  'contradictingRange',
] as const;
export type WordingRule = (typeof WORDING_RULES)[number];

/** Words of a text that cannot be tested as they stand. Positions are UTF-16 units of the Markdown source. */
export interface WordingMark {
  readonly rule: WordingRule;
  readonly start: number;
  readonly end: number;
  readonly words: string;
  /** The sentence it stands in, white space folded: a dismissal holds as long as this stays the same. */
  readonly sentence: string;
  /** For `contradictingRange`: where the other range stands and how it reads; in its own text, bands that overlap. Null: it contradicts itself. */
  readonly against: { readonly id: string; readonly words: string } | null;
}

/** A mark within its sentence, before it is placed in the text. */
export interface Finding {
  readonly rule: WordingRule;
  /** From the sentence's start. */
  readonly at: number;
  readonly length: number;
}

/** Rules that find much that is meant as it stands: they are switched on by who wants them. */
export const OFF_AT_FIRST: readonly WordingRule[] = ['passiveWithoutActor'];
