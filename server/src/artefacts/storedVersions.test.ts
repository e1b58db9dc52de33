import { createHash } from 'node:crypto';
import { expect, test } from '@jest/globals';
import { EMPTY_CASE } from '@caderno/core/cases';
import { contentHash, storedContent } from './storedVersions.ts';

test('a content is stored as the text its hash is of, which does not depend on the order of its names', () => {
  const content = { ...EMPTY_CASE, title: 'Read the meter "by hand"', tags: ['b', 'a'] };
  const { text, hash } = storedContent({ kind: 'case', content });
  expect(JSON.parse(text)).toEqual(content);
  expect(hash).toBe(createHash('sha256').update(text).digest('hex'));
  const turned = Object.fromEntries(Object.entries(content).reverse());
  expect(contentHash(turned)).toBe(hash);
  expect(contentHash({ ...content, tags: ['a', 'b'] })).not.toBe(hash);
});
