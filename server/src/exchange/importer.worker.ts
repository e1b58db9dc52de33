import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { doImportJob, type ImportJob, type ImportReply } from './importJob.ts';

const db = openDatabase(String(workerData), { most: 4 });

// One job at a time: the next one is sent when this one is answered.
parentPort?.on('message', (job: ImportJob) => {
  void answerTo(job).then((reply) => parentPort?.postMessage(reply));
});

async function answerTo(job: ImportJob): Promise<ImportReply> {
  try {
    return { ok: true, answer: await doImportJob(db, job) };
  } catch (error) {
    return error instanceof DomainError ? { ok: false, refusal: error.refusal } : { ok: false, error };
  }
}
