import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readFile, readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Failure } from './failure.mjs';
import { ROOT } from './install.mjs';
import { runProgram } from './processes.mjs';

/** What the built application is made of. */
const SOURCES = ['core/src', 'contract/src', 'web/src', 'web/index.html', 'web/vite.config.ts', 'package-lock.json'];

/** Builds the web application unless it was built from exactly these sources. Answers its folder. */
export async function buildWeb() {
  const folder = join(ROOT, 'web', 'dist');
  const marker = join(folder, '.sources');
  const wanted = await hashOf(SOURCES);
  if (existsSync(marker) && (await readFile(marker, 'utf8')) === wanted) return folder;
  console.log('Building the web application …');
  const { code, output } = await runProgram('npm', ['run', 'build', '--workspace', 'web', '--silent'], { cwd: ROOT });
  if (code !== 0) throw new Failure(`The web application could not be built:\n${output.trim()}`);
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
