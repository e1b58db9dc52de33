import { fieldId, type Factor } from '../conditions/index.ts';

/** Something in which the places of execution differ, as platform, browser or role, and what it can be. */
export interface EnvironmentFactor {
  readonly id: string;
  readonly name: string;
  readonly values: readonly string[];
}

/** What configurations of a project are made of. */
export interface Environment {
  readonly factors: readonly EnvironmentFactor[];
  /** What does not go together, a rule a line, about factors and values by their names; see `readConstraint`. */
  readonly rules: string;
}

export const EMPTY_ENVIRONMENT: Environment = { factors: [], rules: '' };

/** A factor as one of a combination, all of whose values are valid. */
export function factorOf({ id, name, values }: EnvironmentFactor): Factor {
  return { id: fieldId(id), name, values: values.map((value, i) => ({ id: `v${i + 1}`, value, aliases: [], valid: true, base: false, outcome: '' })) };
}
