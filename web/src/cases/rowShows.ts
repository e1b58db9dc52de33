import type { CaseId, ConditionId } from '@caderno/core/artefacts';
import type { Row, RowId } from '@caderno/core/cases';
import { shownIn, type ConditionCoverage, type Standing } from '@caderno/core/coverage';
import type { RowShows } from '../data/index.ts';

/** What each row of a case shows: the names of the items, and as mark the best standing among them. */
export function rowShows(id: CaseId, rows: readonly Row[], coverages: ReadonlyMap<ConditionId, ConditionCoverage>): Map<RowId, RowShows> {
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
        if (found.item.kind !== 'condition') names.set(row.id, [...(names.get(row.id) ?? []), found.item.name]);
        (found.standing === 'suspect' ? suspect : trusted).add(row.id);
      }
    });
  }
  return new Map(rows.map((row) => [row.id, { standing: markOf(trusted.has(row.id), suspect.has(row.id)), words: (names.get(row.id) ?? []).join(' · ') }]));
}

function markOf(trusted: boolean, suspect: boolean): Standing | null {
  if (trusted) return 'shown';
  return suspect ? 'suspect' : null;
}
