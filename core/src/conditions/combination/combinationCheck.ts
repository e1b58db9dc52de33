import type { FieldId } from '../valueRanges.ts';
import type { CombinationModel } from './combination.ts';
import type { CombinationJudge, Tuple } from './combinationItems.ts';
import { feasibilityOf, forbiddenOf } from './combinationItems.ts';
import { readConstraint, type ConstraintProblem } from './constraintText.ts';
import { forbiddenBy } from './forbidden.ts';

/** What is wrong with a combination model, and where. Reported, never repaired. */
export type CombinationProblem =
  | { readonly code: 'no_factors' }
  | { readonly code: 'no_valid_value'; readonly factor: FieldId }
  | { readonly code: 'factor_twice'; readonly name: string }
  | { readonly code: 'value_twice'; readonly factor: FieldId; readonly value: string }
  | { readonly code: 'constraint_misread'; readonly constraint: string; readonly problem: ConstraintProblem }
  /** It comes apart into too many products; several shorter ones say the same. */
  | { readonly code: 'constraint_too_tangled'; readonly constraint: string }
  /** No row meets all constraints. */
  | { readonly code: 'nothing_possible' }
  /** No row can take the value: the constraints exclude it. */
  | { readonly code: 'value_impossible'; readonly factor: FieldId; readonly value: string; readonly constraints: readonly string[] };

/** All problems: of factors, then constraint by constraint, then what the constraints together exclude. */
export function combinationProblems(model: CombinationModel): CombinationProblem[] {
  if (model.factors.length === 0) return [{ code: 'no_factors' }];
  const empty = model.factors.filter((f) => !f.values.some((v) => v.valid)).map((f): CombinationProblem => ({ code: 'no_valid_value', factor: f.id }));
  const own = [...empty, ...nameProblems(model), ...constraintProblems(model)];
  return empty.length > 0 ? own : [...own, ...exclusions(model)];
}

function nameProblems({ factors }: CombinationModel): CombinationProblem[] {
  const twice = (texts: readonly string[]): string[] => [...new Set(texts.filter((t, i) => texts.indexOf(t) !== i))];
  return [
    ...twice(factors.map((f) => f.name)).map((name): CombinationProblem => ({ code: 'factor_twice', name })),
    ...factors.flatMap((f) => twice(f.values.flatMap((v) => [v.value, ...v.aliases])).map((value): CombinationProblem => ({ code: 'value_twice', factor: f.id, value }))),
  ];
}

function constraintProblems(model: CombinationModel): CombinationProblem[] {
  return model.constraints.flatMap((c, place): CombinationProblem[] => {
    const read = readConstraint(c.text, model.factors);
    if (read.kind === 'problem') return [{ code: 'constraint_misread', constraint: c.id, problem: read.problem }];
    return read.kind === 'condition' && forbiddenBy(read.condition, place, model.factors) === null ? [{ code: 'constraint_too_tangled', constraint: c.id }] : [];
  });
}

function exclusions(model: CombinationModel): CombinationProblem[] {
  const feasibility = feasibilityOf(model);
  const anything = feasibility.complete(model.factors.map(() => -1)) !== null;
  if (!anything) return [{ code: 'nothing_possible' }];
  return model.factors.flatMap((factor, f) =>
    factor.values.flatMap((value, v): CombinationProblem[] =>
      feasibility.possibleValue(f, v) ? [] : [{ code: 'value_impossible', factor: factor.id, value: value.value, constraints: explainTuple(model, { factors: [f], values: [v] }) }],
    ),
  );
}

/**
 * Why no row can contain a tuple: constraints (by id, in their order) that exclude it together, none of which could be
 * spared. Empty when a row can contain it.
 */
export function explainTuple(model: CombinationModel, tuple: Tuple): string[] {
  const forbidden = forbiddenOf(model);
  const excluded = (constraints: ReadonlySet<number>): boolean => !feasibilityOf(model, forbidden.filter((f) => constraints.has(f.constraint))).possible(tuple.factors, tuple.values);
  const needed = new Set(forbidden.map((f) => f.constraint));
  if (!excluded(needed)) return [];
  for (const constraint of [...needed]) {
    needed.delete(constraint);
    if (!excluded(needed)) needed.add(constraint);
  }
  return model.constraints.flatMap((c, place) => (needed.has(place) ? [c.id] : []));
}

/** A tuple that cannot be shown, with the constraints that exclude it. */
export interface ExplainedTuple {
  readonly tuple: Tuple;
  readonly constraints: readonly string[];
}

/** The first infeasible tuples, explained; all are counted in `judge.infeasible`. */
export function explainInfeasible(judge: CombinationJudge, most: number): ExplainedTuple[] {
  return judge.infeasible.slice(0, most).map((tuple) => ({ tuple, constraints: explainTuple(judge.model, tuple) }));
}
