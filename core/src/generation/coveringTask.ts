import type { Feasibility, Forbidden } from '../conditions/index.ts';

/** What rows are to be made for. Factors and values by place; every value of `sizes` may be used. */
export interface CoveringTask {
  readonly sizes: readonly number[];
  /** The sets of factors whose combinations of values are to be shown. */
  readonly sets: readonly (readonly number[])[];
  /** By set whether a combination of values is wanted; all that are wanted must be feasible. */
  readonly wanted: (set: number, values: readonly number[]) => boolean;
  readonly forbidden: readonly Forbidden[];
  /** Completes partial rows; null when nothing is forbidden. */
  readonly feasibility: Feasibility | null;
  readonly seed: number;
}

/** A complete row: a value for every factor. */
export type CoveringRow = readonly number[];
