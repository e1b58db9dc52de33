import { zipSync } from 'fflate';

/** What is sent of files that were chosen: one as it is, several as a zip of their folders. */
export interface Packed {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** Where a file stood in the folder it was chosen in; browsers and what was dropped tell it in two ways. */
function pathOf(file: File): string {
  const dropped = 'path' in file && typeof file.path === 'string' ? file.path : '';
  return (file.webkitRelativePath === '' ? (dropped === '' ? file.name : dropped) : file.webkitRelativePath).replace(/^\.?\//, '');
}

/** Packs features that were chosen or dropped. A folder that all stand in is the one that was chosen: paths begin below it. Null: there is none among them. */
export async function packed(files: readonly File[]): Promise<Packed | null> {
  const [only] = files;
  if (files.length === 1 && only !== undefined && /\.(zip|feature)$/i.test(only.name)) return { name: only.name, bytes: new Uint8Array(await only.arrayBuffer()) };
  const features = files.filter((file) => /\.feature$/i.test(file.name));
  if (features.length === 0) return null;
  const paths = features.map(pathOf);
  const top = topOf(paths);
  const entries: Record<string, Uint8Array> = {};
  for (const [i, file] of features.entries()) entries[(paths[i] ?? file.name).slice(top.length)] = new Uint8Array(await file.arrayBuffer());
  // Sent within the machine or a house: packing it well would take longer than it spares.
  return { name: top === '' ? 'features.zip' : `${top.slice(0, -1)}/`, bytes: new Uint8Array(zipSync(entries, { level: 1 })) };
}

function topOf(paths: readonly string[]): string {
  const first = paths[0] ?? '';
  const top = first.slice(0, first.indexOf('/') + 1);
  return paths.every((path) => path.startsWith(top)) ? top : '';
}
