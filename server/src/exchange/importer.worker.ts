import { workerData } from 'node:worker_threads';
import { openDatabase } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { Files } from '../files/index.ts';
import type { ImporterGiven } from './importer.ts';
import { doImportJob, type ImportJob, type ImportReply } from './importJob.ts';

const { databaseUrl, filesPlace } = workerData as ImporterGiven;
const db = openDatabase(databaseUrl, { most: 4 });
const files = new Files(db, filesPlace);

/** Does one job at a time. */
export default async function answer(job: ImportJob): Promise<ImportReply> {
  try {
    return { ok: true, answer: await doImportJob(db, files, job) };
  } catch (error) {
    if (error instanceof DomainError) return { ok: false, refusal: error.refusal };
    throw error;
  }
}
