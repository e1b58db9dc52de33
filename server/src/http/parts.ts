import { randomBytes } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CoverageKeeper } from '../coverage/index.ts';
import { openDatabase, plainUrl } from '../database/index.ts';
import { Importer } from '../exchange/index.ts';
import { SecretBox } from '../secrets/index.ts';
import { ChangeFeed } from './changeFeed.ts';
import { HeavyLane } from './heavyLane.ts';
import type { Parts } from './context.ts';
import { LOOPBACK_NAMES } from './hosts.ts';
import type { Log } from './log.ts';
import { Metrics } from './metrics.ts';
import { ProjectNews } from './projectNews.ts';
import { Proxies } from './proxies.ts';
import { Stopping } from './stopping.ts';

const VERSION = '0.1.0';

/** What differs from one server to another. `directUrl`: where changes are heard, which a pool of connections for transactions cannot do. */
export type PartsGiven = { readonly databaseUrl: string; readonly directUrl?: string; readonly log: Log } & Partial<Omit<Parts, 'db' | 'coverage' | 'importer' | 'heavy' | 'feed' | 'news' | 'log' | 'stopping' | 'metrics' | 'spool'>>;

/** Makes the parts of a server on a database; nothing listens yet. Without a key of their own, secrets last as long as the server. */
export function makeParts({ databaseUrl, directUrl = databaseUrl, log, ...given }: PartsGiven): { readonly parts: Parts; close(): Promise<void> } {
  const spool = mkdtempSync(join(tmpdir(), 'caderno-spool-'));
  const db = openDatabase(databaseUrl, { onSlow: (ms, sql) => log.warn({ ms, sql }, 'a slow query') });
  const coverage = new CoverageKeeper(databaseUrl);
  const feed = new ChangeFeed(plainUrl(directUrl), log);
  const { secrets = new SecretBox(randomBytes(32)), demoSignIn = 'whileAlone' } = given;
  const metrics = new Metrics();
  metrics.watchPool(db);
  metrics.watchStreams(feed.streams);
  const parts: Parts = {
    secrets,
    webFolder: null,
    hosts: LOOPBACK_NAMES,
    demoSignIn,
    proxies: new Proxies([]),
    outsideHosts: [],
    metricsToken: null,
    now: () => new Date(),
    version: VERSION,
    startedAt: new Date(),
    ...given,
    log,
    spool,
    db,
    coverage,
    importer: new Importer(databaseUrl),
    heavy: new HeavyLane({ databaseUrl, key: secrets.key, demoSignIn }),
    feed,
    news: new ProjectNews({ db, feed, coverage, metrics, log }),
    stopping: new Stopping(),
    metrics,
  };
  const close = async (): Promise<void> => {
    await Promise.allSettled([parts.feed.close(), parts.coverage.close(), parts.importer.close(), parts.heavy.close()]);
    await parts.db.close();
    await rm(spool, { recursive: true, force: true });
  };
  return { parts, close };
}
