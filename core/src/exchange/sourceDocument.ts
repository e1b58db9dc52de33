import type { FileProblem } from './problem.ts';
import type { ReqifTypes } from './reqifTypes.ts';

export const FILE_FORMATS = ['csv', 'xlsx', 'markdown', 'reqif', 'reqifz', 'docx', 'stories'] as const;
export type FileFormat = (typeof FILE_FORMATS)[number];

/** One requirement as a file has it, before anyone said what its columns mean. */
export interface SourceRecord {
  /** Where it begins: a line of text, a row of a sheet, a paragraph of a document. */
  readonly line: number;
  /** In the order of the document's columns; null: what kind of record it is has no such column. */
  readonly cells: readonly (string | null)[];
  /** Its id and its parent's, where the format itself says so; null for tables. */
  readonly place: { readonly id: string; readonly parent: string | null } | null;
  readonly relations: readonly { readonly id: string; readonly kind: string; readonly to: string }[];
  /** A row of a table with one text in it: it parts those that follow from those before. */
  readonly section?: string;
}

/** A file, read. */
export interface SourceDocument {
  readonly format: FileFormat;
  readonly columns: readonly string[];
  readonly records: readonly SourceRecord[];
  /** Names of a workbook's sheets. */
  readonly sheets: readonly string[];
  /** Of a table: which row names the columns, and the first rows to choose another from. */
  readonly names?: { readonly header: number; readonly rows: readonly string[] };
  readonly problems: readonly FileProblem[];
  /** What a ReqIF export needs to write the same types again; null for other formats. */
  readonly types: ReqifTypes | null;
}

/** How to read a file where its own signs are not enough. Null: guess. */
export interface ReadingOptions {
  readonly encoding: 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252' | null;
  readonly separator: string | null;
  readonly sheet: string | null;
  /** Which row of a table names the columns: a place among those that are not empty, from 1; 0: none does. */
  readonly header: number | null;
}

export const GUESS_ALL: ReadingOptions = { encoding: null, separator: null, sheet: null, header: null };
