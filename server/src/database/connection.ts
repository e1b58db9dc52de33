import { Sequelize, type Transaction } from 'sequelize';

/** All tables live in a schema of their own, so that a shared database holds nothing of ours elsewhere. */
export const SCHEMA = 'caderno';

/** A pool on the database at `url`. Nothing is connected until the first query. */
export function openDatabase(url: string): Sequelize {
  return new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 12, min: 0, acquire: 10_000, idle: 10_000 },
    dialectOptions: { options: `-c search_path=${SCHEMA} -c statement_timeout=60000`, application_name: 'caderno', connectionTimeoutMillis: 5_000 },
    define: { underscored: true, timestamps: false, freezeTableName: true, schema: SCHEMA },
  });
}

/** What a service works in: the database, and the transaction it belongs to. */
export interface Work {
  readonly db: Sequelize;
  readonly transaction: Transaction;
}

/** Runs `action` in one transaction: all of it happens, or nothing. */
export function inTransaction<T>(db: Sequelize, action: (work: Work) => Promise<T>): Promise<T> {
  return db.transaction((transaction) => action({ db, transaction }));
}
