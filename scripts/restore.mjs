import { existsSync } from 'node:fs';
import { copyFile, mkdir } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { keyFile, openStored } from './dataFolder.mjs';
import { Failure, run } from './failure.mjs';
import { postgresProgram } from './postgres.mjs';
import { runProgram } from './processes.mjs';

const USAGE = 'Usage: npm run restore -- folder [--replace]\n  Puts back what npm run backup wrote. With --replace, in the place of what is stored now.';

/** All of a backup is put back, or nothing. */
async function main() {
  const args = process.argv.slice(2);
  const [given] = args.filter((a) => !a.startsWith('--'));
  if (given === undefined || args.some((a) => a.startsWith('--') && a !== '--replace')) {
    console.log(USAGE);
    return given === undefined ? 1 : 0;
  }
  const folder = resolve(given);
  if (!existsSync(join(folder, 'caderno.dump'))) throw new Failure(`${folder} holds no backup of Caderno. Nothing was changed.`);
  const stored = await openStored();
  try {
    if (stored.running) throw new Failure('Caderno is running on these data. Stop it first; nothing was changed.');
    await restore(stored.url, join(folder, 'caderno.dump'), args.includes('--replace'));
  } finally {
    await stored.stop();
  }
  if (existsSync(join(folder, 'secret-key'))) {
    await mkdir(dirname(keyFile()), { recursive: true });
    await copyFile(join(folder, 'secret-key'), keyFile());
  }
  console.log(`Restored from ${folder}.`);
  return 0;
}

async function restore(url, dump, replace) {
  const there = await ask(url, "SELECT count(*) FROM information_schema.schemata WHERE schema_name = 'caderno'");
  if (there !== '0' && !replace) throw new Failure('Something is stored already, and nothing was changed. Add --replace to put the backup in its place; back up what is there first.');
  // The old schema steps aside and goes only when the backup is in: what fails leaves everything as it was.
  if (there !== '0') await ask(url, 'DROP SCHEMA IF EXISTS caderno_before CASCADE; ALTER SCHEMA caderno RENAME TO caderno_before');
  const { code, output } = await runProgram(postgresProgram('pg_restore'), ['--exit-on-error', '--single-transaction', '--no-owner', `--dbname=${url}`, dump]);
  if (code !== 0) {
    if (there !== '0') await ask(url, 'DROP SCHEMA IF EXISTS caderno CASCADE; ALTER SCHEMA caderno_before RENAME TO caderno');
    throw new Failure(`The backup could not be put back, and nothing was changed: ${output.trim().split('\n').at(-1)}`);
  }
  await ask(url, 'DROP SCHEMA IF EXISTS caderno_before CASCADE');
}

async function ask(url, sql) {
  const { code, output } = await runProgram(postgresProgram('psql'), ['--no-psqlrc', '--quiet', '--tuples-only', '--no-align', '--set=ON_ERROR_STOP=1', `--command=${sql}`, url]);
  if (code !== 0) throw new Failure(`The database refuses us: ${output.trim()}. Nothing was changed.`);
  return output.trim().split('\n').at(-1) ?? '';
}

run(main);
