import { fieldId, readConstraint, type ConstraintProblem, type Factor } from '../conditions/index.ts';

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

/** The rules one by one, without lines that say nothing. */
export function rulesOf({ rules }: Pick<Environment, 'rules'>): string[] {
  return rules.split('\n').map((rule) => rule.trim()).filter((rule) => rule !== '');
}

/** A rule that cannot be read. */
export interface RuleProblem {
  readonly rule: string;
  readonly problem: ConstraintProblem;
}

/** The rules that cannot be read, with what is wrong in each. */
export function ruleProblems(environment: Environment): RuleProblem[] {
  const factors = environment.factors.map(factorOf);
  return rulesOf(environment).flatMap((rule) => {
    const read = readConstraint(rule, factors);
    return read.kind === 'problem' ? [{ rule, problem: read.problem }] : [];
  });
}

/** A factor as one of a combination, all of whose values are valid. */
export function factorOf({ id, name, values }: EnvironmentFactor): Factor {
  return { id: fieldId(id), name, values: values.map((value, i) => ({ id: `v${i + 1}`, value, aliases: [], valid: true, base: false, outcome: '' })) };
}
