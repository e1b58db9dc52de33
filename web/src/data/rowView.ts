import { filteredRows, sortedRows, type ColumnFilter, type ColumnId, type Parameter, type Row, type RowId } from '@caderno/core/cases';

/** How rows are looked at: the order they are kept in stays what it is. */
export interface RowView {
  readonly sort: { readonly by: ColumnId; readonly descending: boolean } | null;
  readonly filters: readonly ColumnFilter[];
}

/** A view as it was when it was put in order. */
export interface Look {
  readonly view: RowView;
  /** The rows that were in it, in their order; null: all, as kept. */
  readonly ids: readonly RowId[] | null;
  /** All rows there were. */
  readonly known: ReadonlySet<RowId>;
}

export const AS_KEPT: Look = { view: { sort: null, filters: [] }, ids: null, known: new Set() };

/** Puts rows in the order of a view. */
export function lookAt(rows: readonly Row[], parameters: readonly Parameter[], view: RowView): Look {
  const passing = filteredRows(rows, parameters, view.filters);
  const isKept = view.sort === null && passing === rows;
  const seen = view.sort === null ? passing : sortedRows(passing, parameters, view.sort.by, view.sort.descending);
  return { view, ids: isKept ? null : seen.map((r) => r.id), known: new Set(rows.map((r) => r.id)) };
}

/**
 * The places of the rows that are seen, in their order. A row does not jump while it is written in; what came since the
 * view was put in order stands at its end, what is gone is passed over.
 */
export function orderOf(rows: readonly Row[], { ids, known }: Look): readonly number[] {
  if (ids === null) return rows.map((_, i) => i);
  const places = new Map(rows.map((row, i) => [row.id, i]));
  return [...ids.flatMap((id) => places.get(id) ?? []), ...rows.flatMap((row, i) => (known.has(row.id) ? [] : [i]))];
}
