import { readFile, writeFile } from 'node:fs/promises';
import type { CoverageReport } from '@caderno/core/coverage';
import type { Mapping, ReadingOptions } from '@caderno/core/exchange';
import { GUESS_ALL } from '@caderno/core/exchange';
import type { ArtefactId } from '@caderno/core/artefacts';
import type { CaseMapping } from '@caderno/core/caseFiles';
import type { CaseDraft, CasePreview, ComesAlong, DesignDraft, ExportCases, ExportDesign, ExportFeatures, ExportFormat, FeaturesDraft, HandOffListed, HandOffPreview, ReturnedNotes, ImportDraft, ImportPreview, NewProject, ProjectRef, Refusal, TrackerState } from '@caderno/contract';
import { inSnapshot, inTransaction, refreshStatistics } from '../database/index.ts';
import type { Actor } from '../artefacts/index.ts';
import { makeHandOff, previewHandOff, readReturned, writeHandOff, type HandOffOrder, type PreviewHandOff, type ReadReturned, type WriteHandOff } from '../handOffs/index.ts';
import type { Files } from '../files/index.ts';
import type { Sequelize } from 'sequelize';
import { planStories } from './checkStories.ts';
import { exportBasis } from './exportBasis.ts';
import { documentOf } from './decoded.ts';
import { exportDesign, readAlong } from './design/designExport.ts';
import { readDesign } from './design/designFile.ts';
import { importDesign, keepCarriedFiles, previewDesign, type DesignOrder } from './design/designImport.ts';
import { describeCases, importCases, previewCases, type CaseOrder } from './cases/caseImport.ts';
import { exportCases } from './cases/caseExport.ts';
import { makeProject, type Maker } from './folder/makeProject.ts';
import { readFolder } from './folder/readFolder.ts';
import { writeFolder } from './folder/writeFolder.ts';
import { exportFeatures } from './features/featureExport.ts';
import { readFeatureFiles } from './features/featureFiles.ts';
import { importFeatures, previewFeatures, rememberFeatures, type FeaturesOrder } from './features/featureImport.ts';
import { bytesOf, findFile, noteFile, refuseTooMuch, type FileOf } from './importFile.ts';
import { noteProgress } from './importRun.ts';
import { describeFile, previewFile, readEntries, readFor } from './importing.ts';
import { importFile, type ImportOrder } from './run.ts';
import { writeWithFiles } from './withFiles.ts';

/** What the thread for files is asked for. Files are handed over by their path: nobody else holds their bytes. */
export type ImportJob =
  | { readonly kind: 'keep'; readonly projectId: string; readonly personId: string; readonly name: string; readonly path: string }
  | { readonly kind: 'describe'; readonly projectId: string; readonly file: string; readonly reading: ReadingOptions }
  | { readonly kind: 'preview'; readonly projectId: string; readonly file: string; readonly mapping: Mapping; readonly reading: ReadingOptions }
  | { readonly kind: 'run'; readonly job: string; readonly actor: Actor; readonly file: string; readonly order: ImportOrder | CasesOrder | DesignRun | FeaturesRun }
  | { readonly kind: 'keepCases'; readonly projectId: string; readonly personId: string; readonly name: string; readonly path: string }
  | { readonly kind: 'describeCases'; readonly projectId: string; readonly file: string; readonly reading: ReadingOptions }
  | { readonly kind: 'previewCases'; readonly projectId: string; readonly file: string; readonly mapping: CaseMapping; readonly reading: ReadingOptions }
  | { readonly kind: 'exportCases'; readonly projectId: string; readonly ids: readonly ArtefactId[]; readonly order: Omit<ExportCases, 'of'>; readonly path: string }
  | { readonly kind: 'keepDesign'; readonly projectId: string; readonly personId: string; readonly name: string; readonly path: string }
  | { readonly kind: 'keepFeatures'; readonly projectId: string; readonly personId: string; readonly name: string; readonly path: string }
  | { readonly kind: 'exportFeatures'; readonly projectId: string; readonly ids: readonly ArtefactId[]; readonly form: ExportFeatures['form']; readonly path: string }
  | { readonly kind: 'rememberFeatures'; readonly projectId: string; readonly name: string; readonly path: string }
  | { readonly kind: 'alongDesign'; readonly projectId: string; readonly ids: readonly ArtefactId[] }
  | { readonly kind: 'exportDesign'; readonly projectId: string; readonly ids: readonly ArtefactId[]; readonly order: Omit<ExportDesign, 'of'>; readonly path: string }
  | { readonly kind: 'exportFolder'; readonly projectId: string; readonly baseline: number; readonly path: string }
  | { readonly kind: 'makeProject'; readonly maker: Maker; readonly project: NewProject; readonly accepted: boolean; readonly path: string }
  | ({ readonly kind: 'previewHandOff' } & PreviewHandOff)
  | { readonly kind: 'makeHandOff'; readonly actor: Actor; readonly order: HandOffOrder }
  | ({ readonly kind: 'writeHandOff' } & WriteHandOff)
  | ({ readonly kind: 'readReturned' } & ReadReturned)
  | { readonly kind: 'checkStories'; readonly projectId: string; readonly path: string; readonly at: Date }
  | { readonly kind: 'exportBasis'; readonly projectId: string; readonly format: ExportFormat; readonly report: CoverageReport | null; readonly files: boolean; readonly at: Date; readonly path: string };

