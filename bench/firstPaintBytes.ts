import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

/** The scripts a file imports outright; what is fetched when it is needed is not among them. */
const STATIC_IMPORT = /(?:from|import)"\.\/([^"]+\.js)"/g;

/** The page's own script, and the one with what starts the application (`web/vite.config.ts` names it). */
const BEGINNINGS = [/^index-[\w-]+\.js$/, /^first-[\w-]+\.js$/];

/** Bytes of all scripts that must be there before anything is painted, each packed as the server sends it. `assets`: the folder of the built application's scripts. */
export async function firstPaintBytes(assets: string): Promise<number> {
  const names = await readdir(assets);
  const found = new Set(names.filter((name) => BEGINNINGS.some((beginning) => beginning.test(name))));
  if (found.size !== BEGINNINGS.length) throw new Error(`The page begins with two scripts: got ${[...found].join(', ')}`);
  let bytes = 0;
  for (const name of found) {
    const script = await readFile(join(assets, name), 'utf8');
    for (const [, imported = ''] of script.matchAll(STATIC_IMPORT)) found.add(imported);
    bytes += gzipSync(script).length;
  }
  return bytes;
}
