import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { buildThreads } from './build.mjs';
import { startPostgres } from './postgres.mjs';

/** Starts a throw-away PostgreSQL for a test run, on which the tests make their own databases, and bundles what their servers' threads run. */
export default async function setup() {
  const folder = await mkdtemp(join(tmpdir(), 'caderno-test-'));
  const postgres = await startPostgres(folder, { durable: false });
  globalThis.cadernoTestPostgres = { folder, postgres };
  process.env.CADERNO_TEST_DATABASE = postgres.url;
  process.env.CADERNO_THREADS = pathToFileURL(await buildThreads()).href;
}
