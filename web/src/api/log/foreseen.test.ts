import { describe, expect, test } from '@jest/globals';
import type { ChangeMany, Summary } from '@caderno/contract';
import { caseHead } from '../../../test/heads.ts';
import { conditionHead, questionHead, requirementHead } from '../../../test/standInProject.ts';
import { foreseenOf } from './foreseen.ts';

type Edit = Extract<ChangeMany['done'], { kind: 'edit' }>['edit'];
const after = (head: Summary, edit: Edit): Summary | undefined => foreseenOf({ of: { ids: [head.id] }, done: { kind: 'edit', edit } })?.head(head);

const aCase = caseHead(1, { tags: ['Smoke'], covers: ['K-1'] });
const aCondition = conditionHead(1, { depths: ['core'], requirements: ['R-1', 'R-2'] });

describe('a command foreseen', () => {
  test.each<[Edit, object]>([
    [{ kind: 'module', module: 'Bills' }, { module: 'Bills' }],
    [{ kind: 'priority', priority: 'high' }, { priority: 'high' }],
    [{ kind: 'owner', owner: 'Rui M.' }, { owner: 'Rui M.' }],
    [{ kind: 'minutes', minutes: 3 }, { estimate: 3 }],
    [{ kind: 'caseKind', caseKind: 'charter' }, { caseKind: 'charter' }],
    [{ kind: 'execution', execution: 'automated' }, { execution: 'automated' }],
    [{ kind: 'tag', tag: 'night', belongs: true }, { tags: ['Smoke', 'night'] }],
    [{ kind: 'tag', tag: 'smoke', belongs: true }, { tags: ['Smoke'] }],
    [{ kind: 'tag', tag: 'SMOKE', belongs: false }, { tags: [] }],
    [{ kind: 'covers', condition: 'K-2', seenVersion: 1, belongs: true }, { covers: ['K-1', 'K-2'] }],
    [{ kind: 'covers', condition: 'K-1', seenVersion: 1, belongs: false }, { covers: [] }],
  ])('%j of a case', (edit, changed) => expect(after(aCase, edit)).toEqual({ ...aCase, ...changed }));

  test('of a condition, a question and a requirement', () => {
    expect(after(aCondition, { kind: 'depth', depth: 'smoke', belongs: true })).toEqual({ ...aCondition, depths: ['core', 'smoke'] });
    expect(after(aCondition, { kind: 'depth', depth: 'core', belongs: false })).toEqual({ ...aCondition, depths: [] });
    expect(after(aCondition, { kind: 'derivedFrom', requirement: 'R-3', seenVersion: 1, insteadOf: 'R-1' })).toMatchObject({ requirements: ['R-2', 'R-3'] });
    expect(after(questionHead(1), { kind: 'owner', owner: 'Olga S.' })).toMatchObject({ asked: 'Olga S.' });
    expect(after(requirementHead(1), { kind: 'risk', risk: 'high' })).toMatchObject({ risk: 'high' });
    expect(after(requirementHead(1), { kind: 'type', type: 'quality' })).toMatchObject({ type: 'quality' });
  });

  test('leaves what it does not concern the very same', () => {
    for (const edit of [{ kind: 'priority', priority: 'low' }, { kind: 'tag', tag: 'x', belongs: true }, { kind: 'minutes', minutes: 1 }, { kind: 'module', module: 'm' }, { kind: 'covers', condition: 'K-1', seenVersion: 1, belongs: true }] as const) expect(after(aCondition, edit)).toBe(aCondition);
    expect(after(aCase, { kind: 'depth', depth: 'x', belongs: true })).toBe(aCase);
  });

  test('is none where nobody can tell before: what a query finds, a rating, pins, copies', () => {
    const of = { ids: ['C-1' as const] };
    expect([
      foreseenOf({ of: { kind: 'case', query: 'x' }, done: { kind: 'state', state: 'agreed' } }),
      foreseenOf({ of, done: { kind: 'edit', edit: { kind: 'rating', part: 'impact', step: 1 } } }),
      foreseenOf({ of, done: { kind: 'edit', edit: { kind: 'pins', of: 'S-1', version: 2 } } }),
      foreseenOf({ of, done: { kind: 'copyTo', requirement: 'R-1', seenVersion: 1 } }),
    ]).toEqual([null, null, null, null]);
    const foreseen = foreseenOf({ of, done: { kind: 'state', state: 'agreed' } });
    expect([foreseen?.ids, foreseen?.head(aCase)]).toEqual([['C-1'], { ...aCase, state: 'agreed', agreed: aCase.version }]);
  });
});
