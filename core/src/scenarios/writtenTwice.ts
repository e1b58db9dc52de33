import type { FeatureId } from '../artefacts/index.ts';
import { alikeSequences } from '../shared/index.ts';
import type { PhraseUse } from './phraseUse.ts';

/** A scenario of a project, by its number in its feature. */
export interface ScenarioPlace {
  readonly feature: FeatureId;
  readonly scenario: number;
}

/** Scenarios that say the same, or nearly. */
export interface WrittenTwice {
  /** The same but for values; those of most scenarios first. */
  readonly same: readonly (readonly ScenarioPlace[])[];
  /** Nearly the same: a share of their phrases (Dice). Of those that are the same but for values the first speaks for all. */
  readonly alike: readonly { readonly first: ScenarioPlace; readonly second: ScenarioPlace; readonly likeness: number }[];
}

/** One step alone says too little to be the same on purpose. */
const FEWEST_STEPS = 2;
/** Two of three steps. */
const LEAST_LIKE = 0.66;
const MOST_SAME = 500;
const MOST_ALIKE = 300;
/** Scenarios of a group that are told. */
const MOST_PLACES = 200;

/** Scenarios written twice in the features of a project, by the phrases of their own steps. In time linear in the steps but for those that share all but rare phrases. */
export function writtenTwice(features: Iterable<{ readonly feature: FeatureId; readonly uses: readonly PhraseUse[] }>): WrittenTwice {
  const groups = new Map<string, ScenarioPlace[]>();
  for (const { feature, uses } of features) {
    for (const [scenario, steps] of byScenario(uses)) {
      if (steps.length < FEWEST_STEPS) continue;
      const key = steps.map((s) => `${s.kind} ${s.key}`).join('\n');
      const places = groups.get(key);
      if (places === undefined) groups.set(key, [{ feature, scenario }]);
      else places.push({ feature, scenario });
    }
  }
  const same = [...groups.values()].filter((places) => places.length > 1).toSorted((a, b) => b.length - a.length);
  return { same: same.slice(0, MOST_SAME).map((places) => places.slice(0, MOST_PLACES)), alike: alikeOnes(groups) };
}

/** Steps of backgrounds, and of scenarios that have no number yet, are nobody's own. */
function byScenario(uses: readonly PhraseUse[]): Map<number, PhraseUse[]> {
  const scenarios = new Map<number, PhraseUse[]>();
  for (const use of uses) {
    if (use.scenario === 0) continue;
    const steps = scenarios.get(use.scenario);
    if (steps === undefined) scenarios.set(use.scenario, [use]);
    else steps.push(use);
  }
  return scenarios;
}

function alikeOnes(groups: ReadonlyMap<string, readonly ScenarioPlace[]>): WrittenTwice['alike'] {
  const phrases = new Map<string, number>();
  const numberOf = (phrase: string): number => {
    const number = phrases.get(phrase) ?? phrases.size;
    phrases.set(phrase, number);
    return number;
  };
  const places = [...groups.values()].flatMap(([first]) => first ?? []);
  return alikeSequences([...groups.keys()].map((key) => key.split('\n').map(numberOf)), LEAST_LIKE, MOST_ALIKE).flatMap(({ first, second, likeness }) => {
    const [a, b] = [places[first], places[second]];
    return a === undefined || b === undefined ? [] : [{ first: a, second: b, likeness }];
  });
}
