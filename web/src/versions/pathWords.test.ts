import { expect, test } from '@jest/globals';
import { pathWords } from './pathWords.ts';

const content = {
  title: 'T',
  steps: [{ id: 's9', action: 'a', expected: '' }, { id: 's3', action: 'b', expected: 'c' }],
  parameters: [{ id: 'p1', name: 'reading', default: '' }],
  rows: [{ id: 'r1', name: 'usual', cells: { p1: '4' } }],
  model: { kind: 'decisionTable', conditions: [{ id: 'c1', name: 'arrears', values: [{ id: 'v1', value: 'yes' }] }] },
};

test.each([
  ['title', 'Title'],
  ['steps/s3/expected', 'Step 2, expected result'],
  ['steps/(order)', 'Steps, order'],
  ['steps/gone', 'Step that was removed'],
  ['parameters/p1/default', 'Parameter <reading>, default'],
  ['rows/r1/name', 'Row “usual”, name'],
  ['model/conditions/c1/values/v1/value', 'Model, condition “arrears”, value 1, value'],
  ['leftOut', 'Left out'],
])('%s is “%s”', (path, words) => expect(pathWords(path, [content])).toBe(words));

test('what one side removed is called by what the other has', () => expect(pathWords('steps/s3', [{ ...content, steps: content.steps.slice(0, 1) }, content])).toBe('Step 2'));
