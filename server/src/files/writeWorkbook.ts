import { workbookOf, type SheetRows } from '@caderno/core/exchange';
import write from 'write-excel-file/node';

/** A workbook as the core's `writeSheets` writes it, packed in this thread: what a browser does packs every sheet in a new one, which takes a server twice as long. */
export async function writeWorkbook(sheets: readonly SheetRows[]): Promise<Uint8Array> {
  return write(workbookOf(sheets)).toBuffer();
}
