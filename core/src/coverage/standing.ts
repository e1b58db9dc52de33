/** The standing of a coverage item; of several that hold, the first of this list. */
export const STANDINGS = ['leftOut', 'waiting', 'suspect', 'shown', 'linked', 'gap'] as const;
export type Standing = (typeof STANDINGS)[number];

/** How many items have each standing; weighted counts use the same shape. */
export type StandingCounts = Readonly<Record<Standing, number>>;

export const NO_ITEMS: StandingCounts = { leftOut: 0, waiting: 0, suspect: 0, shown: 0, linked: 0, gap: 0 };

export function countStandings(standings: readonly Standing[]): StandingCounts {
  const counts = { ...NO_ITEMS };
  for (const standing of standings) counts[standing] += 1;
  return counts;
}

/** Adds up counts; mutable, as sums over a large project are made after every edit. */
export class CountSum {
  readonly #counts: Record<Standing, number> = { ...NO_ITEMS };

  add(counts: StandingCounts, weight = 1): void {
    this.#counts.leftOut += counts.leftOut * weight;
    this.#counts.waiting += counts.waiting * weight;
    this.#counts.suspect += counts.suspect * weight;
    this.#counts.shown += counts.shown * weight;
    this.#counts.linked += counts.linked * weight;
    this.#counts.gap += counts.gap * weight;
  }

  get counts(): StandingCounts {
    return { ...this.#counts };
  }
}

/** An exact fraction of items. `of` 0 means there is nothing to show, which is not 100 %. */
export interface Ratio {
  readonly part: number;
  readonly of: number;
}

/** shown ÷ (items − left out): design coverage (ISO/IEC/IEEE 29119-4, 6.1). */
export function shownRatio(counts: StandingCounts): Ratio {
  return { part: counts.shown, of: itemsToShow(counts) };
}

/** (shown + linked) ÷ (items − left out). */
export function linkedRatio(counts: StandingCounts): Ratio {
  return { part: counts.shown + counts.linked, of: itemsToShow(counts) };
}

export function itemsToShow(counts: StandingCounts): number {
  return counts.waiting + counts.suspect + counts.shown + counts.linked + counts.gap;
}

/** Whole percent, rounded down so that 100 is never claimed with a gap; null when there is nothing to show. */
export function percentDown({ part, of }: Ratio): number | null {
  return of === 0 ? null : Math.floor((part * 100) / of);
}
