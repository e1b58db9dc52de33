import { describe, expect, it } from '@jest/globals';
import type { FeatureId } from '../artefacts/index.ts';
import { openFeatureConflicts, planFeatures, type FeatureHere, type PlannedFeature } from './bringing.ts';
import { EMPTY_FEATURE, textOf } from './feature.ts';
import { withText } from './identities.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const BILL = 'Feature: Bill\n\n  Scenario: one\n    Given a\n    Then b\n\n  Scenario: two\n    Given c\n';

function here(id: FeatureId, path: string, text: string, brought: string | null): FeatureHere {
  return { id, content: withText({ ...EMPTY_FEATURE, path }, text, newId), brought };
}

function told(planned: readonly PlannedFeature[]): unknown[] {
  return planned.map((p) => (p.kind === 'changed' ? [p.kind, p.id, p.content.path, textOf(p.content), p.conflicts.length] : p.kind === 'added' ? [p.kind, p.content.path, p.content.title] : [p.kind, p.id]));
}

describe('files of features that come in', () => {
  it('are new, the same, or change what stands at their path; what is not among them stays', () => {
    const known = [here('F-1', 'a.feature', BILL, BILL), here('F-2', 'b.feature', BILL.replace('Bill', 'B'), BILL), here('F-3', 'own.feature', 'Feature: own\n', null), here('F-4', 'gone.feature', 'Feature: gone\n', 'Feature: gone\n')];
    const files = [{ path: 'a.feature', text: BILL }, { path: 'B.feature', text: BILL.replace('Bill', 'B') }, { path: 'new/c.feature', text: '' }, { path: 'd.feature', text: 'Feature: D\n' }, { path: 'A.feature', text: BILL }];
    const { planned, missing } = planFeatures(files, known, newId);
    expect(told(planned)).toEqual([['same', 'F-1'], ['changed', 'F-2', 'B.feature', BILL.replace('Bill', 'B'), 0], ['added', 'new/c.feature', 'c'], ['added', 'd.feature', 'D'], ['added', 'A.feature', 'Bill']]);
    expect(missing).toEqual(['F-4']);
  });

  it('are taken in three ways: what only they changed comes, what was changed only here stays', () => {
    const mine = here('F-1', 'a.feature', BILL.replace('Then b', 'Then b, here'), BILL);
    const theirs = { path: 'a.feature', text: `${BILL.replace('Given c', 'Given c, there')}\n  Scenario: three\n    Given d\n` };
    const { planned } = planFeatures([theirs], [mine], newId);
    expect(told(planned)).toEqual([['changed', 'F-1', 'a.feature', theirs.text.replace('Then b', 'Then b, here'), 0]]);
    expect(told(planFeatures([{ path: 'a.feature', text: BILL }], [mine], newId).planned)).toEqual([['same', 'F-1']]);
  });

  it('are asked about where both sides changed the same line', () => {
    const mine = here('F-1', 'a.feature', BILL.replace('Then b', 'Then mine').replace('Given c', 'Given mine too'), BILL);
    const file = { path: 'a.feature', text: BILL.replace('Then b', 'Then theirs') };
    const open = planFeatures([file], [mine], newId);
    expect(openFeatureConflicts(open, new Map())).toEqual(['F-1']);
    const settled = (side: 'mine' | 'theirs') => planFeatures([file], [mine], newId, new Map([['F-1', side]])).planned.map((p) => (p.kind === 'changed' ? textOf(p.content) : p.kind));
    expect(settled('theirs')).toEqual([BILL.replace('Then b', 'Then theirs').replace('Given c', 'Given mine too')]);
    expect(settled('mine')).toEqual([textOf(mine.content)]);
  });

  it('never undo what was written here without a file', () => {
    const own = here('F-1', 'a.feature', BILL, null);
    const { planned } = planFeatures([{ path: 'a.feature', text: BILL.replace('Then b', 'Then other') }], [own], newId);
    expect(told(planned)).toEqual([['changed', 'F-1', 'a.feature', BILL, 1]]);
  });

  it('are known by what they say when they were renamed', () => {
    const known = [here('F-1', 'old/bill.feature', BILL, BILL), here('F-2', 'old/other.feature', 'Feature: Other\n  Scenario: x\n    Given y\n', 'Feature: Other\n')];
    const files = [{ path: 'new/bill.feature', text: BILL.replace('Given c', 'Given c2') }, { path: 'unlike.feature', text: 'Feature: Unlike\n' }];
    const { planned, missing } = planFeatures(files, known, newId);
    expect(told(planned)).toEqual([['changed', 'F-1', 'new/bill.feature', BILL.replace('Given c', 'Given c2'), 0], ['added', 'unlike.feature', 'Unlike']]);
    expect(missing).toEqual(['F-2']);
    const [moved] = planned;
    expect(moved?.kind === 'changed' && moved.content.parts.map((p) => p.id)).toEqual(known[0]?.content.parts.map((p) => p.id));
  });
});
