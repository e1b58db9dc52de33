import type { CombinationModel, CombinationProblem, ConstraintProblem, Expected } from '@caderno/core/conditions';

const EXPECTED_WORD: Record<Expected, string> = {
  factor: 'the name of a factor',
  value: 'one of its values',
  comparison: '=, ≠ or in {…}',
  set: '{ before the values',
  condition: 'and or or',
  then: 'then, and or or',
  closing: 'the closing bracket',
  end: 'the end, and or or',
};

/** What is wrong in a constraint and what could stand there. */
export function constraintProblemSentence({ code, found, expected, factor }: ConstraintProblem): string {
  const instead = expected === 'value' && factor !== null ? `a value of ${factor}` : EXPECTED_WORD[expected];
  switch (code) {
    case 'factor_unknown':
      return `No factor is called “${found}”.`;
    case 'value_unknown':
      return `“${found}” is no value of ${factor ?? 'the factor'}.`;
    case 'unexpected':
      return found === '' ? `It ends too early: ${instead} is expected.` : `“${found}” does not belong here: ${instead} is expected.`;
  }
}

/** What is wrong with a combination, in words. Constraints that cannot be read say so at their place. */
export function combinationProblemSentence(problem: CombinationProblem, model: CombinationModel): string | null {
  const factor = (id: string): string => model.factors.find((f) => f.id === id)?.name ?? '?';
  switch (problem.code) {
    case 'no_factors':
      return 'There is no factor yet: nothing is combined.';
    case 'no_valid_value':
      return `“${factor(problem.factor)}” has no valid value: no row can be made.`;
    case 'factor_twice':
      return `Two factors are called “${problem.name}”.`;
    case 'value_twice':
      return `“${factor(problem.factor)}” has “${problem.value}” twice.`;
    case 'constraint_misread':
      return null;
    case 'constraint_too_tangled':
      return 'A constraint is too tangled. Say it as several shorter ones: each of them must hold.';
    case 'nothing_possible':
      return 'The constraints allow no row at all.';
    case 'value_impossible':
      return `No row can have ${factor(problem.factor)} = ${problem.value}: ${constraintsNamed(problem.constraints, model)} rules it out.`;
  }
}

/** `constraint 1`, `constraints 1 and 3 together`. */
export function constraintsNamed(ids: readonly string[], model: CombinationModel): string {
  const numbers = ids.map((id) => model.constraints.findIndex((c) => c.id === id) + 1);
  if (numbers.length < 2) return `constraint ${numbers[0] ?? '?'}`;
  return `constraints ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)} together`;
}
