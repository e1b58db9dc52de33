import { beforeAll, describe, expect, test } from '@jest/globals';
import loadHighs from 'highs';
import { artefactId, type CaseId } from '../artefacts/index.ts';
import { highsSolver, smallestCover, type CoverSolver } from '../covering/index.ts';
import { SMALLER_BY, costWord, leftOut, smallerProblem, type ShowingMember, type ShowingMembers } from './index.ts';

let solver: CoverSolver;
beforeAll(async () => {
  solver = highsSolver(await loadHighs());
});
const solve = (showing: ShowingMembers, by: (typeof SMALLER_BY)[number]) => smallestCover(smallerProblem(showing, by), solver, 20, () => undefined, () => performance.now());
const C = (n: number): CaseId => artefactId('case', n);

describe('as small as possible', () => {
  const member = (n: number, items: readonly number[], more: Partial<ShowingMember> = {}): ShowingMember => ({ of: C(n), instances: 1, minutes: 5, times: 1, kept: false, part: null, setUp: null, items, ...more });
  // One long case shows all; three short ones do too.
  const members = [member(1, [0, 1, 2], { instances: 9, minutes: 1 }), member(2, [0], { instances: 2 }), member(3, [1], { instances: 2 }), member(4, [2], { instances: 2, minutes: null })];
  const ids = (showing: ShowingMembers, by: (typeof SMALLER_BY)[number]) => solve(showing, by).chosen.map((place) => showing.members[place]?.of);

  test('by members, by instances, by minutes it is another one; who stays by a rule stays, with what it depends on', () => {
    const showing = { weights: [1, 1, 1], members, needs: [] };
    expect(SMALLER_BY.map((by) => ids(showing, by))).toEqual([[C(1)], [C(2), C(3), C(4)], [C(1)]]);
    // Nobody said how long the last one takes: a minute for each of its two instances.
    expect(costWord(smallerProblem(showing, 'minutes').candidates[3]?.cost ?? 0, 'minutes')).toBe(2);
    // Whatever runs in many configurations is executed in each.
    expect(ids({ ...showing, members: members.map((m) => (m.of === C(1) ? { ...m, times: 2 } : m)) }, 'minutes')).toEqual([C(1)]);
    expect(ids({ ...showing, members: members.map((m) => (m.of === C(1) ? { ...m, times: 3 } : m)) }, 'minutes')).toEqual([C(2), C(3), C(4)]);
    expect(ids({ ...showing, members: members.map((m) => (m.of === C(3) ? { ...m, kept: true } : m)) }, 'cases')).toEqual([C(1), C(3)]);
    expect(ids({ ...showing, needs: [{ of: C(1), on: C(2) }, { of: C(2), on: C(9) }] }, 'cases')).toEqual([C(1), C(2)]);
  });

  test('who is left out is told with who shows what it shows, the one that shows most of it first', () => {
    expect(leftOut({ members: [member(1, [0, 1]), member(2, [2]), member(3, [0, 1, 2]), member(4, [])] }, [0, 1])).toEqual([{ of: C(3), items: 3, shownBy: [C(1), C(2)] }, { of: C(4), items: 0, shownBy: [] }]);
  });
});
