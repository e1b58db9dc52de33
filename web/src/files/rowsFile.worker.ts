import { readTable, writeXlsx, type ReadingOptions, type SourceDocument, type TableReading } from '@caderno/core/exchange';
import { expose, transfer } from 'comlink';

/** Reads tables and writes workbooks beside the page: a large one takes seconds. */
export interface RowsFileWorker {
  read(bytes: Uint8Array, reading: ReadingOptions, header: TableReading['header']): Promise<SourceDocument>;
  workbook(table: readonly (readonly string[])[]): Promise<Uint8Array<ArrayBuffer>>;
}

const worker: RowsFileWorker = {
  read: (bytes, reading, header) => readTable(bytes, reading, header),
  workbook: async (table) => {
    const bytes = Uint8Array.from(await writeXlsx('data', table));
    return transfer(bytes, [bytes.buffer]);
  },
};

expose(worker);
