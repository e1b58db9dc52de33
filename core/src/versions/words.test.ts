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
