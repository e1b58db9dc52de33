import { diffArrays } from 'diff';
import { NO_OWN_KINDS, type OwnKinds } from './ownKinds.ts';
import { takenApart, type StepValue } from './phrase.ts';
import type { ReadScenario, ScenarioStep } from './scenario.ts';

/** Two scenarios side by side: a step of each, or of one alone. */
export interface StepPair {
  readonly left: ScenarioStep | null;
  readonly right: ScenarioStep | null;
  /** Places of the values, in both, that are not the same. */
  readonly differing: readonly number[];
}

/** The steps of two scenarios beside each other: those of one phrase stand together, in an order that leaves fewest alone. */
export function besideEachOther(left: Pick<ReadScenario, 'steps'>, right: Pick<ReadScenario, 'steps'>, own: OwnKinds = NO_OWN_KINDS): StepPair[] {
  const keysOf = ({ steps }: Pick<ReadScenario, 'steps'>): string[] => steps.map((s) => takenApart(s.text, own).key);
  let [l, r] = [0, 0];
  return diffArrays(keysOf(left), keysOf(right)).flatMap(({ value, added, removed }) =>
    value.map((): StepPair => {
      const pair = { left: added ? null : (left.steps[l] ?? null), right: removed ? null : (right.steps[r] ?? null) };
      if (!added) l += 1;
      if (!removed) r += 1;
      return { ...pair, differing: differingValues(pair.left, pair.right, own) };
    }),
  );
}

function differingValues(left: ScenarioStep | null, right: ScenarioStep | null, own: OwnKinds): number[] {
  if (left === null || right === null) return [];
  const values = (step: ScenarioStep): readonly StepValue[] => takenApart(step.text, own).values;
  const others = values(right);
  return values(left).flatMap((value, i) => (value.text === others[i]?.text ? [] : [i]));
}
