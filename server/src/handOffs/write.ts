import { createWriteStream } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { parseScenarioId, type FeatureId } from '@caderno/core/artefacts';
import { attachmentForm, type Attachment } from '@caderno/core/attachments';
import { LONGEST_XLSX_CELL, csvPieces } from '@caderno/core/exchange';
import { HAND_OFF_COLUMNS, MOST_ON_A_PAGE, executedInstances, handOffJson, handOffMarkdown, handOffName, handOffPage, handOffRows, type ExecutedInstance, type HandOffHead, type HandOffNumber, type PictureOf } from '@caderno/core/handOffs';
import { ownerOf } from '@caderno/core/suites';
import { handOffFileSchema, type HandOffFormat } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { inSnapshot, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { ZipFile, writeWorkbook, type Files } from '../files/index.ts';
import { readHanded, type WhichHandOff } from './handed.ts';
import { readStored } from './read.ts';

/** A hand-off to be written. */
export interface WriteHandOff extends WhichHandOff {
  readonly format: Exclude<HandOffFormat, 'features'>;
  /** Null: all of it. */
  readonly person: string | null;
  readonly path: string;
}

const TYPES: Record<WriteHandOff['format'], string> = {
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  csv: 'text/csv; charset=utf-8',
  html: 'text/html; charset=utf-8',
  md: 'text/markdown; charset=utf-8',
  json: 'application/json',
  schema: 'application/schema+json',
};

/** Rows of a workbook, which is held in memory as a whole, and comes back as one file; of more there are several. An instance is never parted. */
const MOST_ROWS = 50_000;
/** Bytes of pictures in one page; those beyond are named only. */
const MOST_PICTURES = 20 * 1024 * 1024;

interface Executed {
  readonly head: HandOffHead;
  readonly instances: () => Generator<ExecutedInstance>;
}

/** Writes a hand-off to a path. The versions it is told from never change, so that it is the same whenever it is written. */
export async function writeHandOff(db: Sequelize, files: Files, order: WriteHandOff): Promise<{ readonly name: string; readonly type: string }> {
  const { head, instances } = await inSnapshot(db, (work) => readExecuted(work, order));
  const part = order.person === null ? '' : `-${(order.person === '' ? 'nobody' : order.person).replaceAll(/[^\p{L}\p{N}]+/gu, '-').replaceAll(/^-|-$/g, '')}`;
  const name = `${head.project.key}-H-${head.number}${part}`;
  if (order.format === 'xlsx') return writeWorkbooks(order.path, name, workbooks(handOffName(head), instances()));
  await writeTo(order.format, order.path, head, instances, files);
  return { name: order.format === 'schema' ? 'hand-off.schema.json' : `${name}.${order.format}`, type: TYPES[order.format] };
}

async function writeTo(format: Exclude<WriteHandOff['format'], 'xlsx'>, path: string, head: HandOffHead, instances: Executed['instances'], files: Files): Promise<void> {
  switch (format) {
    case 'schema':
      return writeFile(path, JSON.stringify(z.toJSONSchema(handOffFileSchema, { io: 'input', unrepresentable: 'any' }), null, 2), NEW_FILE);
    case 'json':
      return stream(path, handOffJson(head, instances()));
    case 'md':
      return stream(path, handOffMarkdown(head, instances()));
    case 'csv':
      return stream(path, csvPieces(handOffRows(handOffName(head), instances())));
    case 'html':
      return stream(path, handOffPage(head, refusingLong(instances()), await picturesOf(files, refusingLong(instances()))));
  }
}

const NEW_FILE = { flag: 'wx', mode: 0o600 } as const;

function stream(path: string, pieces: Iterable<string>): Promise<void> {
  return pipeline(Readable.from(pieces), createWriteStream(path, { flags: NEW_FILE.flag, mode: NEW_FILE.mode }));
}

/** The rows of a workbook, with the names of the columns. */
interface Book {
  readonly rows: string[][];
  readonly isLast: boolean;
}

function* workbooks(name: string, instances: Iterable<ExecutedInstance>): Generator<Book> {
  let rows: string[][] = [[...HAND_OFF_COLUMNS]];
  for (const instance of instances) {
    const [, ...own] = handOffRows(name, [instance]);
    if (own.some((row) => row.some((cell) => cell.length >= LONGEST_XLSX_CELL))) throw new DomainError({ code: 'export_cell_too_long', id: ownerOf(instance.of), limit: LONGEST_XLSX_CELL });
    if (rows.length > 1 && rows.length + own.length > MOST_ROWS) {
      yield { rows, isLast: false };
      rows = [[...HAND_OFF_COLUMNS]];
    }
    rows.push(...own);
  }
  yield { rows, isLast: true };
}

/** One workbook, or several in a zip: each can be worked with and come back by itself. */
async function writeWorkbooks(path: string, name: string, books: Iterable<Book>): Promise<{ readonly name: string; readonly type: string }> {
  let zip: ZipFile | null = null;
  let turn = 0;
  try {
    for (const { rows, isLast } of books) {
      turn += 1;
      const bytes = await workbook(rows);
      if (zip === null && isLast) {
        await writeFile(path, bytes, NEW_FILE);
        return { name: `${name}.xlsx`, type: TYPES.xlsx };
      }
      zip ??= new ZipFile(path);
      await zip.add(`${name}-${turn}.xlsx`, bytes);
    }
    await zip?.end();
  } catch (error) {
    zip?.abandon();
    throw error;
  }
  return { name: `${name}.zip`, type: 'application/zip' };
}

function workbook(rows: readonly (readonly string[])[]): Promise<Uint8Array> {
  return writeWorkbook([{ name: 'To execute', rows }]);
}

function* refusingLong(instances: Iterable<ExecutedInstance>): Generator<ExecutedInstance> {
  let steps = 0;
  for (const instance of instances) {
    steps += instance.steps.length;
    if (steps > MOST_ON_A_PAGE) throw new DomainError({ code: 'hand_off_too_long', limit: MOST_ON_A_PAGE });
    yield instance;
  }
}

/** The pictures of the instances, read before the page is written. */
async function picturesOf(files: Files, instances: Iterable<ExecutedInstance>): Promise<PictureOf> {
  const pictures = new Map<Attachment['id'], string>();
  const all = new Map<Attachment['id'], Attachment>();
  for (const { files: own, steps } of instances) for (const file of [...own, ...steps.flatMap((step) => step.files)]) if (attachmentForm(file.type) === 'picture') all.set(file.id, file);
  let left = MOST_PICTURES;
  for (const { id, type } of all.values()) {
    const bytes = await files.readWhole(id);
    if (bytes.length > left) continue;
    left -= bytes.length;
    pictures.set(id, `data:${type ?? 'image/png'};base64,${Buffer.from(bytes).toString('base64')}`);
  }
  return (file) => pictures.get(file.id) ?? null;
}

async function readExecuted(work: UnitOfWork, { projectId, moment, number, person }: WriteHandOff): Promise<Executed> {
  const { lines, handed, ...head } = await readHanded(work, { projectId, moment, number });
  const own = person === null ? lines : lines.filter((line) => line.person === person);
  return { head: { ...head, person }, instances: () => executedInstances(own, handed) };
}

/** The features whose scenarios are handed off. */
export async function featuresOf(work: UnitOfWork, projectId: string, number: HandOffNumber, person: string | null): Promise<FeatureId[]> {
  const { lines } = await readStored(work, projectId, number);
  return [...new Set(lines.filter((line) => person === null || line.person === person).flatMap((line) => parseScenarioId(line.of)?.feature ?? []))];
}
