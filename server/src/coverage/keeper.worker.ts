import { parentPort, workerData } from 'node:worker_threads';
import { inTransaction, openDatabase } from '../database/index.ts';
import { AlikeSearches } from './alikeSearch.ts';
import { CoverageConsumer } from './consumer.ts';
import { CoverageIndexes } from './indexes.ts';
import { answer, type Question } from './question.ts';
import { READY, type ThreadReply, type ThreadRequest } from './coverageThread.ts';

const db = openDatabase(String(workerData), { most: 2 });
const indexes = new CoverageIndexes();
const consumer = new CoverageConsumer(db, indexes);
const searches = new AlikeSearches();

// One at a time, in the order of coming: what is to be forgotten is not what a question before it still reads.
let last = Promise.resolve();
parentPort?.on('message', ({ projectId, question }: ThreadRequest) => {
  last = last.then(async () => {
    if (question === 'forget') indexes.forget(projectId);
    else parentPort?.postMessage(await answerTo(projectId, question));
  });
});

parentPort?.postMessage(READY);

async function answerTo(projectId: string, question: Question): Promise<ThreadReply> {
  try {
    if (question.kind === 'catchUp') return { ok: true, answer: await consumer.catchUp(projectId) };
    const { index, revision } = await inTransaction(db, (work) => indexes.at(work, projectId));
    const counted = () => [...index.cases.values()].filter((c) => c.state !== 'withdrawn');
    return { ok: true, answer: answer(index, question, () => searches.at(projectId, revision, counted)) };
  } catch (error) {
    return { ok: false, error };
  }
}
