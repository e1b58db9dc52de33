import { randomBytes } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CoverageKeeper } from '../coverage/index.ts';
import { openDatabase, plainUrl } from '../database/index.ts';
import { Importer, importKind } from '../exchange/index.ts';
import { Files, type FilesPlace } from '../files/index.ts';
import { Jobs } from '../jobs/index.ts';
import { MailServer } from '../mail/index.ts';
import { Phrasebooks } from '../scenarios/index.ts';
import { SuiteLines } from '../suites/index.ts';
import { TrendCounter } from '../trend/index.ts';
import { nameKind } from '../versions/index.ts';
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
export type PartsGiven = { readonly databaseUrl: string; readonly directUrl?: string; readonly filesPlace?: FilesPlace; readonly log: Log } & Partial<Omit<Parts, 'db' | 'coverage' | 'files' | 'importer' | 'phrasebooks' | 'suiteLines' | 'trend' | 'jobs' | 'heavy' | 'feed' | 'news' | 'log' | 'stopping' | 'metrics' | 'spool'>>;

/** Makes the parts of a server on a database; nothing listens yet. Without a key of their own, secrets last as long as the server. */
export function makeParts({ databaseUrl, directUrl = databaseUrl, filesPlace = null, log, ...given }: PartsGiven): { readonly parts: Parts; close(): Promise<void> } {
  const spool = mkdtempSync(join(tmpdir(), 'caderno-spool-'));
  const db = openDatabase(databaseUrl, { onSlow: (ms, sql) => log.warn({ ms, sql }, 'a slow query') });
  const coverage = new CoverageKeeper(databaseUrl, db);
  const feed = new ChangeFeed(plainUrl(directUrl), log);
  const { secrets = new SecretBox(randomBytes(32)), demoSignIn = 'whileAlone', mail = null } = given;
  const files = new Files(db, filesPlace);
  const importer = new Importer({ databaseUrl, filesPlace });
  const jobs = new Jobs(plainUrl(directUrl), (error) => log.warn({ err: error }, 'the queue of jobs failed; it goes on by itself'));
  jobs.define(importKind({ db, importer, onError: (error) => log.warn({ err: error }, 'an import failed; it is begun again') }));
  jobs.define(nameKind(db));
  const metrics = new Metrics();
  metrics.watchPool(db);
  metrics.watchStreams(feed.streams);
  metrics.watchJobs(jobs);
  const parts: Parts = {
    secrets,
    webFolder: null,
    hosts: LOOPBACK_NAMES,
    demoSignIn,
    mail,
    mailServer: mail === null ? null : new MailServer(mail),
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
    files,
    importer,
    phrasebooks: new Phrasebooks(db),
    suiteLines: new SuiteLines(),
    trend: new TrendCounter(databaseUrl),
    jobs,
    heavy: new HeavyLane({ databaseUrl, key: secrets.key, demoSignIn, mail }),
    feed,
    news: new ProjectNews({ db, feed, coverage, metrics, log }),
    stopping: new Stopping(),
    metrics,
  };
  const close = async (): Promise<void> => {
    // Jobs first: what they have begun may still end, or goes to another server.
    await jobs.close();
    await Promise.allSettled([parts.feed.close(), parts.coverage.close(), importer.close(), parts.trend.close(), parts.heavy.close()]);
    await files.close();
    await parts.db.close();
    await rm(spool, { recursive: true, force: true });
  };
  return { parts, close };
}
