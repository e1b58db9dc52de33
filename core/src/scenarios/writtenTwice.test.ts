import { expect, it } from '@jest/globals';
import { seededRandom } from '../generation/index.ts';
import { EMPTY_FEATURE } from './feature.ts';
import { withNumbers, withText } from './identities.ts';
import { phraseUses } from './phraseUse.ts';
import { besideEachOther } from './besideEachOther.ts';
import { sameScenarios } from './outlinePlan.ts';
import { outlineOf } from './scenario.ts';
import { writtenTwice } from './writtenTwice.ts';

let made = 0;
const uses = (text: string) => phraseUses(withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, () => `i${(made += 1)}`), null));

const FIRST = `Feature: one
  Background:
    Given a member
  Scenario: 1
    Given a receipt of 60 days
    When the clerk grants it
    Then it is "granted"
  Scenario: 2
    Given a receipt of 61 days
    When the clerk grants it
    Then it is "refused"
  Scenario: 3
    Given a receipt of 61 days
    When the clerk grants it
    Then the ledger stays
  Scenario: 4
    Given rain
`;
const SECOND = `Feature: two
  Scenario Outline: 1
    * rain
    Given a receipt of <n> days
    When the clerk grants it
    But it is "granted"
  Scenario: 2
    Given a receipt of 7 days
    When the clerk grants it
    Then it is 'granted'
  Scenario: 3
    Given rain
`;

it('finds scenarios that are the same but for values, over all features, and those nearly so, each pair once', () => {
  const found = writtenTwice([{ feature: 'F-1', uses: uses(FIRST) }, { feature: 'F-2', uses: uses(SECOND) }]);
  expect(found.same).toEqual([[{ feature: 'F-1', scenario: 1 }, { feature: 'F-1', scenario: 2 }, { feature: 'F-2', scenario: 2 }]]);
  expect(found.alike.map(({ first, second, likeness }) => [`${first.feature}/${first.scenario}`, `${second.feature}/${second.scenario}`, Math.round(100 * likeness)])).toEqual([['F-1/1', 'F-1/3', 67]]);
});

it('what goes on with what stands above says the same as what is said anew', () => {
  const found = writtenTwice([{ feature: 'F-1', uses: uses('Feature: f\n  Scenario: a\n    Given x\n    And y\n  Scenario: b\n    Given x\n    Given y\n  Scenario: c\n    When x\n    And y\n') }]);
  expect(found).toEqual({ same: [[{ feature: 'F-1', scenario: 1 }, { feature: 'F-1', scenario: 2 }]], alike: [] });
});

const outline = (text: string) => outlineOf(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, () => `i${(made += 1)}`));

it('within a feature those of one rule, without examples, could be one', () => {
  expect(sameScenarios(outline(FIRST)).map((group) => group.map((s) => s.name))).toEqual([['1', '2']]);
  expect(sameScenarios(outline('Feature: f\n  Scenario: a\n    Given x\n    When 1\n  Rule: r\n    Scenario: b\n      Given x\n      When 2\n    Scenario: c\n      Given x\n      When 3\n    Scenario Outline: d\n      Given x\n      When <n>\n      Examples:\n        | n |\n        | 1 |\n')).map((group) => group.map((s) => s.name))).toEqual([['b', 'c']]);
});

it('puts two beside each other, steps of one phrase together, and tells which values differ', () => {
  const [a, b] = outline('Feature: f\n  Scenario: a\n    Given a bill of 4 € for "Rui"\n    When it rains\n    Then 4\n  Scenario: b\n    Given it is May\n    Given a bill of 5 € for "Rui"\n    Then 4\n').scenarios;
  const pairs = a === undefined || b === undefined ? [] : besideEachOther(a, b);
  expect(pairs.map((p) => [p.left?.text ?? null, p.right?.text ?? null, p.differing])).toEqual([
    [null, 'it is May', []],
    ['a bill of 4 € for "Rui"', 'a bill of 5 € for "Rui"', [0]],
    ['it rains', null, []],
    ['4', '4', []],
  ]);
});

it.each([5, 6, 7, 8])('beside each other no step is lost and none changes its order (seed %i)', (seed) => {
  const random = seededRandom(seed);
  const steps = (): string => Array.from({ length: random(9) }, () => `    ${['Given', 'When', 'Then', 'And'][random(4)] ?? '*'} ${['a', 'b 4', 'b 5', 'c "x"', 'd'][random(5)] ?? ''}\n`).join('');
  for (let round = 0; round < 40; round += 1) {
    const [a, b] = outline(`Feature: f\n  Scenario: a\n${steps()}  Scenario: b\n${steps()}`).scenarios;
    if (a === undefined || b === undefined) throw new Error('Both are there');
    const pairs = besideEachOther(a, b);
    expect(pairs.flatMap((p) => p.left ?? [])).toEqual(a.steps);
    expect(pairs.flatMap((p) => p.right ?? [])).toEqual(b.steps);
    for (const { left, right, differing } of pairs) if (left !== null && right !== null) expect(differing.length > 0).toBe(left.text !== right.text);
  }
});
