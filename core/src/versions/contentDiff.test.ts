import { expect, test, describe } from '@jest/globals';
import fc from 'fast-check';
import { applyDiff, asJson, canonicalText, diffContent, reverseDiff, sameJson, unmoved, type Json } from './index.ts';

const leaf = fc.oneof(fc.constantFrom('a', 'b', '', 'c'), fc.integer({ min: 0, max: 3 }), fc.boolean(), fc.constant(null));
const step = fc.record({ id: fc.constantFrom('s1', 's2', 's3', 's4'), action: leaf, cells: fc.dictionary(fc.constantFrom('p', 'q'), leaf) });
const content: fc.Arbitrary<Json> = fc.record({ title: leaf, tags: fc.array(fc.constantFrom('x', 'y'), { maxLength: 3 }), steps: fc.uniqueArray(step, { selector: (s) => s.id, maxLength: 4 }) }, { requiredKeys: ['steps'] });

describe('laws', () => {
  test('applying the difference leads there, its reverse leads back', () => {
    fc.assert(
      fc.property(content, content, (a, b) => {
        const diff = diffContent(a, b);
        expect(applyDiff(diff, a)).toEqual(b);
        expect(applyDiff(reverseDiff(diff), b)).toEqual(a);
        expect(reverseDiff(reverseDiff(diff))).toEqual(diff);
      }),
    );
  });
  test('the difference is `same` exactly when the content is', () => {
    fc.assert(fc.property(content, content, (a, b) => (diffContent(a, b).kind === 'same') === (canonicalText(a) === canonicalText(b)) && diffContent(a, a).kind === 'same'));
  });
  test('nothing changed: the same object comes back', () => {
    const a = { steps: [] };
    expect(applyDiff(diffContent(a, { steps: [] }), a)).toBe(a);
  });
});

test('canonical text does not depend on the order of names', () => {
  expect(canonicalText({ b: 1, a: [{ y: null, x: '"' }] })).toBe(canonicalText({ a: [{ x: '"', y: null }], b: 1 }));
  expect(sameJson([1, 2], [2, 1])).toBe(false);
});

test('canonical text is JSON with its names in the order of their letters; a name without a value is left out', () => {
  fc.assert(fc.property(fc.jsonValue(), (value) => expect(JSON.parse(canonicalText(value as Json))).toEqual(JSON.parse(JSON.stringify(value)))));
  // Objects put names that are numbers first, in their order as numbers.
  expect(canonicalText({ b: [], '10': 'ten', '9': null, ä: {} })).toBe('{"10":"ten","9":null,"b":[],"ä":{}}');
  expect(canonicalText(asJson({ kept: 1, gone: undefined, in: [{ gone: undefined }] }))).toBe('{"in":[{}],"kept":1}');
});

test('a moved step is moved, not removed and added', () => {
  const s = (id: string) => ({ id, action: id });
  const diff = diffContent({ steps: [s('a'), s('b'), s('c'), s('d')] }, { steps: [s('d'), s('a'), s('b'), s('c')] });
  expect(diff).toMatchObject({ kind: 'record', fields: { steps: { kind: 'list', added: [], removed: [], changed: {} } } });
  expect([...unmoved(['a', 'b', 'c', 'd'], ['d', 'a', 'b', 'c'])]).toEqual(['a', 'b', 'c']);
});

test('two contents are the same when their canonical texts are', () => {
  let same = 0;
  fc.assert(
    fc.property(content, content, fc.boolean(), (a, b, equal) => {
      const other = equal ? (JSON.parse(JSON.stringify(a)) as Json) : b;
      expect(sameJson(a, other)).toBe(canonicalText(a) === canonicalText(other));
      if (sameJson(a, other)) same += 1;
    }),
  );
  expect(same).toBeGreaterThan(20);
});
