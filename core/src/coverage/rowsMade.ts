import type { FieldId, ItemKey } from '../conditions/index.ts';
import type { CellText } from '../data/index.ts';

/** Whether few rows and paths are wanted, or one for each item. */
export const FILLINGS = ['fewest', 'onePerItem'] as const;
export type Filling = (typeof FILLINGS)[number];

/** A row that would show missing items. */
export interface ProposedRow {
  readonly name: string;
  readonly values: readonly { readonly field: FieldId; readonly cell: CellText }[];
  /** What the row should lead to: the outcomes of the items it aims at, each once. */
  readonly outcome: string;
  /** The missing items it would show and no row before it, in the order of the condition's list. */
  readonly shows: readonly ItemKey[];
}

/** `unreachable`: items no values can be made up for, or that others hide. */
export interface RowsMade {
  readonly rows: readonly ProposedRow[];
  readonly unreachable: readonly ItemKey[];
}
