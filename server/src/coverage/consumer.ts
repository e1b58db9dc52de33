import { LRUCache } from 'lru-cache';
import type { Sequelize } from 'sequelize';
import { setTimeout as sleep } from 'node:timers/promises';
import { coverageRows, type CoverageRows } from '@caderno/core/coverage';
import { inTransaction } from '../database/index.ts';
import { revisionOf } from '../log/index.ts';
import type { CoverageIndexes, KeptIndex } from './indexes.ts';
import type { CaughtUp } from './question.ts';
import { coverageState, isOurs, storedRows, writeRows, type CoverageState } from './rows.ts';

/** What this thread wrote last of a project. */
interface Written {
  readonly state: CoverageState;
  readonly rows: CoverageRows;
}

/** Rows that a thread remembers having written; of more, the project asked longest ago is read from the database. */
const MOST_REMEMBERED = 100_000;

/** How long whoever finds another server at work waits before looking again. */
const LOOK_AGAIN_MS = 40;

/**
 * Brings a project's coverage rows up to its journal: what the index says now is held against what was written last, and
 * only what differs is written. Any number of servers may be asked to; one at a time does it, and when that one dies the
 * next goes on at once. Whoever finds that another has written since reads the stored rows first.
 */
export class CoverageConsumer {
  readonly #db: Sequelize;
  readonly #indexes: CoverageIndexes;
  readonly #written = new LRUCache<string, Written>({ maxSize: MOST_REMEMBERED, sizeCalculation: ({ rows }) => Math.min(MOST_REMEMBERED, 1 + rows.size) });

  constructor(db: Sequelize, indexes: CoverageIndexes) {
    this.#db = db;
    this.#indexes = indexes;
  }

  /** Brings the rows to the revision that the project has now, or beyond: what changes meanwhile is for the next call. */
  async catchUp(projectId: string): Promise<CaughtUp> {
    const wanted = await inTransaction(this.#db, (work) => revisionOf(work, projectId));
    for (;;) {
      const state = await inTransaction(this.#db, (work) => coverageState(work, projectId));
      if (state !== null && state.revision >= wanted) return { byUs: state.edition === this.#written.get(projectId)?.state.edition };
      if ((await this.#asOnly(projectId)) === 'elsewhere') await sleep(LOOK_AGAIN_MS);
    }
  }

  /** Computes and writes, unless another server is at it. The lock goes with the transaction, and with the process that holds it. */
  #asOnly(projectId: string): Promise<'done' | 'elsewhere'> {
    return inTransaction(this.#db, async (lock) => {
      if (!(await isOurs(lock, projectId))) return 'elsewhere';
      const kept = await inTransaction(this.#db, (work) => this.#indexes.at(work, projectId));
      await this.#write(projectId, kept);
      return 'done';
    });
  }

  async #write(projectId: string, { index, revision }: KeptIndex): Promise<void> {
    const before = await this.#before(projectId);
    const rows = coverageRows(index, before.rows);
    const state = await inTransaction(this.#db, (work) => writeRows(work, projectId, before.state, revision, before.rows, rows));
    if (state !== null) this.#written.set(projectId, { state, rows });
  }

  /** What is stored: known from the last writing, unless somebody else wrote since. */
  #before(projectId: string): Promise<{ readonly state: CoverageState | null; readonly rows: CoverageRows }> {
    return inTransaction(this.#db, async (work) => {
      const state = await coverageState(work, projectId);
      const written = this.#written.get(projectId);
      if (state !== null && written?.state.edition === state.edition) return written;
      return { state, rows: await storedRows(work, projectId) };
    });
  }
}
