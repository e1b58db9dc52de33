import { expect, test } from '@jest/globals';
import { nextSequence } from './draftSequence.ts';

test('what is typed later counts more, within a millisecond and after the clock was set back', () => {
  const [first, second, back, later] = [nextSequence(1_000), nextSequence(1_000), nextSequence(500), nextSequence(2_000)];
  expect([second > first, back > second, later]).toEqual([true, true, 2_000]);
});
