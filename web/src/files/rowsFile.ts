import { wrap, type Remote } from 'comlink';
import type { RowsFileWorker } from './rowsFile.worker.ts';

let shared: Remote<RowsFileWorker> | null = null;

/** Reads and writes files of rows beside the page. */
export function rowsFile(): Remote<RowsFileWorker> {
  shared ??= wrap<RowsFileWorker>(new Worker(new URL('./rowsFile.worker.ts', import.meta.url), { type: 'module' }));
  return shared;
}
