import { expect, test } from '@jest/globals';
import { ownField } from '../../test/ownField.ts';
import { ownName, ownNamed, ownShown } from './ownNamed.ts';

const fields = [ownField('Runs on', 'choices', ['Web', 'Kiosk']), ownField('Old', 'choice', ['Red'], { removed: true })];

test('what stands in fields of the project’s own is compared by names and as it is seen; what nobody knows as it is stored', () => {
  const content = { title: 'T', own: { 'runs-on': ['kiosk', 'web'], old: 'red', lost: ['x'] } };
  expect(ownNamed(content, fields)).toEqual({ title: 'T', own: { 'Runs on': 'Web, Kiosk', 'Old (removed)': 'Red', lost: ['x'] } });
  expect([ownNamed({ title: 'T' }, fields), ownNamed('a text', fields), ownName('lost', fields), ownShown('old', 7, fields)]).toEqual([{ title: 'T' }, 'a text', 'lost', 7]);
});
