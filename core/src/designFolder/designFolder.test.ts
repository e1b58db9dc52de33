import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { load } from 'js-yaml';
import type { Json } from '../versions/index.ts';
import { attachmentAt, attachmentPath, blockText, differenceOf, foldersOf, isDifferent, readBlockText } from './index.ts';

/** Texts that YAML would take for something else, or that readers stumble over. */
const odd = fc.constantFrom('', 'yes', 'No', 'null', '~', '007', '1e5', '0x1F', '2026-02-03', '1:30', '- a', 'a: b', 'a #b', '# a', '&x', '*x', '!t', '@a', '`a', '%a', '{a', '[a', '|', '>', '"', "'", ' a', 'a ', '\ta', 'a\tb', 'true', 'Infinity', '.nan', '---', '...', '<<', '?', '? a', ':', '\u0085', 'a\u2028b', '\ufeffa', '\u0000x', '\u007f', 'Ação', '’tis', '😀');
const piece = fc.oneof(odd, fc.string({ unit: 'binary', maxLength: 6 }).filter((s) => s.isWellFormed()), fc.constantFrom('a', 'b c', ' ', '\t'));
const text = fc.oneof(piece, fc.array(piece, { maxLength: 6 }).map((lines) => lines.join('\n')), fc.array(fc.constantFrom('', ' ', 'a', '  a', '\t', 'a:'), { maxLength: 7 }).map((lines) => lines.join('\n')), fc.array(piece, { maxLength: 3 }).map((lines) => lines.join('\r\n')));
const name = text.filter((t) => t !== '__proto__');
const { value } = fc.letrec<{ value: Json }>((tie) => ({
  value: fc.oneof({ depthSize: 'small', withCrossShrink: true }, text, fc.integer(), fc.double({ noNaN: true, noDefaultInfinity: true }).map((n) => (Object.is(n, -0) ? 0 : n)), fc.boolean(), fc.constant(null), fc.array(tie('value'), { maxLength: 4 }), fc.dictionary(name, tie('value'), { maxKeys: 4 })),
}));

test('whatever is written is read again as it was, by the library too; the same is always the same text', () => {
  fc.assert(
    fc.property(fc.dictionary(name, value, { maxKeys: 4 }), (v) => {
      const written = blockText(v);
      expect(load(written)).toEqual(v);
      expect(readBlockText(written)).toEqual(v);
      expect(blockText(JSON.parse(JSON.stringify(v)) as object)).toBe(written);
    }),
    { numRuns: 3_000 },
  );
});

test('it reads like a page: a line a fact, texts of several lines as they are', () => {
  const written = blockText({ title: 'A reading reaches the bill', steps: [{ id: 's1', expected: 'It is taken.\nThe bill shows it.' }, { id: 's2', expected: '' }], tags: [], cells: { '1': '007' }, grid: [['a'], []] });
  expect(written).toBe(`title: A reading reaches the bill
steps:
  - id: s1
    expected: |-
      It is taken.
      The bill shows it.
  - id: s2
    expected: ""
tags: []
cells:
  "1": "007"
grid:
  - - a
  - []
`);
});

test('what expands, refers, repeats a name or is too deep is not read', () => {
  const bomb = `a: &a [x, x]\nb: &b [*a, *a]\nc: [*b, *b]\n`;
  expect([bomb, 'a: !!js/function x', 'a: 1\na: 2', 'a: [', '['.repeat(100) + ']'.repeat(100)].map((t) => readBlockText(t))).toEqual([undefined, undefined, undefined, undefined, undefined]);
});

test('each module has a folder of its own that every system takes, whatever the order; files are found by their hash', () => {
  const modules = ['Meters', 'meters', 'Contagem d’água', 'CON', '', '水', 'no module', 'x'.repeat(90), 'files'];
  const folders = foldersOf(modules);
  expect([...folders.values()].sort()).toEqual(['con-2', 'contagem-d-agua', 'files-2', 'meters', 'meters-2', 'module', 'no-module', 'no-module-2', 'x'.repeat(60)]);
  fc.assert(fc.property(fc.shuffledSubarray(modules, { minLength: modules.length }), (shuffled) => expect([...foldersOf(shuffled)].sort()).toEqual([...folders].sort())));
  const hash = 'ab'.repeat(32);
  expect([attachmentAt(attachmentPath(hash, 'Dial.PNG')), attachmentPath(hash, 'noending'), attachmentAt('files/x.png'), attachmentAt(`meters/${hash}`)]).toEqual([hash, `files/${hash}`, null, null]);
});

test('what was changed, is missing or stands beside is told by its path', () => {
  const named = new Map([['a', '1'], ['b', '2'], ['c', '3']]);
  const difference = differenceOf(named, new Map([['a', '1'], ['b', 'x'], ['d', '4']]));
  expect([difference, isDifferent(difference), isDifferent(differenceOf(named, named))]).toEqual([{ changed: ['b'], missing: ['c'], unknown: ['d'] }, true, false]);
});
