import { readFile, type ReadingOptions, type SourceDocument } from '@caderno/core/exchange';
import { expose } from 'comlink';

/** Reads files beside the page. */
export interface RowsFileWorker {
  read(name: string, bytes: Uint8Array, reading: ReadingOptions): Promise<SourceDocument>;
}

const worker: RowsFileWorker = { read: (name, bytes, reading) => readFile(name, bytes, reading) };

expose(worker);
