import { compareCovering, type CoveringId } from '../artefacts/index.ts';
import { askedIn, type AskedItems } from './askedItems.ts';
import type { CoverageIndex } from './coverageIndex.ts';
import type { ShownMatrix } from './shownMatrix.ts';

/** Which of the items that are asked for each case and scenario of a project shows; those that show none of them are not in it. */
export interface AskedMatrix extends ShownMatrix {
  /** Items that are asked for and that nothing shows: no choice does. */
  readonly shownByNothing: number;
}

/** What the smallest choice that shows all that is asked for is worked out from; cases before scenarios, each by their numbers. */
export function askedMatrix(index: CoverageIndex, asked: AskedItems): AskedMatrix {
  const isAsked = askedIn(index, asked);
  const shown = new Map<CoveringId, number[]>();
  const weights: number[] = [];
  let shownByNothing = 0;
  for (const entry of index.entries.values()) {
    if (entry.counted === null || !isAsked(entry)) continue;
    const { grounds, tally } = entry.counted;
    tally.standings.forEach((standing, place) => {
      if (standing === 'leftOut') return;
      if (standing !== 'shown') {
        shownByNothing += 1;
        return;
      }
      const item = weights.push(tally.weight) - 1;
      for (const { id, suspect, evidence } of grounds.covering) if (!suspect && (evidence.counts[place] ?? 0) > 0) listOf(shown, id).push(item);
    });
  }
  const ids = [...shown.keys()].sort(compareCovering);
  return { weights, shownByNothing, shown: ids.map((id) => ({ id, counts: countsOf(index, id), items: shown.get(id) ?? [] })) };
}

function listOf(lists: Map<CoveringId, number[]>, id: CoveringId): number[] {
  const list = lists.get(id) ?? [];
  lists.set(id, list);
  return list;
}

function countsOf(index: CoverageIndex, id: CoveringId): ShownMatrix['shown'][number]['counts'] {
  const known = index.cases.get(id);
  return known === undefined ? null : index.countsOf(known);
}
