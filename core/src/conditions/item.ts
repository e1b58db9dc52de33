import type { FieldId } from './valueRanges.ts';

/**
 * Names a coverage item within its condition across edits of the model: by the id of the part it comes from, or,
 * for a boundary value, by the value. A moved boundary is therefore another item, and what was said of the old one
 * is not said of the new one.
 */
export type ItemKey = string & { readonly __brand: 'ItemKey' };

/** The one maker of item keys. */
export function itemKey(text: string): ItemKey {
  return text as ItemKey;
}

export const PLAIN_ITEM = itemKey('condition');

/** Test design techniques of ISO/IEC/IEEE 29119-4 as far as modelled, and plain for conditions without a model. */
export const TECHNIQUES = ['partitions', 'boundaries', 'decisionTable', 'stateTransitions', 'combination', 'plain'] as const;
export type Technique = (typeof TECHNIQUES)[number];

export const ITEM_KINDS = ['condition', 'partition', 'boundary', 'class', 'rule', 'state', 'transition', 'sequence', 'invalidPair', 'tuple', 'invalidValue'] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];

export const TECHNIQUE_OF_ITEM: Record<ItemKind, Technique> = {
  condition: 'plain',
  partition: 'partitions',
  class: 'partitions',
  boundary: 'boundaries',
  rule: 'decisionTable',
  state: 'stateTransitions',
  transition: 'stateTransitions',
  sequence: 'stateTransitions',
  invalidPair: 'stateTransitions',
  tuple: 'combination',
  invalidValue: 'combination',
};

/** One thing a model says must be shown. */
export interface CoverageItem {
  readonly key: ItemKey;
  /** Place in the condition's list, from 1: the 3 of K-7/3. Moves when the model changes; the key does not. */
  readonly number: number;
  readonly kind: ItemKind;
  readonly field: FieldId | null;
  readonly name: string;
  /** What lies in it, to be read: `0 … 99999`, `-1`, `“12a”`. */
  readonly extent: string;
  /** A cell that would show it; null when none can be made up. */
  readonly sample: string | null;
  readonly valid: boolean;
  readonly outcome: string;
}
