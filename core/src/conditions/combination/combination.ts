import type { NamedValue } from '../namedValue.ts';
import type { FieldId } from '../valueRanges.ts';

/** How much has to be combined: numbers are t-wise, `all` every factor with every other. */
export const STRENGTHS = ['eachChoice', 'baseChoice', 'pairs', 'threeWise', 'fourWise', 'fiveWise', 'sixWise', 'all'] as const;
export type Strength = (typeof STRENGTHS)[number];

/** Combinatorial testing (ISO/IEC/IEEE 29119-4, 5.2.5): factors, what may go together, and how much is combined. */
export interface CombinationModel {
  readonly kind: 'combination';
  readonly factors: readonly Factor[];
  readonly constraints: readonly ConstraintText[];
  readonly strength: Strength;
  /** Chosen factors that are combined more than the rest. */
  readonly groups: readonly FactorGroup[];
  /** Rows made by chance differ with it; the same seed makes the same rows. */
  readonly seed: number;
}

export interface Factor {
  readonly id: FieldId;
  readonly name: string;
  readonly values: readonly FactorValue[];
}

export interface FactorValue extends NamedValue {
  /** An invalid value is shown alone: among valid ones of the other factors. */
  readonly valid: boolean;
  /** The one that base choice varies from; the first valid one where none is marked. */
  readonly base: boolean;
  /** What an invalid value leads to. */
  readonly outcome: string;
}

/** A constraint as it is typed; see `readConstraint`. */
export interface ConstraintText {
  readonly id: string;
  readonly text: string;
}

export interface FactorGroup {
  readonly id: string;
  readonly factors: readonly FieldId[];
  /** How many of them at a time. */
  readonly size: number;
}

/** How many factors are combined at a time; for `all`, all of them. Base choice is no product and has none. */
export function tupleSize(model: CombinationModel): number {
  switch (model.strength) {
    case 'eachChoice':
    case 'baseChoice':
      return 1;
    case 'all':
      return model.factors.length;
    default:
      return Math.min(STRENGTHS.indexOf(model.strength), model.factors.length);
  }
}

/** Place of the base value of a factor; -1 when it has no valid value. */
export function basePlace(factor: Factor): number {
  const marked = factor.values.findIndex((v) => v.base && v.valid);
  return marked >= 0 ? marked : factor.values.findIndex((v) => v.valid);
}

/** The sets of factors (by place) that are combined, each once, smaller sets inside larger ones included. */
export function combinedSets(model: CombinationModel): number[][] {
  const places = model.factors.map((_, i) => i);
  const sets = [...(model.strength === 'baseChoice' ? [] : subsets(places, tupleSize(model)))];
  const known = new Set(sets.map((s) => s.join(' ')));
  for (const group of model.groups) {
    const members = model.factors.flatMap((f, i) => (group.factors.includes(f.id) ? [i] : []));
    for (const set of subsets(members, Math.min(group.size, members.length))) {
      const key = set.join(' ');
      if (set.length > 0 && !known.has(key)) sets.push(set);
      known.add(key);
    }
  }
  return sets;
}

/** Subsets of a size, in lexical order. */
function subsets(of: readonly number[], size: number): number[][] {
  if (size === 0) return [[]];
  return of.flatMap((first, i) => subsets(of.slice(i + 1), size - 1).map((rest) => [first, ...rest]));
}

/** How many sets of `size` there are among `of`, for telling before making. */
export function countSubsets(of: number, size: number): bigint {
  let count = 1n;
  for (let i = 0; i < size; i += 1) count = (count * BigInt(of - i)) / BigInt(i + 1);
  return count;
}
