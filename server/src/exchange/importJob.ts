import { readFile, writeFile } from 'node:fs/promises';
import type { CoverageReport } from '@caderno/core/coverage';
import type { Mapping, ReadingOptions } from '@caderno/core/exchange';
import { GUESS_ALL } from '@caderno/core/exchange';
import type { ExportFormat, ImportDraft, ImportPreview, Refusal, TrackerState } from '@caderno/contract';
import { inTransaction } from '../database/index.ts';
import type { Actor } from '../artefacts/index.ts';
import type { Files } from '../files/index.ts';
import type { Sequelize } from 'sequelize';
import { planStories } from './checkStories.ts';
import { exportBasis } from './exportBasis.ts';
import { documentOf } from './decoded.ts';
import { findFile, noteFile, refuseTooMuch } from './importFile.ts';
import { noteProgress } from './importRun.ts';
import { describeFile, previewFile, readEntries } from './importing.ts';
import { importFile, type ImportOrder } from './run.ts';

/** What the thread for files is asked for. Files are handed over by their path: nobody else holds their bytes. */
export type ImportJob =
  | { readonly kind: 'keep'; readonly projectId: string; readonly personId: string; readonly name: string; readonly path: string }
  | { readonly kind: 'describe'; readonly projectId: string; readonly file: string; readonly reading: ReadingOptions }
  | { readonly kind: 'preview'; readonly projectId: string; readonly file: string; readonly mapping: Mapping; readonly reading: ReadingOptions }
  | { readonly kind: 'run'; readonly job: string; readonly actor: Actor; readonly file: string; readonly order: ImportOrder }
  | { readonly kind: 'checkStories'; readonly projectId: string; readonly path: string; readonly at: Date }
  | { readonly kind: 'exportBasis'; readonly projectId: string; readonly format: ExportFormat; readonly report: CoverageReport | null; readonly at: Date; readonly path: string };

export interface ImportAnswer {
  readonly keep: ImportDraft;
  readonly describe: ImportDraft;
  readonly preview: ImportPreview;
  /** The id of the change. */
  readonly run: string;
  readonly checkStories: TrackerState;
  /** The file is written to the path of the job. */
  readonly exportBasis: { readonly name: string; readonly type: string };
}

/** What the thread tells when it is done. */
export type ImportReply = { readonly ok: true; readonly answer: ImportAnswer[keyof ImportAnswer] } | { readonly ok: false; readonly refusal: Refusal };

/** Files are read and written outside of transactions: a slow one holds nobody up. */
export async function doImportJob(db: Sequelize, files: Files, job: ImportJob): Promise<ImportAnswer[keyof ImportAnswer]> {
  switch (job.kind) {
    case 'keep': {
      const bytes = await readFile(job.path);
      const at = new Date();
      await inTransaction(db, (work) => refuseTooMuch(work, job.personId, bytes.length, at));
      const hash = await files.keep(bytes);
      const id = await inTransaction(db, (work) => noteFile(work, job.projectId, job.personId, { name: job.name, hash, size: bytes.length }, at));
      return describeFile(db, files, job.projectId, id, GUESS_ALL);
    }
    case 'describe':
      return describeFile(db, files, job.projectId, job.file, job.reading);
    case 'preview':
      return previewFile(db, files, job.projectId, job.file, job.mapping, job.reading);
    case 'run': {
      const file = await inTransaction(db, (work) => findFile(work, job.actor.projectId, job.file));
      const entries = readEntries(file.name, await documentOf(db, files, file, job.order.reading), job.order.mapping);
      // Progress is told by transactions of its own: it must be seen while the import is not.
      return inTransaction(db, (work) => importFile(work, job.actor, entries, job.order, (done, total) => inTransaction(db, (apart) => noteProgress(apart, job.file, job.job, done, total))));
    }
    case 'checkStories':
      return planStories(db, job.projectId, await readFile(job.path), job.at);
    case 'exportBasis': {
      const { bytes, ...file } = await exportBasis(db, job.projectId, job.format, job.report, job.at);
      await writeFile(job.path, bytes, { flag: 'wx', mode: 0o600 });
      return file;
    }
  }
}
