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
  return runsTogether(diffWordsWithSpace(from, to).map((part) => ({ kind: part.added ? 'added' : part.removed ? 'removed' : 'same', text: part.value })));
}

/** Changes with nothing but a space between them are one: what was there is read whole, then what is there. */
function runsTogether(parts: readonly WordChange[]): WordChange[] {
  const together: WordChange[] = [];
  let [removed, added] = ['', ''];
  const close = (): void => {
    if (removed !== '') together.push({ kind: 'removed', text: removed });
    if (added !== '') together.push({ kind: 'added', text: added });
    [removed, added] = ['', ''];
  };
  parts.forEach(({ kind, text }, i) => {
    if (kind === 'removed') removed += text;
    else if (kind === 'added') added += text;
    else if (removed !== '' && added !== '' && i < parts.length - 1 && /^[^\S\n]+$/.test(text)) [removed, added] = [removed + text, added + text];
    else {
      close();
      together.push({ kind, text });
    }
  });
  close();
  return together;
}

function wholeChange(from: string, to: string): WordChange[] {
  return [
    { kind: 'removed', text: from },
    { kind: 'added', text: to },
  ];
}
