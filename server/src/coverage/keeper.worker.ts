import { parentPort, workerData } from 'node:worker_threads';
import { inTransaction, openDatabase } from '../database/index.ts';
import { AlikeSearches } from './alikeSearch.ts';
import { CoverageConsumer } from './consumer.ts';
import { CoverageIndexes } from './indexes.ts';
import { answer } from './question.ts';
import { READY, type ThreadRequest, type ThreadReply } from './projectThread.ts';

const db = openDatabase(String(workerData), { most: 2 });
const indexes = new CoverageIndexes();
const consumer = new CoverageConsumer(db, indexes);
const searches = new AlikeSearches();

// One question at a time: the next one is sent when this one is answered.
parentPort?.on('message', (request: ThreadRequest) => {
  void answerTo(request).then((reply) => parentPort?.postMessage(reply));
});

parentPort?.postMessage(READY);

async function answerTo({ projectId, question }: ThreadRequest): Promise<ThreadReply> {
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
