import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
// @ts-expect-error The build scripts run before anything is installed and have no types.
import { buildWeb } from '../scripts/build.mjs';
import { report } from './measure.ts';

/** The scripts a file imports outright; what is fetched when it is needed is not among them. */
const STATIC_IMPORT = /(?:from|import)"\.\/([^"]+\.js)"/g;

/** All scripts that must be there before anything is painted: the page's own, what starts the application, and what these import. */
function scriptsForFirstPaint(folder: string): string[] {
  const names = readdirSync(folder);
  const found = new Set(names.filter((name) => /^(?:index|start)-[\w-]+\.js$/.test(name)));
  for (const name of found) for (const [, imported = ''] of readFileSync(join(folder, name), 'utf8').matchAll(STATIC_IMPORT)) found.add(imported);
  return [...found];
}

const folder = join(String(await buildWeb()), 'assets');
const scripts = scriptsForFirstPaint(folder);
if (scripts.length < 3) throw new Error(`The page starts with several scripts: got ${scripts.join(', ')}`);
const bytes = scripts.reduce((sum, name) => sum + gzipSync(readFileSync(join(folder, name))).length, 0);
process.exitCode = report([{ what: 'JavaScript needed for the first paint, packed', ms: bytes / 1000, budget: 250, unit: 'kB' }]) ? 0 : 1;
