import { expect, test } from '@jest/globals';
import { FIRST_PRIORITIES, priorityNamed, usualPriority } from './index.ts';
import { readPriority } from '../exchange/index.ts';

test('what is new begins in the middle of the list, the higher of two', () => {
  expect([usualPriority(FIRST_PRIORITIES), usualPriority(['now', 'later']), usualPriority(['P0', 'P1', 'P2', 'P3'])]).toEqual(['medium', 'now', 'P1']);
});

test('a priority is known by its name in any capitals; other spellings count only where the project has what they mean', () => {
  const own = ['P1', 'High', 'Someday'];
  expect([priorityNamed(' p1 ', own), priorityNamed('urgent', own)]).toEqual(['P1', null]);
  expect(['Critical', 'P1', 'nice to have', 'SOMEDAY', ''].map((text) => readPriority(text, own))).toEqual(['High', 'P1', null, 'Someday', null]);
  expect(['P1', 'should have', 'Low', 'urgent'].map((text) => readPriority(text, FIRST_PRIORITIES))).toEqual(['high', 'medium', 'low', null]);
});
