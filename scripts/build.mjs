import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { copyFile, readFile, readdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Failure } from './failure.mjs';
import { ROOT } from './install.mjs';
import { runProgram } from './processes.mjs';

const SERVER_SOURCES = ['core/src', 'contract/src', 'server/src', 'package-lock.json'];

/** The code of the server's threads, by the names they are started by. */
const THREADS = {
  'keeper.worker': join(ROOT, 'server/src/coverage/keeper.worker.ts'),
  'importer.worker': join(ROOT, 'server/src/exchange/importer.worker.ts'),
  'trend.worker': join(ROOT, 'server/src/trend/trend.worker.ts'),
  'heavyLane.worker': join(ROOT, 'server/src/http/heavyLane.worker.ts'),
};

/** Builds the web application, with the command-line program to be had from it, unless it was built from exactly these sources. Answers its folder. */
export function buildWeb() {
  return buildOnce('web/dist', ['core/src', 'contract/src', 'web/src', 'cli/src', 'web/index.html', 'web/vite.config.ts', 'package-lock.json'], async (folder) => {
    // Whoever starts us may have NODE_ENV set: the application is always built as it is used.
    const env = { ...process.env, NODE_ENV: 'production' };
    const { code, output } = await runProgram('npm', ['run', 'build', '--workspace', 'web', '--silent'], { cwd: ROOT, env });
    if (code !== 0) throw new Failure(`The web application could not be built:\n${output.trim()}`);
    await copyFile(await buildCli(), join(folder, 'caderno.mjs'));
  });
}

/** Bundles the server into a few files, which start several times faster than the sources. Answers the folder. */
export function buildServer() {
  return buildOnce('server/dist', SERVER_SOURCES, async (folder, sources) => {
    // Imported here: it is not there before the packages are installed.
    const { build } = await import('esbuild');
    await rm(folder, { recursive: true, force: true });
    await build({
      ...FOR_NODE,
      entryPoints: { main: join(ROOT, 'server/src/main.ts'), ...THREADS, 'check-data': join(ROOT, 'server/src/checkData.ts') },
      outdir: folder,
      splitting: true,
      // Coverage that other code has computed is computed anew.
      define: { 'process.env.CADERNO_COMPUTATION': JSON.stringify(sources) },
    });
  });
}

/** Bundles the code of the server's threads for tests of the sources, where a thread would take seconds to read its own; beside the packages of the server. Answers the folder. */
export function buildThreads() {
  return buildOnce('server/node_modules/.cache/caderno-threads', SERVER_SOURCES, async (folder) => {
    const { build } = await import('esbuild');
    await rm(folder, { recursive: true, force: true });
    await build({ ...FOR_NODE, entryPoints: THREADS, outdir: folder, splitting: true });
  });
}

/** Bundles the simulated services. Answers the folder. */
export function buildStandins() {
  return buildOnce('standins/dist', ['standins/storyboard', 'standins/postbox', 'package-lock.json'], async (folder) => {
    const { build } = await import('esbuild');
    await build({ ...FOR_NODE, entryPoints: { storyboard: join(ROOT, 'standins/storyboard/main.ts'), postbox: join(ROOT, 'standins/postbox/main.ts') }, outdir: folder });
  });
}

/** Bundles the command-line program into one file that needs nothing but Node. Answers its path. */
export async function buildCli() {
  const folder = await buildOnce('cli/dist', ['core/src', 'contract/src', 'cli/src', 'package-lock.json'], async (place) => {
    const { build } = await import('esbuild');
    await build({ ...FOR_NODE, plugins: [], entryPoints: { caderno: join(ROOT, 'cli/src/main.ts') }, outdir: place, banner: { js: '#!/usr/bin/env node' }, minify: true });
  });
  return join(folder, 'caderno.mjs');
}

/** Packages of many small files, and nothing but JavaScript: a thread that reads them one by one begins half a second later. */
const TAKEN_IN = /^(?:zod|fflate|diff|js-yaml|re2js|string-width|csv-parse|csv-stringify|read-excel-file|write-excel-file|mdast-util-[\w-]+|hast-util-[\w-]+|micromark[\w-]*)(?:\/|$)/;

const packagesStayOutside = {
  name: 'packages-stay-outside',
  setup(build) {
    build.onResolve({ filter: /^[^./]/ }, ({ path, kind, importer }) => {
      // What a package that is taken in needs itself comes along.
      const isOurs = path.startsWith('@caderno/') || kind === 'entry-point' || TAKEN_IN.test(path) || importer.includes('node_modules');
      return isOurs ? undefined : { external: true, path };
    });
  },
};

const FOR_NODE = { outExtension: { '.js': '.mjs' }, bundle: true, platform: 'node', format: 'esm', target: 'node20', logLevel: 'warning', plugins: [packagesStayOutside] };

async function buildOnce(place, sources, build) {
  const folder = join(ROOT, place);
  const marker = join(folder, '.sources');
  const wanted = await hashOf(sources);
  if (existsSync(marker) && (await readFile(marker, 'utf8')) === wanted) return folder;
  console.log(`Building ${place} …`);
  await build(folder, wanted);
  await writeFile(marker, wanted);
  return folder;
}

async function hashOf(paths) {
  const hash = createHash('sha256');
  for (const path of paths) for (const file of await filesOf(join(ROOT, path))) hash.update(file.slice(ROOT.length)).update(await readFile(file));
  return hash.digest('hex');
}

async function filesOf(path) {
  const entries = await readdir(path, { recursive: true, withFileTypes: true }).catch((error) => {
    if (error.code === 'ENOTDIR') return null;
    throw error;
  });
  if (entries === null) return [path];
  return entries.filter((e) => e.isFile()).map((e) => join(e.parentPath, e.name)).sort();
}