export interface ImportAnswer {
  readonly keep: ImportDraft;
  readonly describe: ImportDraft;
  readonly preview: ImportPreview;
  /** The id of the change. */
  readonly run: string;
  readonly checkStories: TrackerState;
  readonly keepCases: CaseDraft;
  readonly describeCases: CaseDraft;
  readonly previewCases: CasePreview;
  /** The file is written to the path of the job. */
  readonly exportCases: { readonly name: string; readonly type: string };
  readonly keepDesign: DesignDraft;
  readonly keepFeatures: FeaturesDraft;
  readonly exportFeatures: { readonly name: string; readonly type: string };
  /** How many stand in the code as they stand here. */
  readonly rememberFeatures: number;
  readonly alongDesign: ComesAlong;
  readonly exportDesign: { readonly name: string; readonly type: string };
  readonly exportBasis: { readonly name: string; readonly type: string };
  readonly exportFolder: { readonly name: string; readonly type: string };
  readonly makeProject: ProjectRef;
  readonly previewHandOff: HandOffPreview;
  readonly makeHandOff: HandOffListed;
  readonly readReturned: ReturnedNotes;
  readonly writeHandOff: { readonly name: string; readonly type: string };
}

/** What the thread tells when it is done. */
export type ImportReply = { readonly ok: true; readonly answer: ImportAnswer[keyof ImportAnswer] } | { readonly ok: false; readonly refusal: Refusal };

/** An import of cases; whatever is in the queue without a word is one of requirements. */
export type CasesOrder = CaseOrder & { readonly into: 'case' };

/** An import of a design file. */
export type DesignRun = DesignOrder & { readonly into: 'design' };

/** An import of features. */
export type FeaturesRun = FeaturesOrder & { readonly into: 'feature' };

/** Keeps the bytes of a file; answers the id under which it waits. */
async function keep(db: Sequelize, files: Files, { path, projectId, personId, name }: { readonly path: string; readonly projectId: string; readonly personId: string; readonly name: string }, kind: FileOf): Promise<string> {
  const bytes = await readFile(path);
  const at = new Date();
  await inTransaction(db, (work) => refuseTooMuch(work, personId, bytes.length, at));
  const hash = await files.keep(bytes);
  return inTransaction(db, (work) => noteFile(work, projectId, personId, { name, hash, size: bytes.length, kind }, at));
}

