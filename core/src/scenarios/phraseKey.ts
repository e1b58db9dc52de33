/** A step text with its values taken out, in the notation of cucumber expressions: what is reused. */
export type PhraseKey = string & { readonly __brand: 'PhraseKey' };

/** The one maker of phrase keys out of texts that hold one. */
export function phraseKey(text: string): PhraseKey {
  return text as PhraseKey;
}
