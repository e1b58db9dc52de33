import { mkdir, readFile, readdir, writeFile } from 'node:fs/promises';
import { dirname, join, sep } from 'node:path';
import { featurePathSchema } from '@caderno/contract';
import { Failure } from './failure.ts';

/** Features by their paths in the folder, parted by `/`, with their bytes. */
export type FeatureFiles = ReadonlyMap<string, Uint8Array>;

/** All files that end in `.feature` below a folder; not what hides, nor what packages bring. A folder that is not there has none. */
export async function readFeatureFolder(folder: string): Promise<FeatureFiles> {
  const files = new Map<string, Uint8Array>();
  await readInto(files, folder, '');
  return new Map([...files].toSorted(([a], [b]) => (a < b ? -1 : 1)));
}

async function readInto(files: Map<string, Uint8Array>, folder: string, below: string): Promise<void> {
  for (const entry of await entriesOf(join(folder, below))) {
    if (entry.name.startsWith('.') || entry.name === 'node_modules') continue;
    const path = below === '' ? entry.name : `${below}/${entry.name}`;
    if (entry.isDirectory()) await readInto(files, folder, path);
    // Systems write accents in two ways; Caderno and most code know the composed one.
    else if (entry.isFile() && /\.feature$/i.test(entry.name)) files.set(path.normalize('NFC'), await readFile(join(folder, ...path.split('/'))));
  }
}

async function entriesOf(folder: string) {
  try {
    return await readdir(folder, { withFileTypes: true });
  } catch (error) {
    const code = typeof error === 'object' && error !== null && 'code' in error ? error.code : null;
    if (code === 'ENOENT') return [];
    if (code === 'ENOTDIR') throw new Failure(`${folder} is a file: name the folder that the features stand in.`);
    throw error;
  }
}

/** Writes files where they belong in the folder. @throws {Failure} before anything is written when a path leads out of it. */
export async function writeFeatures(folder: string, files: FeatureFiles): Promise<void> {
  for (const path of files.keys()) if (!featurePathSchema.safeParse(path).success || path.includes(sep === '/' ? '\\' : ':')) throw new Failure(`The server names a file outside the folder, ${path}. Nothing was written.`);
  for (const [path, bytes] of files) {
    const place = join(folder, ...path.split('/'));
    await mkdir(dirname(place), { recursive: true });
    await writeFile(place, bytes);
  }
}

/** Whether both are there and the same, byte for byte. */
export function isSame(a: Uint8Array | undefined, b: Uint8Array | undefined): boolean {
  return a !== undefined && b !== undefined && Buffer.compare(a, b) === 0;
}
