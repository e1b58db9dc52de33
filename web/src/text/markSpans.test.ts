import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Element, ElementContent, Root, Text } from 'hast';
import { markSpans, type TextSpan } from './markSpans.ts';

const SOURCE = 'Only whole m³ are taken.';
const text = (value: string, from: number): Text => ({ type: 'text', value, position: { start: { line: 1, column: 1, offset: from }, end: { line: 1, column: 1, offset: from + value.length } } });
const treeOf = (): Root => ({ type: 'root', children: [{ type: 'element', tagName: 'p', properties: {}, children: [text(SOURCE.slice(0, 5), 0), { type: 'element', tagName: 'strong', properties: {}, children: [text(SOURCE.slice(5, 13), 5)] }, text(SOURCE.slice(13), 13)] }] });
const piecesOf = (node: Root | ElementContent): Element[] => (node.type === 'element' && node.properties.dataStart !== undefined ? [node] : 'children' in node ? node.children.flatMap((c) => piecesOf(c as ElementContent)) : []);

test('text is cut where spans begin and end: every letter keeps its place, and is marked by the spans it lies in and no others', () => {
  const span = fc.tuple(fc.nat(SOURCE.length), fc.nat(SOURCE.length)).map(([a, b]) => ({ start: Math.min(a, b), end: Math.max(a, b) }));
  fc.assert(
    fc.property(fc.array(span, { maxLength: 4 }), (list) => {
      const spans = list.map((s, i): TextSpan => ({ id: `s${i}`, ...s, className: 'mark', title: `mark ${i}` }));
      const tree = treeOf();
      markSpans(spans)(tree);
      const pieces = piecesOf(tree);
      const letters = pieces.flatMap((p) => {
        const [child] = p.children;
        const value = child?.type === 'text' ? child.value : '';
        return Array.from({ length: value.length }, (_, i) => ({ letter: value[i], at: Number(p.properties.dataStart) + i, marks: String(p.properties.dataSpans ?? '') }));
      });
      expect(letters.map((l) => l.letter).join('')).toBe(SOURCE);
      for (const { letter, at, marks } of letters) {
        expect(SOURCE[at]).toBe(letter);
        expect(marks).toBe(spans.filter((s) => s.start <= at && at < s.end).map((s) => s.id).join(' '));
      }
    }),
  );
});

test('a text that is shorter than its source, as one with an escape, is one piece, marked as a whole', () => {
  const tree: Root = { type: 'root', children: [{ ...text('a < b', 0), position: { start: { line: 1, column: 1, offset: 0 }, end: { line: 1, column: 1, offset: 6 } } }] };
  markSpans([{ id: 's', start: 4, end: 6, className: 'mark', title: '' }])(tree);
  expect(piecesOf(tree).map((p) => [p.properties.dataStart, p.properties.dataEnd, p.properties.dataSpans])).toEqual([[0, 6, 's']]);
});
