import { piecesOf } from './phrase.ts';
import type { PhraseKey } from './phraseKey.ts';
import { canBeWordedAs, type Phrase } from './phrasebook.ts';

/** Phrases that may say the same: of the same words but for small ones, their forms and their order (`sameWords`), or with one word other (`oneWord`). */
export interface AlikePhrases {
  readonly why: 'sameWords' | 'oneWord';
  /** The most used first; all can be worded as any of them. */
  readonly keys: readonly PhraseKey[];
}

/** Words that say how, not what. */
const SMALL = new Set(['a', 'an', 'the', 'this', 'that', 'these', 'those', 'its', 'his', 'her', 'their', 'my', 'is', 'are', 'was', 'were', 'be', 'been', 'being', 'has', 'have', 'had', 'will', 'would', 'should', 'must', 'shall', 'can', 'it', 'then', 'still', 'stay', 'stays', 'remain', 'remains', 'i', 'we', 'o', 'os', 'um', 'uma', 'que', 'é', 'está']);
/** Between two values they say which is which: “a follows b”, “a is followed by b”. */
const PREPOSITIONS = new Set(['of', 'to', 'in', 'on', 'at', 'by', 'for', 'with', 'as', 'de', 'do', 'da', 'em', 'no', 'na']);
/** With fewer words of its own, one other word makes a phrase about something else. */
const FEWEST_WORDS = 4;
/** Phrases that one may be like. */
const MOST_ALIKE = 20;

/**
 * Phrases nearly alike, each group once; a phrase that differs only in small words is in no other group. Found by what
 * is left of the words when small ones and endings are taken off, and when any one word is (deletion neighbourhood), in
 * time linear in the words.
 */
export function alikePhrases(phrases: readonly Phrase[]): AlikePhrases[] {
  const bySame = new Map<string, Phrase[]>();
  for (const phrase of phrases) push(bySame, signOf(wordsOf(phrase.key), phrase.key), phrase);
  const same = [...bySame.values()].filter((group) => group.length > 1).map((group): AlikePhrases => ({ why: 'sameWords', keys: keysOf(group) }));
  const firsts = [...bySame.values()].flatMap(([first]) => (first === undefined ? [] : [first]));
  return [...same, ...oneWordOther(firsts)];
}

function oneWordOther(phrases: readonly Phrase[]): AlikePhrases[] {
  const without = new Map<string, Phrase[]>();
  for (const phrase of phrases) {
    const words = wordsOf(phrase.key);
    if (words.length < FEWEST_WORDS) continue;
    for (const [i] of words.entries()) push(without, signOf(words.toSpliced(i, 1), phrase.key), phrase);
  }
  const met = new Set<Phrase>();
  const groups: AlikePhrases[] = [];
  for (const group of [...without.values()].toSorted((a, b) => b.length - a.length)) {
    const free = [...new Set(group)].filter((phrase) => !met.has(phrase)).slice(0, MOST_ALIKE);
    if (free.length < 2) continue;
    for (const phrase of free) met.add(phrase);
    groups.push({ why: 'oneWord', keys: keysOf(free) });
  }
  return groups;
}

function keysOf(group: readonly Phrase[]): PhraseKey[] {
  return group.toSorted((a, b) => b.uses - a.uses || (a.key < b.key ? -1 : 1)).map((p) => p.key).filter((key, _, all) => all[0] === undefined || canBeWordedAs(key, all[0]));
}

/** The words that matter, without their endings. */
function wordsOf(key: PhraseKey): string[] {
  const pieces = piecesOf(key);
  const hasSeveral = pieces.filter((piece) => piece.kind === 'hole').length > 1;
  return pieces.flatMap((piece) => (piece.kind === 'hole' ? [] : (piece.text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).filter((w) => !SMALL.has(w) && (hasSeveral || !PREPOSITIONS.has(w))).map(stem)));
}

/** What is left of a word without the endings of English that change its form only. */
function stem(word: string): string {
  return word.length < 5 ? word : word.replace(/(?:ing|ed|es|s)$/, '');
}

/** The same for phrases of the same words in any order; with several values the order of the words counts, as it says which value is which. */
function signOf(words: readonly string[], key: PhraseKey): string {
  const holes = piecesOf(key).flatMap((piece) => (piece.kind === 'hole' ? [piece.quoted ? '"' : '<'] : []));
  return `${holes.join('')} ${(holes.length > 1 ? words : words.toSorted()).join(' ')}`;
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list === undefined) map.set(key, [value]);
  else list.push(value);
}
