import { isCaseId } from '@caderno/core/artefacts';
import { LRUCache } from 'lru-cache';
import { findAlike, type Alike, type AlikeProgress } from '@caderno/core/shared';
import type { DesignCase } from '@caderno/core/coverage';

/** What is known of runs and cases nearly alike: of the last search that was finished, and how far one is that is under way. */
export interface AlikeState extends Alike {
  readonly search: AlikeProgress | null;
}

interface Search {
  readonly revision: number;
  state: AlikeState;
  endedAt: number;
  tookMs: number;
}

const NOTHING: Alike = { runs: [], cases: [] };

/** Projects of which a thread remembers what was found. */
const MOST_SEARCHES = 200;

/** A search is begun again only after many times as long as it took: reading pages of a large project must not keep the thread busy. */
const REST = 20;

/** Looks through the cases of projects slice by slice, so that questions are answered in between. */
export class AlikeSearches {
  readonly #searches = new LRUCache<string, Search>({ max: MOST_SEARCHES });

  /** What is known now; a search for a newer revision is begun unless one is under way or has just been. */
  at(projectId: string, revision: number, cases: () => readonly DesignCase[]): AlikeState {
    const known = this.#searches.get(projectId);
    if (known !== undefined && (known.revision === revision || known.state.search !== null || performance.now() - known.endedAt < known.tookMs * REST)) return known.state;
    const list = cases();
    const search: Search = { revision, state: { ...(known?.state ?? NOTHING), search: { done: 0, of: list.length } }, endedAt: 0, tookMs: 0 };
    this.#searches.set(projectId, search);
    this.#go(search, findAlike(list.flatMap(({ id, content }) => (isCaseId(id) ? [{ id, content }] : []))));
    return search.state;
  }

  #go(search: Search, finding: Generator<AlikeProgress, Alike>): void {
    const began = performance.now();
    const next = finding.next();
    search.tookMs += performance.now() - began;
    if (next.done === true) {
      search.endedAt = performance.now();
      search.state = { ...next.value, search: null };
      return;
    }
    search.state = { ...search.state, search: next.value };
    setImmediate(() => this.#go(search, finding));
  }
}
