import { unzip, type UnzipFileInfo } from 'fflate';
import { FILE_LIMITS } from './limits.ts';
import { error, type FileProblem } from './problem.ts';

/** What an archive may hold. */
export type ArchiveLimits = Pick<typeof FILE_LIMITS, 'unpackedRatio'> & { readonly archiveEntries: number; readonly unpackedBytes: number };

/** The files of an archive by path; nothing is unpacked when a check fails. */
export type Archive = { readonly kind: 'open'; readonly files: ReadonlyMap<string, Uint8Array> } | { readonly kind: 'refused'; readonly problem: FileProblem };

export function isZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 0x03 || bytes[2] === 0x05);
}

/**
 * Opens a zip archive whose paths stay inside and whose content is of a bearable size; `wanted` chooses what is
 * unpacked. Sizes are taken from the directory, and the unpacker writes no more than it was promised.
 */
export async function openArchive(bytes: Uint8Array, wanted: (path: string) => boolean, limits: ArchiveLimits = FILE_LIMITS): Promise<Archive> {
  let problem: FileProblem | null = null;
  let unpacked = 0;
  let entries = 0;
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    entries += 1;
    unpacked += originalSize;
    problem ??= faultOf({ path: name, unpacked, entries, packed: bytes.length }, limits);
    return problem === null && !name.endsWith('/') && wanted(name);
  };
  return new Promise((resolve) => {
    unzip(bytes, { filter }, (failure, files) => {
      if (problem !== null) resolve({ kind: 'refused', problem });
      else if (failure !== null) resolve({ kind: 'refused', problem: error({ code: 'archive_broken' }) });
      else resolve({ kind: 'open', files: new Map(Object.entries(files)) });
    });
  });
}

interface Unpacking {
  readonly path: string;
  readonly unpacked: number;
  readonly entries: number;
  readonly packed: number;
}

function faultOf({ path, unpacked, entries, packed }: Unpacking, limits: ArchiveLimits): FileProblem | null {
  if (path.split(/[/\\]/).includes('..') || /^[/\\]|^[A-Za-z]:/.test(path) || path.includes('\0')) return error({ code: 'archive_path', path: path.slice(0, 200) });
  if (entries > limits.archiveEntries) return error({ code: 'archive_bomb', limit: limits.archiveEntries });
  if (unpacked > limits.unpackedBytes) return error({ code: 'archive_bomb', limit: limits.unpackedBytes });
  // Small archives may be packed tightly without harm.
  return unpacked > 1_000_000 && unpacked > packed * limits.unpackedRatio ? error({ code: 'archive_bomb', limit: limits.unpackedRatio }) : null;
}
