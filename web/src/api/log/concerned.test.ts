import { expect, test } from '@jest/globals';
import type { Summary } from '@caderno/contract';
import type { QueryKey } from '@tanstack/react-query';
import { isConcerned } from './concerned.ts';
import { headsOf } from './headLists.ts';
import type { Changes } from './projectLog.ts';

const summary = { kind: 'shared', id: 'S-1', title: 't', state: 'draft', version: 2, meaningSince: 1, agreed: null, module: '', author: 'a', at: '2026-01-01T00:00:00.000Z', broken: false, own: {}, tags: [], steps: 1, parameters: [], phrases: [] } as const satisfies Summary;
const changes = (part: Partial<Changes>): Changes => ({ kind: 'changes', since: 1, revision: 2, heads: [], gone: [], touched: [], settings: false, suspectLinks: 0, ...part });
const concerned = (key: QueryKey, data: unknown, part: Partial<Changes>): boolean => isConcerned({ queryKey: ['p', ...key], state: { data } as never }, changes(part), headsOf([summary]));

test('what is shown around an artefact is read again when that changed, and when something now links to it', () => {
  const design = { conditions: [{ id: 'K-1' }], cases: [{ id: 'C-1' }] };
  const around = ['coverage', 'design', { requirement: 'R-1' }];
  expect(concerned(around, design, { touched: [{ id: 'C-1', to: [] }] })).toBe(true);
  expect(concerned(around, design, { touched: [{ id: 'C-9', to: ['K-1'] }] })).toBe(true);
  expect(concerned(around, design, { touched: [{ id: 'K-9', to: ['R-1'] }] })).toBe(true);
  expect(concerned(around, design, { gone: ['C-1'] })).toBe(true);
  expect(concerned(around, design, { touched: [{ id: 'C-11', to: ['K-11', 'R-10'] }] })).toBe(false);
  expect(concerned(around, design, { settings: true })).toBe(true);
});

test('ids within texts and keys of versions count, numbers that only begin alike do not', () => {
  expect(concerned(['list', 'library', 'S-1@3,D-1'], undefined, { touched: [{ id: 'S-1', to: [] }] })).toBe(true);
  expect(concerned(['list', 'library', 'S-12'], undefined, { touched: [{ id: 'S-1', to: [] }] })).toBe(false);
});

test('what one saved oneself is not read once more; what somebody else made of it is', () => {
  const key = ['artefact', 'S-1'];
  const touched = [{ id: 'S-1' as const, to: [] }];
  expect(concerned(key, { summary }, { touched })).toBe(false);
  expect(concerned(key, { summary: { ...summary, version: 1 } }, { touched })).toBe(true);
  expect(concerned(key, { summary: { ...summary, state: 'agreed' } }, { touched })).toBe(true);
  // The answer to the next save came before the change of the one before was told.
  expect(concerned(key, { summary: { ...summary, version: 3 } }, { touched })).toBe(false);
  expect(concerned([...key, 'versions'], [], { touched })).toBe(true);
  // A neighbour that links to the same, or to it, leaves its content what it was.
  const linked = { summary: { ...summary, version: 1 }, content: { covers: [{ id: 'K-1' }] } };
  expect([concerned(key, linked, { touched: [{ id: 'C-2', to: ['K-1', 'S-1'] }] }), concerned(key, linked, { gone: ['S-1'] })]).toEqual([false, true]);
});

test('a list of items is read again when one of its conditions or cases is another, though it stands as before', () => {
  const items = { items: [{ condition: 'K-1', conditionTitle: 'renamed since', cases: ['C-4'] }], total: 1 };
  const of = (id: 'K-1' | 'C-4' | 'C-5') => concerned(['coverage', 'items', { standing: 'gap' }], items, { touched: [{ id, to: [] }] });
  expect([of('K-1'), of('C-4'), of('C-5')]).toEqual([true, true, false]);
});

test('lists by their kinds; versions never; what nobody thought of always', () => {
  const touched = [{ id: 'C-1' as const, to: [] }];
  expect([['list', 'texts'], ['list', 'graph'], ['version', 'C-1', 2], ['journal', 'all'], ['coverage', 'items', {}], ['settings'], ['something new']].map((key) => concerned(key, {}, { touched }))).toEqual([false, true, false, true, false, false, true]);
});

test('the suites a case is in hang on that case and on any suite, not on what somebody saves beside', () => {
  const suites = [{ id: 'U-1', members: [{ of: 'C-1' }] }];
  const of = (part: Partial<Changes>) => concerned(['list', 'suitesOf', 'C-1'], suites, part);
  expect([of({ touched: [{ id: 'C-1', to: [] }] }), of({ touched: [{ id: 'U-9', to: ['C-4'] }] }), of({ gone: ['U-1'] }), of({ touched: [{ id: 'C-2', to: ['K-1'] }] }), of({ touched: [{ id: 'S-1', to: [] }] })]).toEqual([true, true, true, false, false]);
});
