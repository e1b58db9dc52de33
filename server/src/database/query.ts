import { QueryTypes } from 'sequelize';
import type { z } from 'zod';
import type { UnitOfWork } from './connection.ts';

/** Rows of an SQL query with `$1` parameters, each held against a schema: what the text selects is not what somebody thinks it does until it has been seen. */
export async function selectRows<T>(work: UnitOfWork, row: z.ZodType<T>, sql: string, bind: readonly unknown[] = []): Promise<T[]> {
  const rows = await work.db.query(sql, { type: QueryTypes.SELECT, bind: [...bind], transaction: work.transaction });
  return rows.map((found) => row.parse(found));
}

/** Whether a query answers any row. */
export async function answersAny(work: UnitOfWork, sql: string, bind: readonly unknown[] = []): Promise<boolean> {
  const rows = await work.db.query(sql, { type: QueryTypes.SELECT, bind: [...bind], transaction: work.transaction });
  return rows.length > 0;
}

/** Runs an SQL statement that is asked for no rows. */
export async function execute(work: UnitOfWork, sql: string, bind: readonly unknown[] = []): Promise<void> {
  await work.db.query(sql, { bind: [...bind], transaction: work.transaction, raw: true });
}
