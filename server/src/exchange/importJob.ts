import type { Mapping, ReadingOptions } from '@caderno/core/exchange';
import type { ImportDraft, ImportPreview, Refusal } from '@caderno/contract';
import { inTransaction, type Work } from '../database/index.ts';
import type { Commander } from '../artefacts/index.ts';
import type { Sequelize } from 'sequelize';
import { noteProgress, readKeptFile } from './importFile.ts';
import { describeFile, previewFile } from './importing.ts';
import { importFile, type ImportOrder } from './run.ts';

/** What the importer's thread is asked for. */
export type ImportJob =
  | { readonly kind: 'describe'; readonly projectId: string; readonly file: string; readonly reading: ReadingOptions }
  | { readonly kind: 'preview'; readonly projectId: string; readonly file: string; readonly mapping: Mapping; readonly reading: ReadingOptions }
  | { readonly kind: 'run'; readonly commander: Commander; readonly file: string; readonly order: ImportOrder };

export interface ImportAnswer {
  readonly describe: ImportDraft;
  readonly preview: ImportPreview;
  /** The id of the change. */
  readonly run: string;
}

/** What the thread tells when it is done. */
export type ImportTold = { readonly ok: true; readonly answer: ImportAnswer[keyof ImportAnswer] } | { readonly ok: false; readonly refusal: Refusal } | { readonly ok: false; readonly error: unknown };

export async function doImportJob(db: Sequelize, job: ImportJob): Promise<ImportAnswer[keyof ImportAnswer]> {
  return inTransaction(db, (work) => carryOut(db, work, job));
}

async function carryOut(db: Sequelize, work: Work, job: ImportJob): Promise<ImportAnswer[keyof ImportAnswer]> {
  switch (job.kind) {
    case 'describe':
      return describeFile(work, job.projectId, job.file, job.reading);
    case 'preview':
      return previewFile(work, job.projectId, job.file, job.mapping, job.reading);
    case 'run': {
      const file = await readKeptFile(work, job.commander.projectId, job.file);
      // Progress is told by transactions of its own: it must be seen while the import is not.
      return importFile(work, job.commander, file, job.order, (done, total) => inTransaction(db, (apart) => noteProgress(apart, job.file, done, total)));
    }
  }
}
