import { diffWordsWithSpace } from 'diff';

export interface WordChange {
  readonly kind: 'same' | 'added' | 'removed';
  readonly text: string;
}

/** Longest text compared word by word; beyond it the whole text counts as changed. */
export const LONGEST_WORD_DIFF = 50_000;

/** What changed between two texts, word by word, in reading order. */
export function diffWords(from: string, to: string): WordChange[] {
  if (from === to) return from === '' ? [] : [{ kind: 'same', text: from }];
  if (from.length + to.length > LONGEST_WORD_DIFF) return wholeChange(from, to);
  return diffWordsWithSpace(from, to).map((part) => ({ kind: part.added ? 'added' : part.removed ? 'removed' : 'same', text: part.value }));
}

function wholeChange(from: string, to: string): WordChange[] {
  return [
    { kind: 'removed', text: from },
    { kind: 'added', text: to },
  ];
}
