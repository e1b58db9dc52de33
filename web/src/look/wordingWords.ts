import type { WordingMark, WordingRule } from '@caderno/core/basis';

/** What each rule looks for, as settings and marks name it. */
export const RULE_WORD: Record<WordingRule, string> = {
  vagueAmount: 'vague amount',
  unverifiable: 'cannot be verified',
  openList: 'open list',
  hiddenAlternative: 'hidden alternative',
  severalDemands: 'several demands',
  passiveWithoutActor: 'no actor named',
  numberWithoutUnit: 'number without unit',
  placeholder: 'placeholder',
  unknownTerm: 'not in the glossary',
  contradictingRange: 'contradicting range',
};

/** Why it is marked. */
export function reasonWords(mark: WordingMark, id: string): string {
  switch (mark.rule) {
    case 'vagueAmount':
      return 'No test can tell whether this much is enough.';
    case 'unverifiable':
      return 'Two people would judge it differently.';
    case 'openList':
      return 'What else belongs to the list is left to the reader.';
    case 'hiddenAlternative':
      return 'It says two things at once; which of them holds when?';
    case 'severalDemands':
      return 'The sentence demands more than one thing; each needs a test of its own.';
    case 'passiveWithoutActor':
      return 'Something is done, and nobody is named who does it.';
    case 'numberWithoutUnit':
      return 'The number does not say of what.';
    case 'placeholder':
      return 'Something is still missing here.';
    case 'unknownTerm':
      return 'The glossary does not explain it.';
    case 'contradictingRange':
      return contradictionWords(mark, id);
  }
}

/** What to do about it. */
export const MEND_WORDS: Record<WordingRule, string> = {
  vagueAmount: 'Say how much, how long or how often.',
  unverifiable: 'Say by what one would see it.',
  openList: 'Name all of them, or the rule by which something belongs.',
  hiddenAlternative: 'Make two sentences, each with its condition.',
  severalDemands: 'Make a sentence, or a requirement, of each.',
  passiveWithoutActor: 'Name who does it: the system, or a role.',
  numberWithoutUnit: 'Add the unit.',
  placeholder: 'Ask, and write the answer.',
  unknownTerm: 'Add it to the glossary, or use a term that is there.',
  contradictingRange: 'Find out which holds, and mend the other.',
};

function contradictionWords({ against }: WordingMark, id: string): string {
  if (against === null) return 'It ends before it begins: nothing lies in it.';
  return against.id === id ? `It overlaps “${against.words}”: what lies in both has two answers.` : `${against.id} says “${against.words}” of the same.`;
}
