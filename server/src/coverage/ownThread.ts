import { LRUCache } from 'lru-cache';
import type { Sequelize } from 'sequelize';
import { countRow, inTransaction, selectRows } from '../database/index.ts';

/** A project of more cases and conditions has a thread of its own: reading it would hold up whoever shares one with it. */
const MOST_SHARING = 3_000;

/** A question that took longer shows a heavier project than its numbers tell. */
const SLOW_MS = 1_000;

/** How long a count holds, and how long a project that was slow is kept apart. */
const COUNTED_FOR_MS = 60_000;
const SLOW_FOR_MS = 10 * 60_000;

const MOST_KNOWN = 10_000;

/** Which projects need a thread of their own: known before the first question by their size, later by how long questions take. */
export class OwnThreads {
  readonly #db: Sequelize;
  readonly #known = new LRUCache<string, Promise<boolean>>({ max: MOST_KNOWN });

  constructor(db: Sequelize) {
    this.#db = db;
  }

  needed(projectId: string): Promise<boolean> {
    const known = this.#known.get(projectId);
    if (known !== undefined) return known;
    const counted = this.#isLarge(projectId);
    this.#known.set(projectId, counted, { ttl: COUNTED_FOR_MS });
    // What could not be counted is counted anew; whoever asked is told why.
    counted.catch(() => this.#known.delete(projectId));
    return counted;
  }

  took(projectId: string, ms: number): void {
    if (ms > SLOW_MS) this.#known.set(projectId, Promise.resolve(true), { ttl: SLOW_FOR_MS });
  }

  async #isLarge(projectId: string): Promise<boolean> {
    const sql = `SELECT count(*)::int AS count FROM (SELECT 1 FROM artefact WHERE project_id = $1 AND kind IN ('case', 'condition') AND deleted_at IS NULL LIMIT $2) AS found`;
    const [row] = await inTransaction(this.#db, (work) => selectRows(work, countRow, sql, [projectId, MOST_SHARING + 1]));
    return (row?.count ?? 0) > MOST_SHARING;
  }
}
