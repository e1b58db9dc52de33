import { readTable, writeSheets, type ReadingOptions, type SourceDocument, type TableReading } from '@caderno/core/exchange';
import { expose, transfer } from 'comlink';

type Rows = readonly (readonly string[])[];

/** Reads tables and writes workbooks beside the page: a large one takes seconds. */
export interface RowsFileWorker {
  read(bytes: Uint8Array, reading: ReadingOptions, header: TableReading['header']): Promise<SourceDocument>;
  /** Of one sheet. */
  workbook(table: Rows): Promise<Uint8Array<ArrayBuffer>>;
  workbookOf(sheets: readonly { readonly name: string; readonly rows: Rows }[]): Promise<Uint8Array<ArrayBuffer>>;
}

const worker: RowsFileWorker = {
  read: (bytes, reading, header) => readTable(bytes, reading, header),
  workbook: (table) => written([{ name: 'data', rows: table }]),
  workbookOf: written,
};

async function written(sheets: Parameters<RowsFileWorker['workbookOf']>[0]): Promise<Uint8Array<ArrayBuffer>> {
  const bytes = Uint8Array.from(await writeSheets(sheets));
  return transfer(bytes, [bytes.buffer]);
}

expose(worker);
