import { expect, test } from '@jest/globals';
import { pathProblem } from './pathProblem.ts';

const at = (id: `F-${number}`, path: string, state: 'draft' | 'withdrawn' = 'draft') => ({ id, path, state });

test('a path that names no file is told with what to write, before a save would be refused', () => {
  for (const path of ['', 'bills/', '/bill.feature', 'a//b.feature', '../b.feature', 'a\\b.feature']) expect([path, pathProblem('F-1', path, [])]).toEqual([path, expect.stringContaining('as bills/bill.feature')]);
  expect(pathProblem('F-1', 'bills/bill.feature', [])).toBeNull();
});

test('another feature at the same place is named; itself and withdrawn ones are not', () => {
  expect(pathProblem('F-1', 'b.feature', [at('F-1', 'b.feature'), at('F-2', 'b.feature', 'withdrawn'), at('F-3', 'a/b.feature')])).toBeNull();
  expect(pathProblem('F-1', 'b.feature', [at('F-1', 'b.feature'), at('F-4', 'b.feature')])).toMatch(/^F-4 stands at the same place/);
});
