import type { CoveringId } from '../artefacts/index.ts';
import type { CaseCounts } from './caseCounts.ts';
import type { CoveringCase, Grounds } from './conditionCoverage.ts';
import type { ConditionEntry, CoverageIndex } from './coverageIndex.ts';
import type { DesignCase, DesignLibrary } from './design.ts';

/** Some of a project's cases and scenarios, without the others. */
export interface Choice {
  /** Each once. */
  readonly ids: readonly CoveringId[];
  /** Those of them that are meant in another content than the latest, with what that uses besides. */
  readonly instead: { readonly cases: readonly DesignCase[]; readonly library: DesignLibrary };
}

/** Looks up what is chosen of all that covers a condition. */
export class Chosen {
  readonly #index: CoverageIndex;
  readonly #ids: ReadonlySet<CoveringId>;
  /** What shows in the place of what the index holds. */
  readonly #instead: ReadonlyMap<CoveringId, ReturnType<CoverageIndex['evidenceOf']> | null>;
  readonly #insteadAt = new Map<ConditionEntry, CoveringCase[]>();

  constructor(index: CoverageIndex, { ids, instead }: Choice) {
    this.#index = index;
    this.#ids = new Set(ids);
    this.#instead = new Map(instead.cases.map((c) => [c.id, c.state === 'withdrawn' ? null : index.evidenceOf(c, instead.library)]));
    for (const read of this.#instead.values()) {
      for (const [entry, covering] of read?.covering ?? []) this.#insteadAt.set(entry, [...(this.#insteadAt.get(entry) ?? []), covering]);
    }
  }

  has(id: CoveringId): boolean {
    return this.#ids.has(id);
  }

  covering(entry: ConditionEntry, { covering }: Pick<Grounds, 'covering'>): readonly CoveringCase[] {
    const instead = this.#insteadAt.get(entry);
    const latest = covering.filter(({ id }) => this.#ids.has(id) && !this.#instead.has(id));
    return instead === undefined ? latest : [...latest, ...instead];
  }

  countsOf(id: CoveringId): CaseCounts | null {
    const instead = this.#instead.get(id);
    if (instead !== undefined) return instead?.counts ?? null;
    const latest = this.#index.cases.get(id);
    return latest === undefined || latest.state === 'withdrawn' ? null : this.#index.countsOf(latest);
  }
}
