import { serve, type ServerType } from '@hono/node-server';
import { z } from 'zod';
import { CoverageKeeper } from './coverage/index.ts';
import { Importer } from './exchange/index.ts';
import { migrate, openDatabase, removeAll } from './database/index.ts';
import { isEmptyInstallation, loadDemo } from './demo/index.ts';
import { ChangeFeed, createApp, createLog, isDatabaseGone } from './http/index.ts';
import { readSettings, type Settings } from './settings.ts';

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  const log = createLog(settings.logLevel);
  const db = openDatabase(settings.databaseUrl);
  if (settings.fresh) await removeAll(db);
  await migrate(db);
  if (settings.demoFolder !== null && (await isEmptyInstallation(db))) {
    console.log(`The demo project ${await loadDemo(db, settings.demoFolder, new Date(), settings.demoTracker)} is loaded.`);
  }
  const coverage = new CoverageKeeper(settings.databaseUrl);
  const importer = new Importer(settings.databaseUrl);
  const feed = new ChangeFeed(settings.databaseUrl, log);
  await feed.start();
  const app = createApp({ db, coverage, importer, feed, log, webFolder: settings.webFolder, now: () => new Date() });
  const server = await listen(app.fetch, settings);
  const stop = (): void => {
    server.close();
    void Promise.allSettled([feed.close(), coverage.close(), importer.close(), db.close()]).then(() => process.exit(0));
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
}

function listen(fetch: (request: Request) => Response | Promise<Response>, { host, port }: Settings): Promise<ServerType> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch, hostname: host, port }, (address) => {
      console.log(`Caderno is at http://${host.includes(':') ? `[${host}]` : host}:${address.port}`);
      resolve(server);
    });
    server.on('error', reject);
  });
}

/** One sentence on what went wrong and what to do, for whoever started it. */
function startFailure(error: unknown): string {
  if (error instanceof z.ZodError) return `A setting cannot be used: ${error.issues.map((i) => `${i.path.join('.')} ${i.message}`).join('; ')}. Correct it and start again.`;
  const code = error instanceof Error && 'code' in error ? error.code : null;
  if (code === 'EADDRINUSE') return `Port ${process.env.PORT ?? '3210'} is taken by another program. Start with another one: PORT=3211 npm start`;
  if (code === 'EACCES') return `Port ${process.env.PORT ?? ''} may not be used by this account. Start with one above 1023: PORT=3210 npm start`;
  if (code === 'EADDRNOTAVAIL') return `This machine has no address ${process.env.HOST ?? ''}. Leave HOST out, or set it to 127.0.0.1.`;
  const message = error instanceof Error ? error.message : String(error);
  if (/password authentication|no pg_hba|does not exist|SSL|permission denied for/.test(message)) return `The database refuses us (${message}). Check DATABASE_URL: user, password, and a database that exists and where the user may create a schema.`;
  if (/No space left|could not extend file/.test(message)) return `The disk is full (${message}). Free some space and start again; what was stored is kept.`;
  if (isDatabaseGone(error)) return `No PostgreSQL answers at DATABASE_URL (${message}). Check the address, or leave DATABASE_URL out to use Caderno’s own.`;
  return `Caderno could not start: ${error instanceof Error ? (error.stack ?? message) : message}`;
}

main().catch((error: unknown) => {
  console.error(startFailure(error));
  process.exit(1);
});
