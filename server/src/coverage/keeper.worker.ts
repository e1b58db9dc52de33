import { parentPort, workerData } from 'node:worker_threads';
import { inTransaction, openDatabase } from '../database/index.ts';
import { AlikeSearches } from './alikeSearch.ts';
import { CoverageConsumer } from './consumer.ts';
import { CoverageIndexes } from './indexes.ts';
import { answer } from './question.ts';
import { READY, type Asked, type Told } from './projectThread.ts';

const db = openDatabase(String(workerData), 2);
const indexes = new CoverageIndexes();
const consumer = new CoverageConsumer(db, indexes);
const searches = new AlikeSearches();

// One question at a time: the next one is sent when this one is told.
parentPort?.on('message', (asked: Asked) => {
  void tell(asked).then((told) => parentPort?.postMessage(told));
});

parentPort?.postMessage(READY);

async function tell({ projectId, question }: Asked): Promise<Told> {
  try {
    if (question.kind === 'catchUp') {
      await consumer.catchUp(projectId);
      return { ok: true, answer: null };
    }
    const { index, revision } = await inTransaction(db, (work) => indexes.at(work, projectId));
    const counted = () => [...index.cases.values()].filter((c) => c.state !== 'withdrawn');
    return { ok: true, answer: answer(index, question, () => searches.at(projectId, revision, counted)) };
  } catch (error) {
    return { ok: false, error };
  }
}
