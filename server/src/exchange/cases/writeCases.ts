import { writeFile } from 'node:fs/promises';
import type { ArtefactId } from '@caderno/core/artefacts';
import type { FileBeside } from '@caderno/core/caseFiles';
import type { ExportCases } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { inSnapshot } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import { ZipFile, type Files } from '../../files/index.ts';
import { exportCases } from './caseExport.ts';

/** Entries of a zip that programs of all ages can open, the file of cases among them. */
const MOST_ENTRIES = 65_000;

interface Wanted {
  readonly projectId: string;
  readonly ids: readonly ArtefactId[];
  readonly order: Omit<ExportCases, 'of'>;
  readonly path: string;
}

/** Writes cases to a path: as one file, or as a zip of it and of what is attached to them, where there is any. */
export async function writeCases(db: Sequelize, files: Files, { projectId, ids, order, path }: Wanted): Promise<{ readonly name: string; readonly type: string }> {
  const { bytes, beside, ...file } = await inSnapshot(db, (work) => exportCases(work, projectId, ids, order));
  if (beside.length === 0) {
    await writeFile(path, bytes, { flag: 'wx', mode: 0o600 });
    return file;
  }
  if (beside.length >= MOST_ENTRIES) throw new DomainError({ code: 'too_many_files_beside', count: beside.length, limit: MOST_ENTRIES - 1 });
  await writeZip(files, path, [file.name, bytes], beside);
  return { name: file.name.replace(/\.\w+$/, '.zip'), type: 'application/zip' };
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
