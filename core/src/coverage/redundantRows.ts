import type { CoveringId } from '../artefacts/index.ts';
import type { RowId } from '../cases/index.ts';
import type { ConditionCoverage } from './conditionCoverage.ts';
import { shownIn } from './shownList.ts';

/** A row that shows nothing others do not. `like`: the row that shows all of it; null: several together do. */
export interface RedundantRow {
  readonly row: RowId;
  readonly like: RowId | null;
}

/**
 * Rows of a case that can all be put aside together without any item losing its last row: the later of two goes first.
 * Items that the model alone decides, not the values of a row, say nothing about rows; a row that shows no other item
 * is not judged. In the order of the rows.
 */
export function redundantRows(id: CoveringId, coverages: Iterable<ConditionCoverage>): RedundantRow[] {
  const shown = itemsByRow(id, coverages);
  const counts = new Map<number, number>();
  for (const items of shown.values()) for (const item of items) counts.set(item, (counts.get(item) ?? 0) + 1);
  const gone = new Set<RowId>();
  for (const [row, items] of [...shown].toReversed()) {
    if (items.size === 0 || [...items].some((item) => counts.get(item) === 1)) continue;
    gone.add(row);
    for (const item of items) counts.set(item, (counts.get(item) ?? 0) - 1);
  }
  // A row that shows all of it shows its first item too: only those are looked through.
  const keptBy = new Map<number, RowId[]>();
  for (const [row, items] of shown) if (!gone.has(row)) for (const item of items) keptBy.set(item, [...(keptBy.get(item) ?? []), row]);
  const like = (items: ReadonlySet<number>): RowId | null => {
    const [any = -1] = items;
    return (keptBy.get(any) ?? []).find((row) => [...items].every((item) => shown.get(row)?.has(item))) ?? null;
  };
  return [...shown].flatMap(([row, items]) => (gone.has(row) ? [{ row, like: like(items) }] : []));
}

/** Items of all conditions, numbered through. */
function itemsByRow(id: CoveringId, coverages: Iterable<ConditionCoverage>): Map<RowId, Set<number>> {
  const shown = new Map<RowId, Set<number>>();
  let first = 0;
  for (const { items, evidence } of coverages) {
    const own = evidence.find((e) => e.case === id);
    own?.rows.forEach((row, instance) => {
      if (row === null) return;
      const all = shown.get(row.id) ?? new Set();
      shown.set(row.id, all);
      for (const place of shownIn(own.shown, instance)) if (isOfValues(items[place]?.item.kind)) all.add(first + place);
    });
    first += items.length;
  }
  return shown;
}

/** Plain conditions and ways through states are shown by steps: by every row alike. */
function isOfValues(kind: ConditionCoverage['items'][number]['item']['kind'] | undefined): boolean {
  return kind !== undefined && kind !== 'condition' && kind !== 'state' && kind !== 'transition' && kind !== 'sequence' && kind !== 'invalidPair';
}
