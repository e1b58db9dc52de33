import { expect, test } from '@jest/globals';
import { HAS_VALUES, parseQuery } from './index.ts';

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
      { code: 'query_value_unknown', field: 'has', value: 'wings', known: HAS_VALUES, at: 11 },
    ],
  });
});

test('a value that cannot match is a problem; spelling and spaces are not', () => {
  const problemsOf = (text: string) => parseQuery(text).problems.map((p) => ('value' in p ? `${p.field} ${p.value} ${p.known.length}` : p.code));
  expect(problemsOf('state:foo priority:urgent covers:C-3 covers:nothing id:x')).toEqual(['state foo 5', 'priority urgent 3', 'covers C-3 0', 'covers nothing 0', 'id x 0']);
  expect(parseQuery('state:"in review" execution:byhand covers:k-3 state:ANY')).toEqual({
    terms: [['state', 'inReview'], ['execution', 'byHand'], ['covers', 'k-3'], ['state', 'any']].map(([field, value]) => ({ kind: 'field', field, value, not: false })),
    problems: [],
  });
});
