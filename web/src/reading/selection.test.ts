import { expect, test } from '@jest/globals';
import type { CaseSummary } from '@caderno/contract';
import { lasting, namedCases, readingOrder } from './selection.ts';

const summary = (n: number, state: CaseSummary['state'] = 'draft'): CaseSummary => ({ kind: 'case', id: `C-${n}`, title: '', state, version: 1, meaningSince: 1, agreed: null, module: '', author: '', at: '', broken: false, own: {}, priority: 'low', tags: [], owner: '', caseKind: 'procedure', execution: 'byHand', expected: 0, steps: 0, rows: 0, dataSet: null, estimate: null, covers: [] });

test('the cases an address names are read in its order, each once, whatever else stands there', () => {
  const search = new URLSearchParams({ cases: 'C-7,C-3,C-7,R-1,C-0,,<script>' });
  expect(namedCases(search)).toEqual(['C-7', 'C-3']);
  expect(readingOrder(search, [summary(1)])).toEqual(['C-7', 'C-3']);
});

test('scenarios are read as cases are: named, or all of the feature that is read', () => {
  expect(namedCases(new URLSearchParams('cases=F-2/7,F-2,C-1,F-2/0'))).toEqual(['F-2/7', 'C-1']);
  const scenario = (number: number) => ({ number, name: '', tags: [], steps: 1, instances: 1 });
  expect(readingOrder(new URLSearchParams(), [summary(1)], { id: 'F-2', scenarios: [scenario(3), scenario(1)] })).toEqual(['F-2/3', 'F-2/1']);
});

test('without a selection all cases are read but withdrawn ones', () => {
  expect(readingOrder(new URLSearchParams('cases=nonsense'), [summary(2), summary(1, 'withdrawn'), summary(5, 'agreed')])).toEqual(['C-2', 'C-5']);
});

test('from case to case the selection and the configuration stay, and nothing else', () => {
  expect(lasting(new URLSearchParams('instance=4&cases=C-1&in=k2')).toString()).toBe('cases=C-1&in=k2');
});
