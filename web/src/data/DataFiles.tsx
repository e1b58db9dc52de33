import type { Row } from '@caderno/core/cases';
import { LONGEST_XLSX_CELL, rowsJson, rowsTable, writeCsv } from '@caderno/core/exchange';
import { useState } from 'react';
import { toast } from 'sonner';
import { rowsFile } from '../files/index.ts';
import { FileButton, TextButton, saveFile, locale } from '../look/index.ts';
import { ImportRows } from './ImportRows.tsx';
import type { DataTable, EditTable } from './table.ts';

interface Props extends DataTable {
  /** The rows that go out: those that files are taken into, and others beside them. */
  readonly all: readonly Row[];
  /** What files are called. */
  readonly name: string;
  readonly canEdit: boolean;
  readonly update: EditTable;
}

/** The data's way in and out: rows of a file are taken in, and go out as CSV, XLSX or JSON. */
export function DataFiles({ name, rows, all, parameters, canEdit, update }: Props) {
  const [file, setFile] = useState<File | null>(null);
  const content = { rows: all, parameters };
  const asWorkbook = async (): Promise<void> => {
    const table = rowsTable(content);
    if (table.some((line) => line.some((cell) => cell.length > LONGEST_XLSX_CELL))) return void toast.error(`A cell is longer than the ${LONGEST_XLSX_CELL.toLocaleString(locale())} characters a spreadsheet holds. Nothing was written; choose CSV or JSON.`);
    saveFile(`${name}.xlsx`, new Blob([await rowsFile().workbook(table)], { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' }));
  };
  return (
    <span className="flex items-baseline gap-3 text-xs">
      {canEdit && (
        <FileButton label="File of rows" accept=".csv,.tsv,.txt,.xlsx" look="text" onChoose={setFile}>
          Import rows
        </FileButton>
      )}
      {all.length > 0 && (
        <>
          <span data-screen-only className="text-ink2">export as</span>
          <TextButton onClick={() => saveFile(`${name}.csv`, new Blob([writeCsv(rowsTable(content))], { type: 'text/csv' }))}>CSV</TextButton>
          <TextButton onClick={() => void asWorkbook()}>XLSX</TextButton>
          <TextButton onClick={() => saveFile(`${name}.json`, new Blob([rowsJson(content)], { type: 'application/json' }))}>JSON</TextButton>
        </>
      )}
      {file !== null && <ImportRows file={file} rows={rows} parameters={parameters} update={update} onClose={() => setFile(null)} />}
    </span>
  );
}
