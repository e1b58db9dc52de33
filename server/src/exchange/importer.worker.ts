import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { doImportJob, type ImportJob, type ImportTold } from './importJob.ts';

interface Given {
  readonly databaseUrl: string;
  readonly job: ImportJob;
}

async function tell({ databaseUrl, job }: Given): Promise<ImportTold> {
  const db = openDatabase(databaseUrl);
  try {
    return { ok: true, answer: await doImportJob(db, job) };
  } catch (error) {
    return error instanceof Refused ? { ok: false, refusal: error.refusal } : { ok: false, error };
  } finally {
    await db.close();
  }
}

parentPort?.postMessage(await tell(workerData as Given));
