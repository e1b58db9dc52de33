import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CaseId } from '../artefacts/index.ts';
import { testField } from '../fields/testField/index.ts';
import { matchesQuery, parseQuery } from '../find/index.ts';
import { groupQuery, grouped, groupsOf, ownColumn, type Listed } from './index.ts';

const now = Date.parse('2026-11-28T10:00:00Z');
const fields = [testField('Runs on', 'choices', { choices: ['Phone', 'Self service'] }), testField('Cost', 'number'), testField('Owner', 'text'), testField('Spoken of', 'yesNo')];
const project = { fields, modules: [], priorities: [] };
const asking = { name: '', now };

test('finds whoever stands in the group; of closed sets nobody else', () => {
  const some = fc.record({
    state: fc.constantFrom('draft', 'inReview', 'agreed'), owner: fc.constantFrom('', 'Rui M.', 'ana'), tags: fc.subarray(['two words', 'a:b', 'or']), modules: fc.subarray(['', 'Zulu (old)', '-x']), priority: fc.constantFrom('high', 'must have'),
    caseKind: fc.constantFrom('procedure', 'charter'), execution: fc.constantFrom('byHand', 'automated'), requirements: fc.subarray(['R-1', 'R-12'] as const),
    own: fc.record({ 'runs-on': fc.subarray(['phone', 'self-service'], { minLength: 1 }), cost: fc.constantFrom('10', '-2.5'), owner: fc.constantFrom('me', 'us two'), 'spoken-of': fc.constantFrom('yes', 'no') }, { requiredKeys: [] }),
  });
  fc.assert(
    fc.property(fc.array(some, { maxLength: 20 }), fc.constantFrom(...groupsOf('case', fields)), (parts, column) => {
      const list = parts.map((part, i): Listed => ({ kind: 'case', id: `C-${i + 1}` as CaseId, title: '', version: 1, author: '', at: '2026-11-28T09:00:00Z', broken: false, ...part }));
      for (const { value, members } of grouped(list, column, now, project)) {
        const query = groupQuery(column, value, fields);
        if (query === null) {
          // What no query says: how long ago, and that nobody saved it.
          expect([column, value]).toEqual(column === 'updated' ? ['updated', 'today'] : ['author', null]);
          continue;
        }
        const read = parseQuery(query, fields);
        expect([query, read.problems]).toEqual([query, []]);
        expect([query, list.filter((l) => matchesQuery(read, l, () => null, asking))]).toEqual([query, members]);
      }
    }),
    { seed: 3 },
  );
});

test('what cannot be written in a query, or is no column any more, is not', () => {
  expect([groupQuery('tags', 'a "b"', fields), groupQuery('folder', 'f', fields), groupQuery('folder', null, fields), groupQuery(ownColumn('gone' as never), 'x', fields)]).toEqual([null, null, null, null]);
});
