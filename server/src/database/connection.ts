import { EventEmitter } from 'node:events';
import { Sequelize, Transaction } from 'sequelize';

/** All tables live in a schema of their own, so that a shared database holds nothing of ours elsewhere. */
export const SCHEMA = 'caderno';
/** Where jobs wait and are done; it is made by the queue itself, and holds nothing that would be missed. */
export const JOBS_SCHEMA = 'caderno_jobs';

/** Connections a server has at most; its threads have some of their own. */
const MOST_CONNECTIONS = 12;

/** Whoever waits longer for what another command holds is told to try again, and holds no connection meanwhile. */
const LONGEST_LOCK_WAIT_MS = 6_000;

/** How every connection is set. */
const SESSION = [['search_path', SCHEMA], ['statement_timeout', '60000'], ['lock_timeout', String(LONGEST_LOCK_WAIT_MS)]] as const;

/** In an address: connections are lent for a transaction at a time by a pool in between, which knows no settings of a session. */
const POOLED = 'pooled';

const pooled = new WeakSet<Sequelize>();

/** A query that takes longer is named in the log. */
const SLOW_MS = 500;

/** `most`: connections at a time. `onSlow`: hears of queries that took long, by their text without anything a person wrote. */
export interface PoolOptions {
  readonly most?: number;
  readonly onSlow?: (ms: number, sql: string) => void;
}

/** Values stand in a query as literals where Sequelize writes it. */
function withoutContents(sql: string): string {
  return sql.replaceAll(/'(?:[^']|'')*'/g, "'…'").replaceAll(/\s+/g, ' ').slice(0, 400);
}

/** A pool on the database at `url`. Nothing is connected until the first query. */
export function openDatabase(url: string, { most = MOST_CONNECTIONS, onSlow }: PoolOptions = {}): Sequelize {
  const db = new Sequelize(plainUrl(url), {
    dialect: 'postgres',
    benchmark: onSlow !== undefined,
    logging: onSlow === undefined ? false : (sql, ms) => typeof ms === 'number' && ms > SLOW_MS && onSlow(ms, withoutContents(sql)),
    pool: { max: most, min: 0, acquire: 10_000, idle: 10_000 },
    dialectOptions: { ...(isPooled(url) ? {} : { options: SESSION.map(([name, value]) => `-c ${name}=${value}`).join(' ') }), application_name: 'caderno', connectionTimeoutMillis: 5_000 },
    define: { underscored: true, timestamps: false, freezeTableName: true, schema: SCHEMA },
  });
  db.addHook('afterConnect', survive);
  if (isPooled(url)) pooled.add(db);
  return db;
}

/** The address without what it says to us. */
export function plainUrl(url: string): string {
  const address = new URL(url);
  address.searchParams.delete(POOLED);
  return address.href;
}

function isPooled(url: string): boolean {
  return new URL(url).searchParams.get(POOLED) === '1';
}

/** A connection may fail at any moment, also when nobody waits for it: whoever uses it next is told, and the process goes on. */
function survive(connection: unknown): void {
  if (connection instanceof EventEmitter) connection.on('error', () => undefined);
}

/** What a service works in: the database, and the transaction it belongs to. */
export interface UnitOfWork {
  readonly db: Sequelize;
  readonly transaction: Transaction;
}

/** Runs `action` on the database as it is at one moment: what several queries read belongs together. Nothing is written. */
export function inSnapshot<T>(db: Sequelize, action: (work: UnitOfWork) => Promise<T>): Promise<T> {
  return db.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ, readOnly: true }, (transaction) => begun({ db, transaction }, action));
}

/** Runs `action` in one transaction: all of it happens, or nothing. */
export function inTransaction<T>(db: Sequelize, action: (work: UnitOfWork) => Promise<T>): Promise<T> {
  return db.transaction((transaction) => begun({ db, transaction }, action));
}

/** Runs `action` in a transaction that is taken back whatever comes of it: what it answers is known then, and nothing that it wrote is kept. */
export async function inTrial<T>(db: Sequelize, action: (work: UnitOfWork) => Promise<T>): Promise<T> {
  const transaction = await db.transaction();
  try {
    return await begun({ db, transaction }, action);
  } finally {
    await transaction.rollback();
  }
}

/** A connection that is lent for this transaction only is set for it. */
async function begun<T>(work: UnitOfWork, action: (work: UnitOfWork) => Promise<T>): Promise<T> {
  if (pooled.has(work.db)) await work.db.query(SESSION.map(([name, value]) => `SET LOCAL ${name} = ${value}`).join('; '), { transaction: work.transaction });
  return action(work);
}
