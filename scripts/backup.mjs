import { existsSync } from 'node:fs';
import { copyFile, mkdir, rm, writeFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { keyFile, openStored } from './dataFolder.mjs';
import { Failure, run } from './failure.mjs';
import { postgresProgram } from './postgres.mjs';
import { runProgram } from './processes.mjs';

const USAGE = 'Usage: npm run backup [-- folder]\n  Writes all that is stored to a new folder: beside a Caderno that runs, or without.';

/** Writes the schema of Caderno by PostgreSQL's own tool, of one moment, with the key that its secrets are sealed with. */
async function main() {
  const [given, ...more] = process.argv.slice(2);
  if (given === '--help' || more.length > 0) return console.log(USAGE);
  const folder = resolve(given ?? `caderno-backup-${new Date().toISOString().slice(0, 19).replaceAll(':', '-')}`);
  if (existsSync(folder)) throw new Failure(`${folder} is there already. Name a folder that is not.`);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const stored = await openStored();
  try {
    const { code, output } = await runProgram(postgresProgram('pg_dump'), ['--format=custom', '--schema=caderno', '--no-owner', `--file=${join(folder, 'caderno.dump')}`, stored.url]);
    if (code !== 0) throw new Failure(`Nothing was backed up: ${output.trim().split('\n').at(-1)}`);
    if (existsSync(keyFile())) await copyFile(keyFile(), join(folder, 'secret-key'));
    await note(stored.url);
    await writeFile(join(folder, 'backup.json'), `${JSON.stringify({ madeBy: 'Caderno', at: new Date().toISOString() })}\n`);
  } catch (error) {
    await rm(folder, { recursive: true, force: true });
    throw error;
  } finally {
    await stored.stop();
  }
  console.log(`Backed up to ${folder}. It holds everything, secrets too: keep it where only you can read it.`);
  return 0;
}

/** For administrators, who see when the last one went through. */
async function note(url) {
  const sql = "INSERT INTO caderno.server_mark (name, at) VALUES ('backup', now()) ON CONFLICT (name) DO UPDATE SET at = now()";
  const { code, output } = await runProgram(postgresProgram('psql'), ['--no-psqlrc', '--quiet', '--command', sql, url]);
  if (code !== 0) console.log(`It could not be noted that this backup was made: ${output.trim().split('\n').at(-1)}`);
}

run(main);