/** Files are read and written outside of transactions: a slow one holds nobody up. */
export async function doImportJob(db: Sequelize, files: Files, job: ImportJob): Promise<ImportAnswer[keyof ImportAnswer]> {
  switch (job.kind) {
    case 'keep':
      return describeFile(db, files, job.projectId, await keep(db, files, job, 'requirement'), GUESS_ALL);
    case 'keepCases':
      return describeCases(db, files, job.projectId, await keep(db, files, job, 'case'), GUESS_ALL);
    case 'describeCases':
      return describeCases(db, files, job.projectId, job.file, job.reading);
    case 'previewCases':
      return previewCases(db, files, job.projectId, job.file, job.mapping, job.reading);
    case 'describe':
      return describeFile(db, files, job.projectId, job.file, job.reading);
    case 'preview':
      return previewFile(db, files, job.projectId, job.file, job.mapping, job.reading);
    case 'run': {
      const change = await runImport(db, files, job);
      await refreshStatistics(db);
      return change;
    }
    case 'checkStories':
      return planStories(db, job.projectId, await readFile(job.path), job.at);
    case 'exportCases':
      return writeWithFiles(files, job.path, await inSnapshot(db, (work) => exportCases(work, job.projectId, job.ids, job.order)));
    case 'keepDesign':
      return previewDesign(db, files, job.projectId, await keep(db, files, job, 'design'));
    case 'keepFeatures':
      return previewFeatures(db, files, job.projectId, await keep(db, files, job, 'feature'));
    case 'exportFeatures': {
      const { bytes, ...file } = await inSnapshot(db, (work) => exportFeatures(work, job.projectId, job.ids, job.form));
      await writeFile(job.path, bytes, { flag: 'wx', mode: 0o600 });
      return file;
    }
    case 'rememberFeatures': {
      const read = readFeatureFiles({ name: job.name, bytes: await readFile(job.path) });
      return inTransaction(db, (work) => rememberFeatures(work, job.projectId, read));
    }
    case 'alongDesign':
      return inSnapshot(db, (work) => readAlong(work, job.projectId, job.ids));
    case 'exportDesign': {
      const { bytes, ...file } = await exportDesign(db, files, job.projectId, job.ids, job.order);
      await writeFile(job.path, bytes, { flag: 'wx', mode: 0o600 });
      return file;
    }
    case 'exportFolder':
      return writeFolder(db, files, job.projectId, job.baseline, job.path);
    case 'makeProject': {
      const made = await makeProject(db, files, job.maker, job.project, await readFolder(await readFile(job.path), job.accepted));
      await refreshStatistics(db);
      return made;
    }
    case 'previewHandOff':
      return inSnapshot(db, (work) => previewHandOff(work, job));
    case 'makeHandOff':
      return inTransaction(db, (work) => makeHandOff(work, job.actor, job.order));
    case 'readReturned':
      return readReturned(db, job, await readFile(job.path));
    case 'writeHandOff':
      return writeHandOff(db, files, job);
    case 'exportBasis':
      return writeWithFiles(files, job.path, await exportBasis(db, job.projectId, job));
  }
}

/** Everything of a file or nothing; answers the id of the change. */
async function runImport(db: Sequelize, files: Files, job: Extract<ImportJob, { readonly kind: 'run' }>): Promise<string> {
  const file = await inTransaction(db, (work) => findFile(work, job.actor.projectId, job.file));
  const { order } = job;
  // Progress is told by transactions of its own: it must be seen while the import is not.
  const tell = (done: number, total: number): Promise<void> => inTransaction(db, (apart) => noteProgress(apart, job.file, job.job, done, total));
  if ('into' in order && order.into === 'design') {
    const read = readDesign((await bytesOf(files, file)).bytes);
    await keepCarriedFiles(db, files, job.actor.projectId, read.files, job.actor.at);
    return inTransaction(db, (work) => importDesign(work, job.actor, read, order, tell));
  }
  if ('into' in order && order.into === 'feature') {
    const read = readFeatureFiles(await bytesOf(files, file));
    return inTransaction(db, (work) => importFeatures(work, job.actor, read, file.name, order, tell));
  }
  const document = await documentOf(db, files, file, order.reading);
  if ('into' in order) return inTransaction(db, (work) => importCases(work, job.actor, document, order, tell));
  const project = await inTransaction(db, (work) => readFor(work, job.actor.projectId));
  const entries = readEntries(file.name, document, order.mapping, project);
  return inTransaction(db, (work) => importFile(work, job.actor, entries, order, tell));
}
