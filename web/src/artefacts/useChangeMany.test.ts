import { expect, test } from '@jest/globals';
import type { ArtefactId } from '@caderno/core/artefacts';
import { leftSentence } from './useChangeMany.ts';

test('what was left is named with its reason, the first five of many', () => {
  const left = (n: number) => ({ id: `C-${n}` as ArtefactId, reason: 'broken' as const });
  expect(leftSentence([{ id: 'Q-1', reason: 'otherKind' }])).toBe('Left as it is: Q-1 (has no such thing).');
  expect(leftSentence([1, 2, 3, 4, 5, 6, 7].map(left))).toBe('Left as they are: C-1 (cannot be read), C-2 (cannot be read), C-3 (cannot be read), C-4 (cannot be read), C-5 (cannot be read), and 2 more.');
});
