import { QueryTypes } from 'sequelize';
import type { UnitOfWork } from './connection.ts';

/** Rows of an SQL query with `$1` parameters. `R` says what the query's own text selects. */
export async function selectRows<R extends object>(work: UnitOfWork, sql: string, bind: readonly unknown[] = []): Promise<R[]> {
  return work.db.query<R>(sql, { type: QueryTypes.SELECT, bind: [...bind], transaction: work.transaction });
}

/** Runs an SQL statement that is asked for no rows. */
export async function execute(work: UnitOfWork, sql: string, bind: readonly unknown[] = []): Promise<void> {
  await work.db.query(sql, { bind: [...bind], transaction: work.transaction, raw: true });
}
