import { homedir } from 'node:os';
import { join, resolve } from 'node:path';
import { installPostgres, openPostgres } from './postgres.mjs';
import { isRoot } from './processes.mjs';

/** Where Caderno keeps what is stored. */
export function dataFolder() {
  if (process.env.CADERNO_DATA) return resolve(process.env.CADERNO_DATA);
  if (isRoot) return '/var/lib/caderno';
  return join(process.env.XDG_DATA_HOME ?? join(homedir(), '.local', 'share'), 'caderno');
}

/** The file of the key that secret constants are sealed with. */
export function keyFile() {
  return process.env.CADERNO_KEY_FILE ?? join(dataFolder(), 'secret-key');
}

/** The database for a command beside Caderno: one's own at DATABASE_URL, or that of the data folder. */
export async function openStored() {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, running: false, stop: async () => {} };
  await installPostgres();
  return openPostgres(dataFolder());
}
