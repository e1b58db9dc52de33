import { readTable, type ReadingOptions, type SourceDocument } from '@caderno/core/exchange';
import { expose } from 'comlink';

/** Reads tables beside the page. */
export interface RowsFileWorker {
  read(bytes: Uint8Array, reading: ReadingOptions): Promise<SourceDocument>;
}

const worker: RowsFileWorker = { read: (bytes, reading) => readTable(bytes, reading) };

expose(worker);
