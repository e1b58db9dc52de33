import { join } from 'node:path';
import { buildServer } from './build.mjs';
import { openStored } from './dataFolder.mjs';
import { run } from './failure.mjs';
import { checkNode, installPackages } from './install.mjs';
import { runProgram } from './processes.mjs';

/** Reads everything that is stored and prints what cannot be read; beside a Caderno that runs, or without. */
async function main() {
  checkNode();
  await installPackages();
  const folder = await buildServer();
  const stored = await openStored();
  const { code } = await runProgram(process.execPath, [join(folder, 'check-data.mjs')], { env: { ...process.env, DATABASE_URL: stored.url }, show: true });
  await stored.stop();
  return code;
}

run(main);
