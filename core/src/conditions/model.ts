import type { ValueRangesModel } from './valueRanges.ts';

/** How a condition is exercised. */
export type Model = PlainModel | ValueRangesModel;
export type ModelKind = Model['kind'];
export const MODEL_KINDS = ['plain', 'valueRanges'] as const satisfies readonly ModelKind[];

/** One coverage item: the condition itself. */
export interface PlainModel {
  readonly kind: 'plain';
}
