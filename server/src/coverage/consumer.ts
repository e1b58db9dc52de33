import type { Sequelize } from 'sequelize';
import { coverageRows, type CoverageRows } from '@caderno/core/coverage';
import { inTransaction } from '../database/index.ts';
import type { CoverageIndexes, KeptIndex } from './indexes.ts';
import { coverageState, isUpToDate, storedRows, writeRows, type CoverageState } from './rows.ts';

/** What this thread wrote last of a project. */
interface Written {
  readonly state: CoverageState;
  readonly rows: CoverageRows;
}

/** Writers that keep overtaking each other give up after so many turns; the next change brings them back. */
const MOST_TURNS = 5;

/**
 * Brings a project's coverage rows up to its journal: what the index says now is held against what was written last, and
 * only what differs is written. Any number of servers may do so: whoever finds that another has written since reads the
 * stored rows first.
 */
export class CoverageConsumer {
  readonly #db: Sequelize;
  readonly #indexes: CoverageIndexes;
  readonly #written = new Map<string, Written>();

  constructor(db: Sequelize, indexes: CoverageIndexes) {
    this.#db = db;
    this.#indexes = indexes;
  }

  /** Brings the rows to the project's present revision, or beyond. */
  async catchUp(projectId: string): Promise<void> {
    for (let turn = 0; turn < MOST_TURNS; turn += 1) {
      if (await inTransaction(this.#db, (work) => isUpToDate(work, projectId))) return;
      const kept = await inTransaction(this.#db, (work) => this.#indexes.at(work, projectId));
      if (await this.#write(projectId, kept)) return;
    }
  }

  async #write(projectId: string, { index, revision }: KeptIndex): Promise<boolean> {
    const before = await this.#before(projectId);
    const rows = coverageRows(index, before.rows);
    const state = await inTransaction(this.#db, (work) => writeRows(work, projectId, before.state, revision, before.rows, rows));
    if (state === null) return false;
    this.#written.set(projectId, { state, rows });
    return true;
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
