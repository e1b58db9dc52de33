import { TECHNIQUES, type Technique } from '../conditions/index.ts';
import { CountSum, countStandings, type Standing, type StandingCounts } from './standing.ts';

/** Counts of one condition, kept so that a project's numbers are sums. */
export interface ConditionTally {
  readonly standings: readonly Standing[];
  readonly counts: StandingCounts;
  /** Only the techniques the condition has items of. */
  readonly byTechnique: readonly (readonly [Technique, StandingCounts])[];
  readonly weight: number;
}

/** `techniques[i]` is the technique of the item with `standings[i]`. */
export function tallyOf(standings: readonly Standing[], techniques: readonly Technique[], weight: number): ConditionTally {
  const counts = countStandings(standings);
  const used = TECHNIQUES.filter((t) => techniques.includes(t));
  const byTechnique = used.map((technique): readonly [Technique, StandingCounts] =>
    used.length === 1 ? [technique, counts] : [technique, countStandings(standings.filter((_, i) => techniques[i] === technique))],
  );
  return { standings, counts, byTechnique, weight };
}

/** A value for every technique. */
export function perTechnique<T>(make: (technique: Technique) => T): Record<Technique, T> {
  return Object.fromEntries(TECHNIQUES.map((t) => [t, make(t)])) as Record<Technique, T>;
}

/** The sums over all conditions of a project, kept by adding and taking away tallies. */
export class Totals {
  readonly all = new CountSum();
  /** Each item as often as it weighs. */
  readonly weighted = new CountSum();
  readonly byTechnique: Readonly<Record<Technique, CountSum>> = perTechnique(() => new CountSum());

  add(tally: ConditionTally): void {
    this.#change(tally, 1);
  }

  takeAway(tally: ConditionTally): void {
    this.#change(tally, -1);
  }

  #change(tally: ConditionTally, sign: 1 | -1): void {
    this.all.add(tally.counts, sign);
    this.weighted.add(tally.counts, sign * tally.weight);
    for (const [technique, counts] of tally.byTechnique) this.byTechnique[technique].add(counts, sign);
  }
}
