import { isZip } from './archive.ts';
import { readCsv } from './csv.ts';
import { FILE_LIMITS } from './limits.ts';
import { error } from './problem.ts';
import type { ReadingOptions, SourceDocument } from './sourceDocument.ts';
import type { TableReading } from './table.ts';
import { readXlsx } from './xlsx.ts';

/** Reads a table of data: a workbook, or else a text with separators. `header`: which row names the columns, see {@link TableReading}. Whatever is in it, this answers a document. */
export async function readTable(bytes: Uint8Array, options: ReadingOptions, header: TableReading['header'] = null): Promise<SourceDocument> {
  const table: TableReading = { header, most: FILE_LIMITS.rows };
  if (bytes.length > FILE_LIMITS.bytes) return { format: 'csv', columns: [], records: [], sheets: [], problems: [error({ code: 'file_too_large', limit: FILE_LIMITS.bytes })], types: null };
  return isZip(bytes) ? readXlsx(bytes, options, table) : readCsv(bytes, options, table);
}
