import type { CoveringId } from '../artefacts/index.ts';
import type { CaseCounts } from './caseCounts.ts';
import { Chosen, type Choice } from './chosen.ts';
import { standingsOf } from './conditionCoverage.ts';
import type { CoverageIndex } from './coverageIndex.ts';

/** Which items each of the chosen ones shows, by numbers that mean something only here. */
export interface ShownMatrix {
  /** What each item counts that the choice shows, by the risk of its condition. */
  readonly weights: readonly number[];
  /** In the order of the choice. What is shown through a suspect link alone is shown by nobody. */
  readonly shown: readonly { readonly id: CoveringId; readonly counts: CaseCounts | null; readonly items: readonly number[] }[];
}

/** What the smallest choice that shows the same is worked out from. */
export function shownMatrix(index: CoverageIndex, choice: Choice): ShownMatrix {
  const chosen = new Chosen(index, choice);
  const shown = new Map<CoveringId, number[]>(choice.ids.map((id) => [id, []]));
  const weights: number[] = [];
  for (const entry of index.entries.values()) {
    if (entry.counted === null) continue;
    const { grounds, tally } = entry.counted;
    const covering = chosen.covering(entry, grounds);
    if (covering.length === 0) continue;
    standingsOf({ ...grounds, covering }).forEach((standing, place) => {
      if (standing !== 'shown') return;
      const item = weights.push(tally.weight) - 1;
      for (const { id, suspect, evidence } of covering) if (!suspect && (evidence.counts[place] ?? 0) > 0) shown.get(id)?.push(item);
    });
  }
  return { weights, shown: choice.ids.map((id) => ({ id, counts: chosen.countsOf(id), items: shown.get(id) ?? [] })) };
}
