import { describe, expect, test } from '@jest/globals';
import { EMPTY_CASE, looksAt, parameterId, plainStep, stepId, withActionsSplit, type CaseContent, type LookContext } from './index.ts';

const CONTEXT: LookContext = { surfaced: new Set(), usesExpect: false, neighbours: [], off: [] };
const written = (...steps: (readonly [string, string?])[]): CaseContent => ({ ...EMPTY_CASE, steps: steps.map(([action, expected], i) => plainStep(stepId(`s${i}`), action, expected)) });
const looks = (content: CaseContent, rule: string, context: Partial<LookContext> = {}) => looksAt(content, { ...CONTEXT, ...context }).filter((l) => l.rule === rule);

describe('several actions in one step', () => {
  const split = (action: string): readonly string[] => looks(written([action]), 'severalActions').flatMap((l) => (l.rule === 'severalActions' ? l.actions : []));
  test.each([
    ['Open the ledger and enter <reading>', ['Open the ledger', 'Enter <reading>']],
    ['Sign in. Open the meter, enter 5 and then save.', ['Sign in', 'Open the meter', 'Enter 5', 'Save']],
    ['open the form; then press Send', ['Open the form', 'Press Send']],
  ])('%s', (action, actions) => expect(split(action)).toEqual(actions));
  test.each(['Enter the name and the address', 'The clerk opens and closes it', 'Search and rescue', 'Open <a and enter b>'])('but not: %s', (action) => expect(split(action)).toEqual([]));
  test('cut up, what is expected and the links to it stay with the last', () => {
    const content = written(['Open it and enter 5', 'It is taken'], ['Wait']);
    let n = 0;
    const cut = withActionsSplit(content, stepId('s0'), ['Open it', 'Enter 5'], () => stepId(`n${(n += 1)}`));
    expect(cut.steps).toEqual([plainStep(stepId('n1'), 'Open it'), plainStep(stepId('s0'), 'Enter 5', 'It is taken'), content.steps[1]]);
  });
});

describe('an expectation hidden in an action', () => {
  const mended = (action: string, expected = '') => looks(written([action, expected]), 'hiddenExpectation').map((l) => l.rule === 'hiddenExpectation' && l.mended);
  test.each([
    ['Check that the bill is 4.20', { action: '', expected: 'The bill is 4.20' }],
    ['Enter 5 and verify that it is refused.', { action: 'Enter 5', expected: 'It is refused' }],
    ['Press Send. A receipt should appear', { action: 'Press Send', expected: 'A receipt should appear' }],
  ])('%s', (action, expected) => expect(mended(action)).toEqual([expected]));
  test('what is expected already comes first', () => expect(mended('Make sure that it is blue', 'It is there.')).toEqual([{ action: '', expected: 'It is there. It is blue' }]));
  test.each(['Enter the amount that must be paid', 'Confirm the payment', 'Check the box'])('but not: %s', (action) => expect(mended(action)).toEqual([]));
});

test('vague words of both texts, once each; names of parameters are no wording', () => {
  const content = written(['Wait some time', 'It works correctly, etc.'], ['Enter <some amount>', 'the bill is 4.20']);
  expect(looks(content, 'vagueWording')).toEqual(['some', 'works correctly', 'etc.'].map((words) => ({ rule: 'vagueWording', step: 's0', words })));
});

test('nothing expected anywhere, unless something it uses says so, or it is a charter', () => {
  expect(looks(written(['a'], ['b']), 'noExpectedResult')).toHaveLength(1);
  expect(looks(written(['a'], ['b', 'c']), 'noExpectedResult')).toEqual([]);
  expect(looks(written(['a']), 'noExpectedResult', { usesExpect: true })).toEqual([]);
  expect(looks({ ...written(['a']), kind: 'charter' }, 'noExpectedResult')).toEqual([]);
  expect(looks(EMPTY_CASE, 'noExpectedResult')).toEqual([]);
});

test('much longer than its neighbours, of which there must be some', () => {
  const long = written(...Array.from({ length: 17 }, () => ['a'] as const));
  expect(looks(long, 'muchLonger', { neighbours: [3, 8, 8, 9] })).toEqual([{ rule: 'muchLonger', steps: 17, usual: 8 }]);
  expect(looks(long, 'muchLonger', { neighbours: [3, 8, 9, 9] })).toEqual([]);
  expect(looks(long, 'muchLonger', { neighbours: [3, 3, 3] })).toEqual([]);
});

test('a parameter that stands nowhere, and rules that are switched off', () => {
  const content = { ...written(['enter <a>']), parameters: ['a', 'b', 'c'].map((name) => ({ id: parameterId(name), name, type: 'text' as const, default: '', description: '' })) };
  expect(looks(content, 'unusedParameter', { surfaced: new Set(['c']) })).toEqual([{ rule: 'unusedParameter', name: 'b' }]);
  expect(looksAt(content, { ...CONTEXT, off: ['unusedParameter', 'noExpectedResult'] })).toEqual([]);
});
