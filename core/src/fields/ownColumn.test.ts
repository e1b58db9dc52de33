import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ownColumnName, ownFieldOfColumn, ownQueryName, takenNames, type OwnField } from './index.ts';
import { testField } from './testField/index.ts';

const TAKEN = takenNames(['priority', 'Coverage %', 'expected result']);

test.each([
  ['Channel', 'Channel'],
  ['Priority', 'own.Priority'],
  ['PRIORITY', 'own.PRIORITY'],
  ['Expected   result', 'own.Expected   result'],
  ['Priority of the board', 'Priority of the board'],
])('a field called %j stands in a column called %j', (name, column) => {
  expect(ownColumnName({ name }, TAKEN)).toBe(column);
});

test('a column is found however it is spelt, and a column of ours is never a field’s', () => {
  const fields = [testField('Channel', 'text'), testField('Priority', 'text')];
  expect(['channel', ' CHANNEL ', 'own.priority', 'Own Priority', 'priority', 'Priority', 'coverage %', 'elsewhere'].map((name) => ownFieldOfColumn(name, fields, TAKEN)?.name ?? null)).toEqual(['Channel', 'Channel', 'Priority', 'Priority', null, null, null, null]);
});

test('whatever fields a project has, each is found again by the column it is written to', () => {
  const names = fc.uniqueArray(fc.oneof(fc.constantFrom('Priority', 'own priority', 'Coverage %', 'Coverage', 'Channel', 'expected result'), fc.string({ minLength: 1, maxLength: 12 }).filter((name) => ownQueryName(name) !== '')), { selector: ownQueryName, maxLength: 6 });
  fc.assert(
    fc.property(names, (all) => {
      const fields = all.map((name): OwnField => testField(name, 'text'));
      for (const field of fields) expect(ownFieldOfColumn(ownColumnName(field, TAKEN), fields, TAKEN)).toBe(field);
    }),
    { numRuns: 500 },
  );
});
