import { describe, expect, test } from '@jest/globals';
import { NO_ITEMS, type CoverageRow } from '@caderno/core/coverage';
import { aroundHeads, findableOf } from './findable.ts';
import type { Summary } from './kinds/index.ts';

const common = { state: 'draft', version: 1, meaningSince: 1, agreed: null, module: '', author: 'Rui M.', at: '2026-01-01T00:00:00Z', broken: false, own: {} } as const;
const requirement = (n: number, module: string, risk: 'high' | 'medium' | 'low'): Summary => ({ kind: 'requirement', id: `R-${n}`, title: `R${n}`, ...common, module, parent: null, position: n, type: 'rule', sourceId: '', risk, priority: 'low' });
const condition = (n: number, requirements: `R-${number}`[], risk: 'high' | 'low' | null = null): Summary & { kind: 'condition' } => ({ kind: 'condition', id: `K-${n}`, title: `K${n}`, ...common, model: 'decisionTable', polarity: 'both', risk, requirements, depths: ['smoke'] });
const testCase = (covers: `K-${number}`[]): Summary & { kind: 'case' } => ({ kind: 'case', id: 'C-1', title: 'C', ...common, module: 'Own', priority: 'low', tags: [], owner: '', caseKind: 'procedure', execution: 'byHand', steps: 1, expected: 1, rows: 0, dataSet: null, estimate: null, covers });

const heads: readonly Summary[] = [requirement(1, 'Meters', 'medium'), requirement(2, 'Bills', 'high'), condition(1, ['R-1', 'R-2']), condition(2, ['R-1', 'R-9'], 'low'), condition(3, [])];
const rows: readonly CoverageRow[] = [
  { kind: 'condition', id: 'K-1', weight: 1, standings: ['shown', 'gap', 'gap'], techniques: ['plain', 'plain', 'plain'] },
  { kind: 'case', id: 'C-1', shows: true, counts: null },
];
const around = aroundHeads({ heads: new Map(heads.map((head) => [head.id, head])), rows: new Map(rows.map((row) => [row.id, row])), requirements: () => new Map([['R-1', { ...NO_ITEMS, linked: 4 }]]) });

describe('a condition', () => {
  test('has the modules of its requirements, and of those without a risk of its own the highest', () => {
    expect(findableOf(condition(1, ['R-1', 'R-2']), around, {})).toMatchObject({ modules: ['Meters', 'Bills'], risk: 'high', technique: 'decisionTable', depths: ['smoke'] });
    expect(findableOf(condition(2, ['R-1', 'R-9'], 'low'), around, {})).toMatchObject({ modules: ['Meters'], risk: 'low' });
    expect(findableOf(condition(3, []), around, {})).toMatchObject({ modules: [], risk: '' });
  });
  test('has the items of its row; without one nothing is known of them', () => {
    expect(findableOf(condition(1, []), around, {}).standings).toEqual({ ...NO_ITEMS, shown: 1, gap: 2 });
    expect(findableOf(condition(2, []), around, {})).not.toHaveProperty('standings');
  });
});

test('a requirement has the items it is counted with, when it is', () => {
  expect([findableOf(requirement(1, 'Meters', 'low'), around, {}).standings, findableOf(requirement(2, 'Bills', 'low'), around, {})]).toEqual([{ ...NO_ITEMS, linked: 4 }, expect.not.objectContaining({ standings: expect.anything() })]);
});

test('a case has the requirements of the conditions it covers, each once; one that is gone brings none', () => {
  expect(findableOf(testCase(['K-1', 'K-2', 'K-77']), around, {})).toMatchObject({ modules: ['Own'], requirements: ['R-1', 'R-2', 'R-9'], shows: true });
  expect(findableOf({ ...testCase([]), id: 'C-2' }, around, {})).toMatchObject({ requirements: [], shows: false });
  expect(findableOf(testCase([]), around, { instances: 7 })).toMatchObject({ id: 'C-1', title: 'C', instances: 7 });
});

test('whom a question is asked of owns it', () => {
  expect(findableOf({ kind: 'question', id: 'Q-1', title: 'Q', ...common, status: 'open', asked: 'Olga S.', about: ['R-1'], answeredAt: '' }, around, {})).toMatchObject({ owner: 'Olga S.', about: ['R-1'] });
});
