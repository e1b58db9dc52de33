import type { ConditionId, CoveringId } from '@caderno/core/artefacts';
import type { Row, RowId } from '@caderno/core/cases';
import { redundantRows, shownIn, type ConditionCoverage, type Standing } from '@caderno/core/coverage';
import type { RowShows } from './GridRow.tsx';

/** What each row of a case shows: the names of the items, as mark the best standing among them, and whether others show the same. */
export function rowShows(id: CoveringId, rows: readonly Row[], coverages: ReadonlyMap<ConditionId, ConditionCoverage>): Map<RowId, RowShows> {
  const names = new Map<RowId, string[]>();
  const suspect = new Set<RowId>();
  const trusted = new Set<RowId>();
  for (const { items, evidence } of coverages.values()) {
    const own = evidence.find((e) => e.case === id);
    own?.rows.forEach((row, instance) => {
      if (row === null) return;
      for (const place of shownIn(own.shown, instance)) {
        const found = items[place];
        if (found === undefined) continue;
        // A plain condition is shown by every row alike: saying so at each would hide what the row is for.
        if (found.item.kind !== 'condition') {
          const all = names.get(row.id) ?? [];
          all.push(found.item.name);
          names.set(row.id, all);
        }
        (found.standing === 'suspect' ? suspect : trusted).add(row.id);
      }
    });
  }
  const nameOf = new Map(rows.map((r) => [r.id, r.name]));
  const redundant = new Map(redundantRows(id, coverages.values()).map((r) => [r.row, r.like === null ? 'only what others show together:' : `only what “${nameOf.get(r.like) ?? ''}” shows:`]));
  return new Map(rows.map((row) => [row.id, { standing: markOf(trusted.has(row.id), suspect.has(row.id)), words: (names.get(row.id) ?? []).join(' · '), redundant: redundant.get(row.id) ?? '' }]));
}

function markOf(trusted: boolean, suspect: boolean): Standing | null {
  if (trusted) return 'shown';
  return suspect ? 'suspect' : null;
}
