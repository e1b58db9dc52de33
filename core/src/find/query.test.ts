import { expect, test } from '@jest/globals';
import { parseQuery } from './index.ts';

test('fields, words, quotes and negation', () => {
  expect(parseQuery('state:draft module:"Tariff bands" -has:row "roll over" meter')).toEqual({
    terms: [
      { kind: 'field', field: 'state', value: 'draft', not: false },
      { kind: 'field', field: 'module', value: 'Tariff bands', not: false },
      { kind: 'field', field: 'has', value: 'rows', not: true },
      { kind: 'words', words: 'roll over', not: false },
      { kind: 'words', words: 'meter', not: false },
    ],
    problems: [],
  });
});

test('what is not understood is a problem with its place, and no term', () => {
  expect(parseQuery('colour:red has:wings ok')).toEqual({
    terms: [{ kind: 'words', words: 'ok', not: false }],
    problems: [
      { code: 'query_field_unknown', field: 'colour', at: 0 },
      { code: 'query_value_unknown', field: 'has', value: 'wings', at: 11 },
    ],
  });
});
