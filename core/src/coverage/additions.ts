import { compareCovering, type CoveringId } from '../artefacts/index.ts';
import { askedIn, type AskedItems } from './askedItems.ts';
import { Chosen, type Choice } from './chosen.ts';
import type { CoverageIndex } from './coverageIndex.ts';
import { standingsOf } from './conditionCoverage.ts';

/** A case or scenario that would show what the choice misses. */
export interface Addition {
  readonly id: CoveringId;
  /** Items that it shows and neither the choice nor what is proposed before it does. */
  readonly adds: number;
}

/** What would show what a choice misses. */
export interface Additions {
  /** The one that adds most first. */
  readonly proposed: readonly Addition[];
  /** Items that nothing in the project shows: no choice does. */
  readonly shownByNothing: number;
}

/**
 * Which cases and scenarios would show the items that a choice misses: the one that adds most weight, then the one that adds most to both, and
 * so on, until all that anything shows is shown. Few, and not proven the fewest (the greedy cover of Chvátal 1979: at most ln n times as many).
 */
export function additions(index: CoverageIndex, choice: Choice, missed: AskedItems): Additions {
  const chosen = new Chosen(index, choice);
  const isAsked = askedIn(index, missed);
  const shownBy = new Map<CoveringId, { readonly item: number; readonly weight: number }[]>();
  let [items, shownByNothing] = [0, 0];
  for (const entry of index.entries.values()) {
    if (entry.counted === null || !isAsked(entry)) continue;
    const { grounds, tally } = entry.counted;
    const standings = standingsOf({ ...grounds, covering: chosen.covering(entry, grounds) });
    standings.forEach((standing, place) => {
      if (standing === 'shown' || standing === 'leftOut') return;
      if (tally.standings[place] !== 'shown') {
        shownByNothing += 1;
        return;
      }
      const item = items++;
      for (const { id, suspect, evidence } of grounds.covering) {
        if (suspect || chosen.has(id) || (evidence.counts[place] ?? 0) === 0) continue;
        const list = shownBy.get(id) ?? [];
        shownBy.set(id, list);
        list.push({ item, weight: tally.weight });
      }
    });
  }
  return { proposed: greedy(shownBy), shownByNothing };
}

/** What a case adds only gets less: one that was worth less than another is asked again only when it comes to be the best. */
function greedy(shownBy: ReadonlyMap<CoveringId, readonly { readonly item: number; readonly weight: number }[]>): Addition[] {
  const shown = new Set<number>();
  const worth = (id: CoveringId): { readonly items: number; readonly weight: number } => {
    const left = (shownBy.get(id) ?? []).filter(({ item }) => !shown.has(item));
    return { items: left.length, weight: left.reduce((sum, { weight }) => sum + weight, 0) };
  };
  const waiting = [...shownBy.keys()].map((id) => ({ id, ...worth(id) }));
  const better = (a: (typeof waiting)[number], b: (typeof waiting)[number]): number => b.weight - a.weight || b.items - a.items || compareCovering(a.id, b.id);
  waiting.sort(better);
  const picked: Addition[] = [];
  for (let best = waiting.shift(); best !== undefined; best = waiting.shift()) {
    const now = { id: best.id, ...worth(best.id) };
    if (now.items === 0) continue;
    const next = waiting[0];
    if (next === undefined || better(now, next) <= 0) {
      picked.push({ id: now.id, adds: now.items });
      for (const { item } of shownBy.get(now.id) ?? []) shown.add(item);
      continue;
    }
    const place = waiting.findIndex((other) => better(now, other) < 0);
    waiting.splice(place < 0 ? waiting.length : place, 0, now);
  }
  return picked;
}
