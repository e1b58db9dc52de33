import type { ArtefactId } from '../artefacts/index.ts';

/** The file that says what a folder is, and what is in it. */
export const MANIFEST = 'caderno.yaml';
/** What the project sets for itself. */
export const SETTINGS_FILE = 'settings.yaml';
/** The coverage of that moment, where it is known. */
export const COVERAGE_FILE = 'coverage.yaml';
/** Attached files, by the hash of their bytes. */
const FILES = 'files';
/** What stands in no module. */
const NO_MODULE = 'no-module';
/** Characters of a folder's name. */
const LONGEST = 60;
/** What some systems have for themselves. */
const RESERVED = /^(?:con|prn|aux|nul|com\d|lpt\d|files|no-module)$/;

/** A folder for each module: its name in small letters, told apart by a number where two would have the same. The same modules have the same folders, in whatever order they come. */
export function foldersOf(modules: Iterable<string>): ReadonlyMap<string, string> {
  const folders = new Map<string, string>([['', NO_MODULE]]);
  const taken = new Set<string>();
  for (const module of [...new Set(modules)].filter((m) => m !== '').sort()) {
    const plain = slug(module);
    let folder = plain;
    for (let i = 2; taken.has(folder) || RESERVED.test(folder); i += 1) folder = `${plain}-${i}`;
    taken.add(folder);
    folders.set(module, folder);
  }
  return folders;
}

function slug(name: string): string {
  const words = name.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase().replaceAll(/[^a-z0-9]+/g, '-').slice(0, LONGEST).replaceAll(/^-+|-+$/g, '');
  return words === '' ? 'module' : words;
}

/** Where an artefact is. */
export function artefactPath(folder: string, id: ArtefactId): string {
  return `${folder}/${id}.yaml`;
}

/** Where an earlier version of it is. */
export function versionPath(folder: string, id: ArtefactId, version: number): string {
  return `${folder}/${id}.v${version}.yaml`;
}

/** What stands at a path: an artefact, an earlier version, an attached file, or something else. */
export function kindOfPath(path: string): 'artefact' | 'version' | 'attachment' | 'other' {
  if (attachmentAt(path) !== null) return 'attachment';
  if (/^[a-z0-9-]+\/[A-Z]-\d{1,9}\.yaml$/.test(path)) return 'artefact';
  return /^[a-z0-9-]+\/[A-Z]-\d{1,9}\.v\d{1,9}\.yaml$/.test(path) ? 'version' : 'other';
}

/** Where an attached file is, with the ending by which it is opened. */
export function attachmentPath(hash: string, name: string): string {
  const ending = /\.[A-Za-z0-9]{1,8}$/.exec(name)?.[0].toLowerCase() ?? '';
  return `${FILES}/${hash}${ending}`;
}

/** The hash of an attached file at a path; null when none is there. */
export function attachmentAt(path: string): string | null {
  return /^files\/([0-9a-f]{64})(?:\.[a-z0-9]{1,8})?$/.exec(path)?.[1] ?? null;
}
