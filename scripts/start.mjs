import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { buildServer, buildStandins, buildWeb } from './build.mjs';
import { dataFolder, keyFile } from './dataFolder.mjs';
import { Failure, run } from './failure.mjs';
import { ROOT, checkNode, installPackages } from './install.mjs';
import { installPostgres, startPostgres } from './postgres.mjs';
import { dieWithUs, ended } from './processes.mjs';

const DEMO = join(ROOT, 'demo', 'fonte-clara');
const STORYBOARD_PORT = process.env.STORYBOARD_PORT ?? '3221';
const MAIL_PAGE_PORT = process.env.MAIL_PAGE_PORT ?? '3222';
const MAIL_PORT = process.env.MAIL_PORT ?? '3223';
/** Mails go to the stand-in as long as no mail server is named and nobody but this machine is served: its page shows them to whoever is here. */
const SIMULATES_MAIL = process.env.CADERNO_MAIL === undefined && /^(?:localhost|::1|127\..*)?$/.test(process.env.HOST ?? '');

const USAGE = 'Usage: npm start [-- --fresh | --empty | --demo]\n  --fresh  remove what is stored and start with a new copy of the demo\n  --empty  start without the demo\n  --demo   whoever reaches this server signs in as the demo’s people, also beside people with accounts and on a network';

function readArguments(args) {
  const known = new Set(['--fresh', '--empty', '--demo', '--help']);
  const unknown = args.find((a) => !known.has(a));
  if (unknown !== undefined) throw new Failure(`There is no option ${unknown}.\n${USAGE}`);
  return { fresh: args.includes('--fresh'), empty: args.includes('--empty'), open: args.includes('--demo'), help: args.includes('--help') };
}

/** CADERNO_THROW_AWAY=1: what is stored need not outlive a power cut, as in a run of tests; nothing waits for the disk. */
async function openDatabase(folder) {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, watch: () => {}, stop: async () => {} };
  await installPostgres();
  return startPostgres(folder, { durable: process.env.CADERNO_THROW_AWAY !== '1' });
}

function startServer(databaseUrl, { webFolder, serverFolder }, { fresh, empty, open }) {
  const env = {
    // Of memory that threads give back, little stays with each of them.
    MALLOC_ARENA_MAX: '2',
    ...process.env,
    DATABASE_URL: databaseUrl,
    CADERNO_WEB: webFolder,
    CADERNO_FRESH: fresh ? '1' : '0',
    CADERNO_DEMO_OPEN: open ? '1' : '0',
    CADERNO_KEY_FILE: keyFile(),
    ...(SIMULATES_MAIL ? { CADERNO_MAIL: `smtp://127.0.0.1:${MAIL_PORT}`, CADERNO_MAIL_PAGE: `http://127.0.0.1:${MAIL_PAGE_PORT}` } : {}),
    ...(empty ? {} : { CADERNO_DEMO: DEMO, CADERNO_DEMO_TRACKER: `http://127.0.0.1:${STORYBOARD_PORT}` }),
  };
  return spawn('setpriv', [...dieWithUs('TERM'), '--', process.execPath, join(serverFolder, 'main.mjs')], { env, cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], detached: true });
}

/** Simulated services beside Caderno, which works without them: the story tracker of the demo, and a mail server. */
function startStandins({ standinsFolder }, { empty }) {
  const start = (name, ...args) => spawn('setpriv', [...dieWithUs('TERM'), '--', process.execPath, join(standinsFolder, `${name}.mjs`), ...args], { cwd: ROOT, stdio: ['ignore', 'ignore', 'inherit'], detached: true });
  return [...(empty ? [] : [start('storyboard', join(DEMO, 'storyboard.yaml'), STORYBOARD_PORT)]), ...(SIMULATES_MAIL ? [start('postbox', MAIL_PORT, MAIL_PAGE_PORT)] : [])];
}

async function build() {
  const serverFolder = await buildServer();
  return { serverFolder, standinsFolder: await buildStandins(), webFolder: await buildWeb() };
}

async function main() {
  const options = readArguments(process.argv.slice(2));
  if (options.help) return console.log(USAGE);
  checkNode();
  await installPackages();
  const folder = dataFolder();
  const where = process.env.DATABASE_URL ? 'the schema ‘caderno’ of the database at DATABASE_URL' : `what is stored in ${folder}`;
  if (options.fresh && (process.env.DATABASE_URL || existsSync(folder))) console.log(`Starting fresh: ${where} is removed.`);
  // Failures of the build are told only once the database is stopped again.
  const [built, database] = await Promise.allSettled([build(), openDatabase(folder)]);
  if (built.status === 'rejected' || database.status === 'rejected') {
    if (database.status === 'fulfilled') await database.value.stop();
    throw built.status === 'rejected' ? built.reason : database.reason;
  }
  await mkdir(folder, { recursive: true });
  database.value.watch((words) => console.error(words));
  const server = startServer(database.value.url, built.value, options);
  const standins = startStandins(built.value, options);
  const stop = () => {
    for (const standin of standins) standin.kill('SIGTERM');
    server.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  process.on('SIGHUP', stop);
  const code = await ended(server);
  for (const standin of standins) standin.kill('SIGTERM');
  await database.value.stop();
  return code ?? 0;
}

run(main);
