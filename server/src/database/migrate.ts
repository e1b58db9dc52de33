import type { Sequelize } from 'sequelize';
import { JOBS_SCHEMA, SCHEMA, inTransaction } from './connection.ts';
import { first } from './migrations/0001-first.ts';
import { basis } from './migrations/0002-basis.ts';
import { shared } from './migrations/0003-shared.ts';
import { attachments } from './migrations/0004-attachments.ts';
import { dataSets } from './migrations/0005-data-sets.ts';
import { safety } from './migrations/0006-safety.ts';
import { sourceIds } from './migrations/0007-source-ids.ts';
import { log } from './migrations/0008-log.ts';
import { marks } from './migrations/0009-marks.ts';
import { files } from './migrations/0010-files.ts';
import { lists } from './migrations/0011-lists.ts';
import { caseFiles } from './migrations/0013-case-files.ts';
import { carried } from './migrations/0014-carried.ts';
import { features } from './migrations/0015-features.ts';
import { accessTokens } from './migrations/0016-access-tokens.ts';
import { remarks } from './migrations/0017-remarks.ts';
import { reviews } from './migrations/0018-reviews.ts';
import { baselines } from './migrations/0019-baselines.ts';
import { moments } from './migrations/0020-moments.ts';
import { inbox } from './migrations/0021-inbox.ts';
import { mail } from './migrations/0022-mail.ts';
import { readLinks } from './migrations/0023-read-links.ts';
import { offers } from './migrations/0024-offers.ts';
import { suites } from './migrations/0025-suites.ts';
import { handOffs } from './migrations/0026-hand-offs.ts';
import { trend } from './migrations/0027-trend.ts';
import { counts } from './migrations/0028-counts.ts';
import { parts } from './migrations/0029-parts.ts';
import { ownFields } from './migrations/0012-own-fields.ts';

const MIGRATIONS = [first, basis, shared, attachments, dataSets, safety, sourceIds, log, marks, files, lists, ownFields, caseFiles, carried, features, accessTokens, remarks, reviews, baselines, moments, inbox, mail, readLinks, offers, suites, handOffs, trend, counts, parts];

/** Any number, the same in all our processes: servers that start together migrate one after the other. */
const MIGRATION_LOCK = 7_201_126;

/** The database was brought further by a newer Caderno, which may have stored what this one would lose. */
export class DatabaseNewer extends Error {
  readonly unknown: readonly string[];
  constructor(unknown: readonly string[]) {
    super(`The database is newer than this server: ${unknown.join(', ')}`);
    this.name = 'DatabaseNewer';
    this.unknown = unknown;
  }
}

/** Brings the schema to the newest form. Safe to run by several servers at once. @throws DatabaseNewer */
export async function migrate(db: Sequelize): Promise<readonly string[]> {
  return db.transaction(async (lock) => {
    // Whoever starts while another migrates waits for it, however long that takes.
    await db.query('SET LOCAL lock_timeout = 0', { transaction: lock });
    await db.query(`SELECT pg_advisory_xact_lock(${MIGRATION_LOCK})`, { transaction: lock });
    await db.query(`CREATE SCHEMA IF NOT EXISTS ${SCHEMA}`);
    // Read here only: every thread would wait for it.
    const { SequelizeStorage, Umzug } = await import('umzug');
    const storage = new SequelizeStorage({ sequelize: db, schema: SCHEMA, tableName: 'migration' });
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, sql }) => ({ name, up: () => inTransaction(db, ({ transaction }) => db.query(sql, { transaction })) })),
      storage,
      logger: undefined,
    });
    // Asked of the storage: the migrator itself tells only of those it knows.
    const known = new Set(MIGRATIONS.map((m) => m.name));
    const unknown = (await storage.executed()).filter((name) => !known.has(name));
    if (unknown.length > 0) throw new DatabaseNewer(unknown);
    return (await umzug.up()).map((done) => done.name);
  });
}

/** Removes everything of Caderno's from the database, and nothing else. */
export async function removeAll(db: Sequelize): Promise<void> {
  await db.query(`DROP SCHEMA IF EXISTS ${SCHEMA}, ${JOBS_SCHEMA} CASCADE`);
}
