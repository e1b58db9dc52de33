import type { Parameter, Row } from '@caderno/core/cases';
import { useCallback, useMemo, useState } from 'react';
import { AS_KEPT, lookAt, orderOf, type RowView } from './rowView.ts';

/** The rows as they are looked at; the view is put in order when it is asked for, not with every key. */
export function useRowView(rows: readonly Row[], parameters: readonly Parameter[]) {
  const [look, setLook] = useState(AS_KEPT);
  const order = useMemo(() => orderOf(rows, look), [look, rows]);
  const setView = useCallback((view: RowView) => setLook(lookAt(rows, parameters, view)), [parameters, rows]);
  return { view: look.view, order, isKept: look.ids === null, setView };
}
