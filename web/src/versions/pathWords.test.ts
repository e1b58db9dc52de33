import { expect, test } from '@jest/globals';
import { pathWords } from './pathWords.ts';

const content = {
  title: 'T',
  steps: [{ id: 's9', action: 'a', expected: '' }, { id: 's3', action: 'b', expected: 'c' }],
  parameters: [{ id: 'p1', name: 'reading', default: '' }],
  rows: [{ id: 'r1', name: 'usual', cells: { p1: '4' } }],
  model: { kind: 'decisionTable', conditions: [{ id: 'c1', name: 'arrears', values: [{ id: 'v1', value: 'yes' }] }] },
  parts: [{ id: 'h', lines: [{ id: 'l1', text: '# only a comment' }] }, { id: 'p', lines: [{ id: 'l2', text: '  @smoke' }, { id: 'l3', text: '  Scenario: The dial rolls over' }, { id: 'l4', text: '    Given x' }] }, { id: 'b', lines: [{ id: 'l5', text: 'Background:' }] }],
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
  ['parts/p/lines/l4/text', '“Scenario: The dial rolls over”, line 3'],
  ['parts/b/kind', '“Background:”, kind'],
  ['parts/h/lines/l1/text', 'Part 1, line 1'],
  ['parts/p/lines/(order)', '“Scenario: The dial rolls over”, lines, order'],
])('%s is “%s”', (path, words) => expect(pathWords(path, [content])).toBe(words));

test('what one side removed is called by what the other has', () => expect(pathWords('steps/s3', [{ ...content, steps: content.steps.slice(0, 1) }, content])).toBe('Step 2'));
