import { useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react';

/** What is selected of a list: one at a time, or with shift all from the one before. */
export interface Selection<Id extends string> {
  /** In the order of the list. */
  readonly chosen: readonly Id[];
  readonly has: (id: Id) => boolean;
  readonly toggle: (id: Id, through: boolean) => void;
  /** These and no others. */
  readonly select: (ids: readonly Id[]) => void;
  /** All that the list shows. */
  readonly selectAll: () => void;
  readonly clear: () => void;
}

/** A selection among what a list shows now: what it no longer shows is no longer selected. */
export function useSelection<Id extends string>(shown: readonly Id[]): Selection<Id> {
  const [selected, setSelected] = useState<ReadonlySet<Id>>(new Set());
  const last = useRef<Id | null>(null);
  // Lines are drawn with what selects them: it stays the same when a list is made anew.
  const list = useRef(shown);
  useLayoutEffect(() => {
    list.current = shown;
  }, [shown]);
  const chosen = useMemo(() => shown.filter((id) => selected.has(id)), [selected, shown]);
  const toggle = useCallback((id: Id, through: boolean) => {
    const before = last.current;
    last.current = id;
    const ids = list.current;
    const [a, b] = [ids.indexOf(through && before !== null ? before : id), ids.indexOf(id)];
    const meant = ids.slice(Math.min(a, b), Math.max(a, b) + 1);
    setSelected((now) => (now.has(id) ? new Set([...now].filter((x) => !meant.includes(x))) : new Set([...now, ...meant])));
  }, []);
  const select = useCallback((ids: readonly Id[]) => setSelected(new Set(ids)), []);
  const selectAll = useCallback(() => setSelected(new Set(shown)), [shown]);
  const clear = useCallback(() => setSelected(new Set()), []);
  return { chosen, has: (id) => selected.has(id), toggle, select, selectAll, clear };
}
