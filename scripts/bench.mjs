import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from './failure.mjs';
import { ROOT, checkNode, installPackages } from './install.mjs';
import { installPostgres, startPostgres } from './postgres.mjs';
import { runProgram } from './processes.mjs';
import { slowerThan } from './benchFigures.mjs';

const BENCHES = ['coverage', 'generation', 'models', 'shared', 'alike', 'wording', 'merge', 'firstPaint', 'import', 'data', 'outline', 'server', 'log', 'lists', 'caseFiles', 'scenarios', 'agreement', 'folder', 'inbox', 'suites', 'matrix', 'trend', 'handOffs', 'office'];
const KEPT = join(ROOT, 'bench', 'figures.json');

/** Runs the measurements, all or those named, each in a database of its own on one PostgreSQL; every figure is printed beside its budget and compared with the kept ones. `--keep` keeps these. */
async function main() {
  checkNode();
  await installPackages();
  await installPostgres();
  const named = process.argv.slice(2).filter((a) => a !== '--keep');
  const wanted = named.length === 0 ? BENCHES : BENCHES.filter((b) => named.includes(b));
  const folder = await mkdtemp(join(tmpdir(), 'caderno-bench-'));
  const postgres = await startPostgres(folder);
  const results = [];
  try {
    for (const bench of wanted) results.push({ bench, ...(await measure(bench, folder, postgres.url)) });
  } finally {
    await postgres.stop();
    await rm(folder, { recursive: true, force: true });
  }
  const figures = results.flatMap((r) => r.figures);
  const kept = JSON.parse(await readFile(KEPT, 'utf8'));
  for (const line of slowerThan(kept, figures)) console.log(line);
  for (const { bench, code } of results) if (code !== 0) console.log(`${bench}: over a budget, or it did not end well (${code}).`);
  if (process.argv.includes('--keep')) await writeFile(KEPT, `${JSON.stringify({ ...kept, ...Object.fromEntries(figures.map((f) => [f.what, Number(f.ms.toFixed(1))])) }, null, 2)}\n`);
  return Math.max(0, ...results.map((r) => r.code));
}

/** Runs one to its end, whatever that is; of its database nothing is left. */
async function measure(bench, folder, url) {
  const file = join(folder, bench);
  await writeFile(file, '');
  const database = `bench_${bench.toLowerCase()}`;
  await onServer(url, `CREATE DATABASE ${database}`);
  const env = { ...process.env, CADERNO_TEST_DATABASE: new URL(database, url).href, CADERNO_FIGURES: file };
  // Young generation as large as the coverage worker's, so that the core is measured as it runs.
  const { code } = await runProgram(process.execPath, ['--max-semi-space-size=64', '--import', 'tsx', join(ROOT, 'bench', `${bench}.bench.ts`)], { cwd: ROOT, env, show: true });
  await onServer(url, `DROP DATABASE IF EXISTS ${database} WITH (FORCE)`);
  const lines = (await readFile(file, 'utf8')).split('\n').filter(Boolean);
  return { code, figures: lines.map((line) => JSON.parse(line)) };
}

async function onServer(url, sql) {
  // Only there once packages are installed.
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(sql);
  await client.end();
}

run(main);
