import { isZip, openArchive } from './archive.ts';
import { readCsv } from './csv.ts';
import { decodeText } from './decodeText.ts';
import { DOCUMENT_XML, readDocx, type HtmlOf } from './docx.ts';
import { FILE_LIMITS } from './limits.ts';
import { readMarkdown } from './markdown.ts';
import { error, type FileProblem } from './problem.ts';
import { isColumnName } from './mapping.ts';
import { looksLikeReqif, readReqif } from './reqif.ts';
import type { FileFormat, ReadingOptions, SourceDocument } from './sourceDocument.ts';
import type { TableReading } from './table.ts';
import { readXlsx } from './xlsx.ts';

/** How the rows of a table with requirements are read. */
const REQUIREMENTS: Omit<TableReading, 'header'> = { most: FILE_LIMITS.records, isName: isColumnName, hasSections: true };

/** What is read besides tables of requirements. */
export interface ReadingFor {
  /** How many rows a table may have, and which names its columns are known by. */
  readonly table?: Omit<TableReading, 'header'>;
  /** Text documents are read by it; without it none is. */
  readonly htmlOf?: HtmlOf;
}

/** Reads a file of any format we take, by its content first and its name second. Whatever is in it, this answers a document. */
export async function readFile(name: string, bytes: Uint8Array, options: ReadingOptions, { table = REQUIREMENTS, htmlOf }: ReadingFor = {}): Promise<SourceDocument> {
  if (bytes.length === 0) return nothing('csv', error({ code: 'file_empty' }));
  if (bytes.length > FILE_LIMITS.bytes) return nothing('csv', error({ code: 'file_too_large', limit: FILE_LIMITS.bytes }));
  const format = await formatOf(name, bytes, options);
  switch (format) {
    case 'csv':
      return readCsv(bytes, options, { ...table, header: options.header });
    case 'xlsx':
      return readXlsx(bytes, options, { ...table, header: options.header });
    case 'markdown':
      return readMarkdown(bytes, options);
    case 'reqif':
    case 'reqifz':
      return readReqif(bytes, options);
    case 'docx':
      return htmlOf === undefined ? nothing('csv', error({ code: 'file_kind_unknown' })) : readDocx(bytes, htmlOf);
    default:
      return nothing('csv', format);
  }
}

function nothing(format: FileFormat, problem: FileProblem): SourceDocument {
  return { format, columns: [], records: [], sheets: [], problems: [problem], types: null };
}

async function formatOf(name: string, bytes: Uint8Array, options: ReadingOptions): Promise<Exclude<FileFormat, 'stories'> | FileProblem> {
  if (isZip(bytes)) return zipFormat(name, bytes);
  const { text } = decodeText(bytes.subarray(0, 8_000), options.encoding);
  if (looksLikeReqif(text) || /\.reqif$/i.test(name)) return 'reqif';
  if (/\.(?:md|markdown|mdown)$/i.test(name)) return 'markdown';
  if (/\.(?:csv|tsv|txt)$/i.test(name)) return 'csv';
  if (/\.(?:xlsx|xlsm|docx|reqifz|zip)$/i.test(name)) return error({ code: 'archive_broken' });
  return error({ code: 'file_kind_unknown' });
}

async function zipFormat(name: string, bytes: Uint8Array): Promise<'xlsx' | 'docx' | 'reqifz' | FileProblem> {
  const paths: string[] = [];
  const archive = await openArchive(bytes, (path) => (paths.push(path), false));
  if (archive.kind === 'refused') return archive.problem;
  if (paths.includes('xl/workbook.xml')) return 'xlsx';
  if (paths.includes(DOCUMENT_XML)) return 'docx';
  return paths.some((path) => path.toLowerCase().endsWith('.reqif')) || /\.reqifz$/i.test(name) ? 'reqifz' : error({ code: 'archive_without', what: 'xl/workbook.xml, .reqif' });
}
