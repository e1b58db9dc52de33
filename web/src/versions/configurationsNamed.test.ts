import { expect, test } from '@jest/globals';
import { configurationsNamed } from './configurationsNamed.ts';

test('where a suite runs is compared by names; what is gone as it is stored, and nothing else is touched', () => {
  const there = [{ id: 'k1', name: 'Counter', factors: [] }, { id: 'k2', name: 'Telephone', factors: [] }];
  const entries = [{ kind: 'member', id: 'm', of: 'C-1', runsIn: null }, { kind: 'part', id: 'p', title: 'k1', runsIn: ['k2', 'gone'] }, { kind: 'part', id: 'q', runsIn: [] }];
  expect(configurationsNamed({ title: 'k1', configurations: ['k1', 'k2'], entries }, there)).toEqual({
    title: 'k1', configurations: 'Counter, Telephone', entries: [{ kind: 'member', id: 'm', of: 'C-1', runsIn: '' }, { kind: 'part', id: 'p', title: 'k1', runsIn: 'Telephone, gone' }, { kind: 'part', id: 'q', runsIn: 'none' }],
  });
  for (const other of ['a text', { title: 'A case' }, { configurations: [{ id: 'k1' }] }]) expect(configurationsNamed(other, there)).toBe(other);
});
