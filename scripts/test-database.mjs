import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startPostgres } from './postgres.mjs';

/** Starts a throw-away PostgreSQL for a test run; the tests make their own databases on it. */
export default async function setup() {
  const folder = await mkdtemp(join(tmpdir(), 'caderno-test-'));
  const postgres = await startPostgres(folder, { durable: false });
  globalThis.cadernoTestPostgres = { folder, postgres };
  process.env.CADERNO_TEST_DATABASE = postgres.url;
}
