import { parentPort, workerData } from 'node:worker_threads';
import { inTransaction, openDatabase } from '../database/index.ts';
import { AlikeSearches } from './alikeSearch.ts';
import { CoverageIndexes } from './indexes.ts';
import { answer } from './question.ts';
import type { Asked, Told } from './keeper.ts';

// One question at a time: an index must not be changed by two at once.
let turn: Promise<unknown> = Promise.resolve();

const db = openDatabase(String(workerData));
const indexes = new CoverageIndexes();
const searches = new AlikeSearches();

parentPort?.on('message', (asked: Asked) => {
  turn = turn.then(async () => parentPort?.postMessage(await tell(asked)));
});

async function tell({ id, projectId, question }: Asked): Promise<Told> {
  try {
    const { index, revision } = await inTransaction(db, (work) => indexes.at(work, projectId));
    const counted = () => [...index.cases.values()].filter((c) => c.state !== 'withdrawn');
    return { id, ok: true, answer: answer(index, question, () => searches.at(projectId, revision, counted)) };
  } catch (error) {
    return { id, ok: false, error };
  }
}
