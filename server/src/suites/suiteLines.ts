import type { SuiteLine } from '@caderno/contract';
import { inTransaction } from '../database/index.ts';
import { revisionOf } from '../log/index.ts';
import { measureSuites, type Measuring } from './measure.ts';

interface Kept {
  readonly revision: number;
  readonly at: number;
  readonly lines: Promise<SuiteLine[]>;
}

/** Rules may ask how old something is: an answer holds no longer than this, in milliseconds. */
const HOLDS = 60_000;
const MOST_PROJECTS = 32;

/** What all suites of a project come to, worked out once for a revision, however many pages ask. */
export class SuiteLines {
  readonly #kept = new Map<string, Kept>();

  async read(where: Measuring): Promise<SuiteLine[]> {
    const { db, projectId, now } = where;
    // Read first: what is worked out may know more than this revision, and never less.
    const revision = await inTransaction(db, (work) => revisionOf(work, projectId));
    const known = this.#kept.get(projectId);
    if (known !== undefined && known.revision === revision && now - known.at < HOLDS) return known.lines;
    const lines = measureSuites(where);
    this.#keep(projectId, { revision, at: now, lines });
    return lines;
  }

  /** The project that was asked about longest ago is forgotten first; so is an answer that failed. */
  #keep(projectId: string, kept: Kept): void {
    this.#kept.delete(projectId);
    this.#kept.set(projectId, kept);
    const [oldest] = this.#kept.keys();
    if (this.#kept.size > MOST_PROJECTS && oldest !== undefined) this.#kept.delete(oldest);
    kept.lines.catch(() => {
      if (this.#kept.get(projectId) === kept) this.#kept.delete(projectId);
    });
  }
}
