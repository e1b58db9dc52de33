import { ROW_MARKS, type Row } from '@caderno/core/cases';
import { z } from 'zod';
import { isInnerId, parameterIdSchema, rowIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { isText, textUpTo } from './text.ts';

const row = z.strictObject({
  id: rowIdSchema,
  name: textUpTo(LIMITS.name),
  description: textUpTo(LIMITS.title),
  cells: z.record(parameterIdSchema, textUpTo(LIMITS.cell)),
  mark: z.enum(ROW_MARKS).nullable(),
  aside: z.boolean(),
});
const slowRows: z.ZodType<Row[]> = z.array(row).max(LIMITS.rows);

/**
 * Rows of data. A table has hundreds of thousands of cells, and a schema for each takes longer than all the rest of an
 * answer: they are looked through in one go, and only where something is wrong by the schema, which says what.
 */
export const rowsSchema: z.ZodType<Row[]> = z.custom<Row[]>().check((context) => {
  if (areRows(context.value)) return;
  for (const issue of slowRows.safeParse(context.value).error?.issues ?? []) context.issues.push({ code: 'custom', input: context.value, path: issue.path, message: issue.message });
});

const FIELDS = 6;

/** Whether the schema above would find nothing wrong (property-tested). */
export function areRows(value: unknown): boolean {
  return Array.isArray(value) && value.length <= LIMITS.rows && value.every(isRow);
}

function isRow(value: unknown): boolean {
  if (!isRecord(value) || Object.keys(value).length !== FIELDS) return false;
  const { id, name, description, cells, mark, aside } = value;
  return isId(id) && isTextUpTo(name, LIMITS.name) && isTextUpTo(description, LIMITS.title) && (mark === null || ROW_MARKS.some((m) => m === mark)) && typeof aside === 'boolean' && areCells(cells);
}

function areCells(value: unknown): boolean {
  if (!isRecord(value)) return false;
  for (const id in value) if (!isInnerId(id) || !isTextUpTo(value[id], LIMITS.cell)) return false;
  return true;
}

function isId(value: unknown): boolean {
  return typeof value === 'string' && isInnerId(value);
}

function isTextUpTo(value: unknown, most: number): boolean {
  return typeof value === 'string' && value.length <= most && isText(value);
}

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
