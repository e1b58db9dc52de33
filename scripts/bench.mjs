import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from './failure.mjs';
import { ROOT, checkNode, installPackages } from './install.mjs';
import { installPostgres, startPostgres } from './postgres.mjs';
import { runProgram } from './processes.mjs';

/** Runs the measurements; every figure is printed beside its budget. */
async function main() {
  checkNode();
  await installPackages();
  await installPostgres();
  const folder = await mkdtemp(join(tmpdir(), 'caderno-bench-'));
  const postgres = await startPostgres(folder);
  const env = { ...process.env, CADERNO_TEST_DATABASE: postgres.url };
  // Young generation as large as the coverage worker's, so that the core is measured as it runs.
  let worst = 0;
  for (const bench of ['coverage.bench.ts', 'generation.bench.ts', 'models.bench.ts', 'shared.bench.ts', 'alike.bench.ts', 'wording.bench.ts', 'firstPaint.bench.ts', 'import.bench.ts', 'data.bench.ts', 'outline.bench.ts', 'server.bench.ts']) {
    const { code } = await runProgram(process.execPath, ['--max-semi-space-size=64', '--import', 'tsx', join(ROOT, 'bench', bench)], { cwd: ROOT, env, show: true });
    worst = Math.max(worst, code);
  }
  await postgres.stop();
  await rm(folder, { recursive: true, force: true });
  return worst;
}

run(main);
