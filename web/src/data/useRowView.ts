import { filteredRows, sortedRows, type ColumnFilter, type ColumnId, type Parameter, type Row, type RowId } from '@caderno/core/cases';
import { useCallback, useMemo, useState } from 'react';

/** How rows are looked at: the order they are kept in stays what it is. */
export interface RowView {
  readonly sort: { readonly by: ColumnId; readonly descending: boolean } | null;
  readonly filters: readonly ColumnFilter[];
}

const AS_KEPT: RowView = { sort: null, filters: [] };

interface Looked {
  readonly view: RowView;
  /** The rows that were in it when it was last put in order; null: as kept. */
  readonly ids: readonly RowId[] | null;
  /** All rows there were then. */
  readonly known: ReadonlySet<RowId>;
}

/**
 * The places of the rows that are seen, in their order. A row does not jump while it is written in: the view is put in
 * order when it is asked for, and new rows stand at its end until then.
 */
export function useRowView(rows: readonly Row[], parameters: readonly Parameter[]) {
  const [looked, setLooked] = useState<Looked>({ view: AS_KEPT, ids: null, known: new Set() });
  const order = useMemo(() => orderOf(rows, looked), [looked, rows]);
  const setView = useCallback(
    (view: RowView) => {
      const isKept = view.sort === null && view.filters.every((f) => f.text.trim() === '');
      setLooked({ view, ids: isKept ? null : rowsInView(rows, parameters, view).map((r) => r.id), known: new Set(rows.map((r) => r.id)) });
    },
    [parameters, rows],
  );
  return { view: looked.view, order, isKept: looked.ids === null, setView };
}

function rowsInView(rows: readonly Row[], parameters: readonly Parameter[], { sort, filters }: RowView): readonly Row[] {
  const passing = filteredRows(rows, parameters, filters);
  return sort === null ? passing : sortedRows(passing, parameters, sort.by, sort.descending);
}

function orderOf(rows: readonly Row[], { ids, known }: Looked): readonly number[] {
  if (ids === null) return rows.map((_, i) => i);
  const places = new Map(rows.map((row, i) => [row.id, i]));
  return [...ids.flatMap((id) => places.get(id) ?? []), ...rows.flatMap((row, i) => (known.has(row.id) ? [] : [i]))];
}
