import { SequelizeStorage, Umzug } from 'umzug';
import type { Sequelize } from 'sequelize';
import { SCHEMA } from './connection.ts';
import { first } from './migrations/0001-first.ts';
import { basis } from './migrations/0002-basis.ts';
import { shared } from './migrations/0003-shared.ts';
import { attachments } from './migrations/0004-attachments.ts';
import { dataSets } from './migrations/0005-data-sets.ts';

const MIGRATIONS = [first, basis, shared, attachments, dataSets];

/** Any number, the same in all our processes: servers that start together migrate one after the other. */
const MIGRATION_LOCK = 7_201_126;

/** Brings the schema to the newest form. Safe to run by several servers at once. */
export async function migrate(db: Sequelize): Promise<readonly string[]> {
  return db.transaction(async (lock) => {
    await db.query(`SELECT pg_advisory_xact_lock(${MIGRATION_LOCK})`, { transaction: lock });
    await db.query(`CREATE SCHEMA IF NOT EXISTS ${SCHEMA}`);
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, sql }) => ({ name, up: () => db.transaction((transaction) => db.query(sql, { transaction })) })),
      storage: new SequelizeStorage({ sequelize: db, schema: SCHEMA, tableName: 'migration' }),
      logger: undefined,
    });
    return (await umzug.up()).map((done) => done.name);
  });
}

/** Removes everything of Caderno's from the database, and nothing else. */
export async function removeAll(db: Sequelize): Promise<void> {
  await db.query(`DROP SCHEMA IF EXISTS ${SCHEMA} CASCADE`);
}
