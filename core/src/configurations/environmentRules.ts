import { readConstraint, type ConstraintProblem } from '../conditions/index.ts';
import { factorOf, type Environment } from './environment.ts';

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
