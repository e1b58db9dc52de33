import type { Parameter } from './parameter.ts';
import { filteredRows, type ColumnFilter } from './rowFilter.ts';
import type { Row, RowId } from './row.ts';

/** Which rows of its data a case runs; those put aside never do. */
export type RowChoice =
  | { readonly kind: 'all' }
  | { readonly kind: 'chosen'; readonly rows: readonly RowId[] }
  | { readonly kind: 'filter'; readonly filters: readonly ColumnFilter[] };

export const ALL_ROWS: RowChoice = { kind: 'all' };

/** The choice after rows were added that are to run; what a filter lets through is its own affair. */
export function withRowsRunning(choice: RowChoice, added: readonly RowId[]): RowChoice {
  return choice.kind === 'chosen' && added.length > 0 ? { kind: 'chosen', rows: [...choice.rows, ...added] } : choice;
}

/** The rows that run, in their order. Chosen ones that are gone are passed over; where they are chosen they are marked. */
export function rowsChosen(rows: readonly Row[], parameters: readonly Parameter[], choice: RowChoice): readonly Row[] {
  const there = rows.some((r) => r.aside) ? rows.filter((r) => !r.aside) : rows;
  switch (choice.kind) {
    case 'all':
      return there;
    case 'chosen': {
      const chosen = new Set(choice.rows);
      return there.filter((r) => chosen.has(r.id));
    }
    case 'filter':
      return filteredRows(there, parameters, choice.filters);
  }
}
