import { readTable, type ReadingOptions, type SourceDocument, type TableReading } from '@caderno/core/exchange';
import { expose } from 'comlink';

/** Reads tables beside the page. */
export interface RowsFileWorker {
  read(bytes: Uint8Array, reading: ReadingOptions, header: TableReading['header']): Promise<SourceDocument>;
}

const worker: RowsFileWorker = { read: (bytes, reading, header) => readTable(bytes, reading, header) };

expose(worker);
