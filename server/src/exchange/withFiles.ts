import { writeFile } from 'node:fs/promises';
import type { FileBeside } from '@caderno/core/attachments';
import { DomainError } from '../domainError.ts';
import { ZipFile, type Files } from '../files/index.ts';

/** Entries of a zip that programs of all ages can open, what is written among them. */
const MOST_ENTRIES = 65_000;

/** A file that is written, and what is attached to that which it tells of. */
export interface WithFiles {
  readonly name: string;
  readonly type: string;
  readonly bytes: Uint8Array;
  readonly beside: readonly FileBeside[];
}

/** Writes it to a path: as one file, or as a zip of it and of what is attached, where there is any. */
export async function writeWithFiles(files: Files, path: string, { name, type, bytes, beside }: WithFiles): Promise<{ readonly name: string; readonly type: string }> {
  if (beside.length === 0) {
    await writeFile(path, bytes, { flag: 'wx', mode: 0o600 });
    return { name, type };
  }
  if (beside.length >= MOST_ENTRIES) throw new DomainError({ code: 'too_many_files_beside', count: beside.length, limit: MOST_ENTRIES - 1 });
  await writeZip(files, path, [name, bytes], beside);
  return { name: name.replace(/\.\w+$/, '.zip'), type: 'application/zip' };
}

/** One file is in memory at a time. */
async function writeZip(files: Files, path: string, [name, bytes]: readonly [string, Uint8Array], beside: readonly FileBeside[]): Promise<void> {
  const zip = new ZipFile(path);
  try {
    await zip.add(name, bytes);
    for (const { path: at, attachment } of beside) await zip.add(at, await files.readWhole(attachment.id));
    await zip.end();
  } catch (error) {
    zip.abandon();
    throw error;
  }
}
