import { expect, test } from '@jest/globals';
import { ago } from './ago.ts';

test('how long ago: just now within a minute, and by a clock that is ahead; then in one unit', () => {
  const before = (seconds: number) => ago(new Date(Date.now() - seconds * 1_000).toISOString());
  expect([-90, -1, 0, 59].map(before)).toEqual(['just now', 'just now', 'just now', 'just now']);
  expect([60, 45 * 60, 7_200, 12 * 86_400].map(before)).toEqual(['1 minute ago', '45 minutes ago', '2 hours ago', '12 days ago']);
});
