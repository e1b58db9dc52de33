import { expect, test } from '@jest/globals';
import { parameterId, plainStep, stepId, type Parameter } from '@caderno/core/cases';
import { putSteps, takeSteps } from './stepClipboard.ts';
import { newUse } from './stepEdits.ts';

const clipboard = () => {
  const kept = new Map<string, string>();
  return { setData: (type: string, text: string) => void kept.set(type, text), getData: (type: string) => kept.get(type) ?? '' };
};
const parameter = (name: string): Parameter => ({ id: parameterId(name), name, type: 'text', default: '', description: '' });
const steps = [plainStep(stepId('a'), 'Type <reading>', 'It says <answer>'), newUse('S-3'), plainStep(stepId('b'), 'Save')];

test('steps come back as they are, with the parameters they name and no others, in their own project only', () => {
  const data = clipboard();
  putSteps(data, 'mine', steps, [parameter('reading'), parameter('answer'), parameter('other')]);
  const taken = takeSteps(data, 'mine');
  expect(taken?.steps).toEqual(steps);
  expect(taken?.parameters.map((p) => p.name)).toEqual(['reading', 'answer']);
  expect(takeSteps(data, 'another')).toBeNull();
  expect(data.getData('text/plain')).toBe('Type <reading>\tIt says <answer>\nS-3\nSave');
});

test.each(['', 'no json', '{"project":"mine","steps":[{"kind":"step"}],"parameters":[]}'])('what any page may have put there is not taken: %s', (text) => {
  const data = clipboard();
  data.setData('application/x-caderno-steps', text);
  expect(takeSteps(data, 'mine')).toBeNull();
});
