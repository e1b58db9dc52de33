import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from './failure.mjs';
import { ROOT, checkNode, installPackages } from './install.mjs';
import { installPostgres, startPostgres } from './postgres.mjs';
import { runProgram } from './processes.mjs';

/** Attacks a server of its own in every way we know of, and prints how it went. Names of attacks as arguments choose among them. */
async function main() {
  checkNode();
  await installPackages();
  await installPostgres();
  const folder = await mkdtemp(join(tmpdir(), 'caderno-torture-'));
  const postgres = await startPostgres(folder);
  const env = { ...process.env, CADERNO_TEST_DATABASE: postgres.url };
  const { code } = await runProgram(process.execPath, ['--import', 'tsx', join(ROOT, 'bench', 'torture', 'torture.ts'), ...process.argv.slice(2)], { cwd: ROOT, env, show: true });
  await postgres.stop();
  await rm(folder, { recursive: true, force: true });
  return code;
}

run(main);
