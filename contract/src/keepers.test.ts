import { expect, test } from '@jest/globals';
import { keepersRenamed, keepersSchema, modulesKeptFrom, withKeepers, type Keepers } from './keepers.ts';

const [RUI, INES] = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'];
const KEPT: readonly Keepers[] = [{ module: 'Billing', people: [RUI] }, { module: 'Readings', people: [RUI, INES] }];

test('a module is kept from whoever is not among its people, and from no lead', () => {
  expect([modulesKeptFrom(KEPT, { id: RUI, role: 'analyst' }), modulesKeptFrom(KEPT, { id: INES, role: 'analyst' }), modulesKeptFrom(KEPT, { id: 'gone', role: 'analyst' })]).toEqual([[], ['Billing'], ['Billing', 'Readings']]);
  expect([modulesKeptFrom(KEPT, { id: 'x', role: 'lead' }), modulesKeptFrom(KEPT, { id: 'x', role: 'administrator' })]).toEqual([[], []]);
});

test('a module is kept by others, or by nobody any more, and the others stay', () => {
  expect(withKeepers(KEPT, 'Billing', [INES])).toEqual([KEPT[1], { module: 'Billing', people: [INES] }]);
  expect(withKeepers(KEPT, 'Billing', [])).toEqual([KEPT[1]]);
});

test('a renamed module is kept by the same people; joined with another, by those of both', () => {
  expect(keepersRenamed(KEPT, 'Billing', 'Bills')).toEqual([KEPT[1], { module: 'Bills', people: [RUI] }]);
  expect(keepersRenamed(KEPT, 'Readings', 'Billing')).toEqual([{ module: 'Billing', people: [RUI, INES] }]);
  expect(keepersRenamed(KEPT, 'Leaks', 'Billing')).toEqual(KEPT);
});

test.each([
  ['a module twice', [KEPT[0], KEPT[0]]],
  ['nobody', [{ module: 'Billing', people: [] }]],
  ['somebody twice', [{ module: 'Billing', people: [RUI, RUI] }]],
  ['no name', [{ module: ' ', people: [RUI] }]],
])('%s is refused', (_, keepers) => {
  expect(keepersSchema.safeParse(keepers).success).toBe(false);
  expect(keepersSchema.safeParse(KEPT).success).toBe(true);
});
