import type { PhraseKey } from './phraseKey.ts';
import type { Phrase } from './phrasebook.ts';

/**
 * Phrases that one step may be of: they differ only in whether a value stands in quotation marks, so that code which
 * takes any value for the one takes the step of the other too. Where only placeholders stand, their values may well be
 * quoted: nothing is told of those. Each group in the order of the phrases.
 */
export function ambiguousPhrases(phrases: readonly Pick<Phrase, 'key' | 'holes'>[]): PhraseKey[][] {
  const groups = new Map<string, PhraseKey[]>();
  for (const { key, holes } of phrases) {
    if (holes.includes('placeholder')) continue;
    // A brace that is words has a backslash before it.
    const sign = key.replaceAll(/(?<!\\)((?:\\\\)*)\{string\}/g, '$1{}');
    groups.set(sign, [...(groups.get(sign) ?? []), key]);
  }
  return [...groups.values()].filter((group) => group.length > 1);
}
