import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anchorAt, placeAnchor } from './anchor.ts';

const TEXT = 'An empty reading is refused. A late reading is refused too.';
const on = (words: string, from = 0) => {
  const start = TEXT.indexOf(words, from);
  return anchorAt(TEXT, start, start + words.length);
};

test('survives edits of the text around it', () => {
  const edited = `Since spring: ${TEXT.replace('empty', 'empty or torn').replace('late', 'much too late')}`;
  const place = placeAnchor(edited, on('is refused', 30));
  expect(place).toEqual({ kind: 'found', start: edited.lastIndexOf('is refused'), end: edited.lastIndexOf('is refused') + 10 });
});

test('says so when its words are gone', () => {
  expect(placeAnchor(TEXT.replaceAll('refused', 'accepted'), on('is refused'))).toEqual({ kind: 'gone' });
});

test('of equal words takes those with the same surroundings', () => {
  const swapped = 'A late reading is refused too. An empty reading is refused.';
  expect(placeAnchor(swapped, on('is refused'))).toEqual({ kind: 'found', start: swapped.lastIndexOf('is refused'), end: swapped.length - 1 });
});

test('text put before or after never loses or moves it', () => {
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom('a', 'b', ' ') , minLength: 3, maxLength: 30 }), fc.nat(20), fc.integer({ min: 1, max: 8 }), fc.string({ maxLength: 20 }), fc.string({ maxLength: 20 }), (text, at, length, before, after) => {
      const start = Math.min(at, text.length - 1);
      const end = Math.min(text.length, start + length);
      expect(placeAnchor(before + text + after, anchorAt(text, start, end)).kind).toBe('found');
      expect(placeAnchor(text, anchorAt(text, start, end))).toEqual({ kind: 'found', start, end });
    }),
  );
});
