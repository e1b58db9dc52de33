import type { Server } from 'node:http';
import { serve } from '@hono/node-server';
import { DatabaseNewer, migrate, openDatabase, removeAll } from './database/index.ts';
import { Files } from './files/index.ts';
import { isEmptyInstallation, loadDemo } from './demo/index.ts';
import { createApp, createLog, isDatabaseGone, isDiskFull, makeParts, type Log } from './http/index.ts';
import { makeSetUpWord } from './people/index.ts';
import { SecretBox, readSecretKey, sealStoredSecrets } from './secrets/index.ts';
import { readSettings, type Settings } from './settings.ts';
import { superviseImports } from './exchange/index.ts';
import { startMailing, startUpkeep } from './upkeep/index.ts';
import { z } from 'zod';

/** How long what is under way may take once the server is to stop. */
const PATIENCE_MS = 15_000;

/** How often a server looks for imports whose server was lost. */
const SUPERVISE_MS = 5_000;

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  const log = createLog(settings.logLevel);
  tellWhyItEnds(log);
  const secrets = new SecretBox(await readSecretKey(settings.key, settings.keyFile));
  const setUpWord = await prepareDatabase(settings, secrets);
  const { parts, close } = makeParts({ ...settings, log, secrets });
  await parts.feed.start();
  await parts.jobs.start();
  const stopUpkeep = startUpkeep(parts.db, parts.files, (error) => log.error({ err: error }, 'upkeep failed; it is tried again in an hour'));
  const stopMailing = startMailing(parts, (error) => log.warn({ err: error }, 'mails could not be carried; it is tried again'));
  const supervising = setInterval(() => void superviseImports(parts.db, parts.jobs).catch((error: unknown) => log.warn({ err: error }, 'lost imports could not be looked for; it is tried again')), SUPERVISE_MS);
  tellWhoMayEnter(settings, setUpWord);
  const server = await listen(createApp(parts).fetch, settings);
  let stopping = false;
  const stop = (): void => {
    if (stopping) return;
    stopping = true;
    stopUpkeep();
    stopMailing();
    clearInterval(supervising);
    void parts.stopping
      .finish(PATIENCE_MS)
      .then(() => {
        parts.feed.streams.endAll();
        server.close();
        server.closeIdleConnections();
        return close();
      })
      .then(() => process.exit(0));
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
}

/** Answers the word that the first administrator needs; null when there are accounts, or the demo's people enter by a click. */
async function prepareDatabase(settings: Settings, secrets: SecretBox): Promise<string | null> {
  const db = openDatabase(settings.directUrl);
  if (settings.fresh) await removeAll(db);
  await migrate(db);
  await sealStoredSecrets(db, secrets);
  const files = new Files(db, settings.filesPlace);
  if (settings.demoFolder !== null && (await isEmptyInstallation(db))) {
    console.log(`The demo project ${await loadDemo(db, secrets, files, settings.demoFolder, new Date(), settings.demoTracker)} is loaded.`);
  }
  const word = settings.demoSignIn === 'never' || (await isEmptyInstallation(db)) ? await makeSetUpWord(db) : null;
  await files.close();
  await db.close();
  return word;
}

/** Nothing ends the server without a line that says why. */
function tellWhyItEnds(log: Log): void {
  process.on('uncaughtException', (error) => {
    // A connection that fails while nobody waits for it is no reason to end: whoever needs one is told.
    if (isDatabaseGone(error)) return log.error({ err: error }, 'a connection to the database failed');
    log.error({ err: error }, 'the server ends: something failed that nobody handles');
    process.exit(70);
  });
  process.on('unhandledRejection', (error) => {
    log.error({ err: error }, 'something failed that nobody waited for');
  });
}

function tellWhoMayEnter({ demoSignIn }: Settings, word: string | null): void {
  if (word !== null) console.log(`Nobody has an account yet. The first administrator needs this word: ${word}`);
  if (demoSignIn !== 'always') return;
  console.log('==============================================================================');
  console.log('  OPEN TO ALL: whoever reaches this server may sign in as one of the demo’s');
  console.log('  people, without a password. Start it without --demo when you work for real.');
  console.log('==============================================================================');
}

function listen(fetch: (request: Request) => Response | Promise<Response>, { host, port, mail }: Settings): Promise<Server> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch, hostname: host, port }, (address) => {
      console.log(`Caderno is at http://${host.includes(':') ? `[${host}]` : host}:${address.port}`);
      if (mail?.page != null) console.log(`Mails that it sends are read at ${mail.page}`);
      resolve(server);
    }) as Server;
    server.on('error', reject);
  });
}

/** One sentence on what went wrong and what to do, for whoever started it. */
function startFailure(error: unknown): string {
  if (error instanceof z.ZodError) return `A setting cannot be used: ${error.issues.map((i) => `${i.path.join('.')} ${i.message}`).join('; ')}. Correct it and start again.`;
  if (error instanceof DatabaseNewer) return `The database was last used by a newer Caderno (${error.unknown.join(', ')}), which this one could only damage. Nothing was changed; start the newer one, or restore a backup made before.`;
  const code = error instanceof Error && 'code' in error ? error.code : null;
  if (code === 'EADDRINUSE') return `Port ${process.env.PORT ?? '3210'} is taken by another program. Start with another one: PORT=3211 npm start`;
  if (code === 'EACCES') return `Port ${process.env.PORT ?? ''} may not be used by this account. Start with one above 1023: PORT=3210 npm start`;
  if (code === 'EADDRNOTAVAIL') return `This machine has no address ${process.env.HOST ?? ''}. Leave HOST out, or set it to 127.0.0.1.`;
  const message = error instanceof Error ? error.message : String(error);
  if (/password authentication|no pg_hba|does not exist|SSL|permission denied for/.test(message)) return `The database refuses us (${message}). Check DATABASE_URL: user, password, and a database that exists and where the user may create a schema.`;
  if (isDiskFull(error) || /could not extend file/.test(message)) return `The disk is full (${message}). Free some space and start again; what was stored is kept.`;
  if (isDatabaseGone(error)) return `No PostgreSQL answers at DATABASE_URL (${message}). Check the address, or leave DATABASE_URL out to use Caderno’s own.`;
  return `Caderno could not start: ${error instanceof Error ? (error.stack ?? message) : message}`;
}

main().catch((error: unknown) => {
  console.error(startFailure(error));
  process.exit(1);
});
