import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { CASE_TABLE, casesInMarkdown } from '@caderno/core/caseFiles';
import { readFile, type ReadingOptions, type SourceDocument } from '@caderno/core/exchange';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { execute, inTransaction, selectRows } from '../database/index.ts';
import type { Files } from '../files/index.ts';
import { readStoriesFile, STORIES_FILE } from '../tracker/index.ts';
import { htmlOfDocx } from './htmlOfDocx.ts';
import { bytesOf, type BroughtFile, type KeptFile } from './importFile.ts';

/** Which code decodes: what another one has decoded is decoded anew. Set when the server is bundled. */
const DECODER = process.env.CADERNO_COMPUTATION ?? 'sources';

/** Reads a file; the stories of a tracker are kept as a file too. */
export async function decode({ name, bytes }: BroughtFile, reading: ReadingOptions): Promise<SourceDocument> {
  return name === STORIES_FILE ? readStoriesFile(bytes) : readFile(name, bytes, reading, { htmlOf: htmlOfDocx });
}

/** The same for a file of cases: more rows, and headings of Markdown are cases. */
async function decodeCases({ name, bytes }: BroughtFile, reading: ReadingOptions): Promise<SourceDocument> {
  const document = await readFile(name, bytes, reading, { table: CASE_TABLE });
  return document.format === 'markdown' ? casesInMarkdown(document) : document;
}

const documentRow = z.object({ document: z.instanceof(Buffer) });
const pack = promisify(gzip);
const unpack = promisify(gunzip);
/** Packing is to cost less than it spares. */
const QUICKLY = { level: 1 };

/**
 * What a kept file holds, decoded and unzipped once for describing, previewing and running it, whichever server does
 * these; read in another way it is decoded again.
 */
export async function documentOf(db: Sequelize, files: Files, file: KeptFile, reading: ReadingOptions): Promise<SourceDocument> {
  const { encoding, separator, sheet, header } = reading;
  const way = JSON.stringify([DECODER, encoding, separator, sheet, header]);
  const [known] = await inTransaction(db, (work) => selectRows(work, documentRow, 'SELECT document FROM import_document WHERE file_id = $1 AND reading = $2', [file.id, way]));
  // Written by this very code, from a document that it had made itself.
  if (known !== undefined) return JSON.parse((await unpack(known.document)).toString('utf8')) as SourceDocument;
  const brought = await bytesOf(files, file);
  const document = file.kind === 'case' ? await decodeCases(brought, reading) : await decode(brought, reading);
  const packed = await pack(JSON.stringify(document), QUICKLY);
  await inTransaction(db, (work) =>
    execute(work, 'INSERT INTO import_document (file_id, reading, document) VALUES ($1, $2, $3) ON CONFLICT (file_id) DO UPDATE SET reading = excluded.reading, document = excluded.document', [file.id, way, packed]),
  );
  return document;
}
