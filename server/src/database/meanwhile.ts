import { setImmediate } from 'node:timers/promises';

/** Works while a statement is on its way: what is made here and what the database does need not wait for each other. */
export async function meanwhile<S, W>(statement: Promise<S>, work: () => W): Promise<readonly [S, W]> {
  // Asked together, so that a statement that fails while the work goes on is heard of.
  return Promise.all([statement, afterItIsSent(work)]);
}

async function afterItIsSent<W>(work: () => W): Promise<W> {
  await setImmediate();
  return work();
}
