import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { doImportJob, type ImportJob, type ImportTold } from './importJob.ts';

const db = openDatabase(String(workerData), 4);

// One job at a time: the next one is sent when this one is told.
parentPort?.on('message', (job: ImportJob) => {
  void tell(job).then((told) => parentPort?.postMessage(told));
});

async function tell(job: ImportJob): Promise<ImportTold> {
  try {
    return { ok: true, answer: await doImportJob(db, job) };
  } catch (error) {
    return error instanceof Refused ? { ok: false, refusal: error.refusal } : { ok: false, error };
  }
}
