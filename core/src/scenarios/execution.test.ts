import { expect, it } from '@jest/globals';
import { executionOf, scenarioEffort, scenarioMinutes, type ScenarioExecution } from './execution.ts';

const BY_HAND: ScenarioExecution = { tag: '@by-hand', marks: 'byHand', minutes: { byHand: 10, automated: null } };
const AUTOMATED: ScenarioExecution = { tag: '@ci', marks: 'automated', minutes: { byHand: 3, automated: 0.5 } };

it('tells by the tag of the project’s choice which are run by hand, whichever of the two it marks', () => {
  expect([['@By-Hand'], ['@by-hand-later'], []].map((tags) => executionOf(tags, BY_HAND))).toEqual(['byHand', 'automated', 'automated']);
  expect([['@x', '@ci'], ['@x']].map((tags) => executionOf(tags, AUTOMATED))).toEqual(['automated', 'byHand']);
});

it('takes minutes from the nearest tag that says them, else from the project; nobody’s word is null', () => {
  expect([['@by-hand'], ['@by-hand', '@5min'], ['@20min', '@0.5min'], ['@slow'], ['@5minutes'], ['@min']].map((tags) => scenarioMinutes(tags, BY_HAND))).toEqual([10, 5, 0.5, null, null, null]);
});

it('sums scenarios, an outline as often as it has rows', () => {
  const scenarios = [
    { tags: ['@ci'], instances: 4 },
    { tags: [], instances: 2 },
    { tags: ['@7min'], instances: 1 },
    { tags: ['@ci'], instances: 0 },
  ];
  expect(scenarioEffort(scenarios, AUTOMATED)).toEqual({ scenarios: 4, byHand: 2, instances: 7, minutes: 2 + 6 + 7 });
  expect(scenarioEffort(scenarios, BY_HAND)).toEqual({ scenarios: 4, byHand: 0, instances: 7, minutes: 7 });
});
