import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { LONGEST_WORD_DIFF, diffWords } from './words.ts';

const word = fc.constantFrom('reading', 'meter', 'Meter', 'é', '12', '<x>', '\n', ' ', ',', '(missing)');

test('what stayed and what went is the old text, what stayed and what came the new one', () => {
  let changed = 0;
  fc.assert(
    fc.property(fc.array(word, { maxLength: 12 }), fc.array(word, { maxLength: 12 }), (a, b) => {
      const [from, to] = [a.join(' '), b.join(' ')];
      const parts = diffWords(from, to);
      const text = (kind: 'added' | 'removed') => parts.filter((p) => p.kind === 'same' || p.kind === kind).map((p) => p.text).join('');
      expect([text('removed'), text('added')]).toEqual([from, to]);
      if (parts.some((p) => p.kind !== 'same')) changed += 1;
    }),
  );
  expect(changed).toBeGreaterThan(50);
});

test('one word changed is one word changed; a text too long to compare is changed as a whole', () => {
  expect(diffWords('enter the reading', 'enter a reading').map((p) => [p.kind, p.text])).toEqual([['same', 'enter '], ['removed', 'the'], ['added', 'a'], ['same', ' reading']]);
  const long = 'word '.repeat(LONGEST_WORD_DIFF / 5);
  expect(diffWords(long, `${long}more`).map((p) => p.kind)).toEqual(['removed', 'added']);
});

test('words that change one after the other are read whole, before and after; lines stay apart', () => {
  const parts = (from: string, to: string) => diffWords(from, to).map((p) => `${p.kind} ${p.text}`);
  expect(parts('refused with a clear message', 'refused with “Enter what the dial shows”')).toEqual(['same refused with ', 'removed a clear message', 'added “Enter what the dial shows”']);
  expect(parts('one two three', 'one 2 3 three')).toEqual(['same one ', 'removed two ', 'added 2 3 ', 'same three']);
  expect(diffWords('first\nsecond', '1\n2').some((p) => p.kind === 'same' && p.text.includes('\n'))).toBe(true);
});
