import type { CellText } from '../data/index.ts';

export type RowId = string & { readonly __brand: 'RowId' };

/** The one maker of row ids. */
export function rowId(text: string): RowId {
  return text as RowId;
}

/** What a person says a row is: made of valid values, or with one that is to be refused. */
export const ROW_MARKS = ['valid', 'invalid'] as const;
export type RowMark = (typeof ROW_MARKS)[number];

/** One named variant of the data: a row of a case's own, or of a data set. */
export interface Row {
  readonly id: RowId;
  readonly name: string;
  /** What it is for. */
  readonly description: string;
  /** By the ids of parameters. A column without a cell here is an empty cell. */
  readonly cells: Readonly<Record<string, CellText>>;
  /** Null: nobody said. */
  readonly mark: RowMark | null;
  /** Kept, but it does not run and shows nothing. */
  readonly aside: boolean;
}

/** A row as it is written first. */
export function newRow(id: RowId, name: string, cells: Row['cells'] = {}): Row {
  return { id, name, description: '', cells, mark: null, aside: false };
}
