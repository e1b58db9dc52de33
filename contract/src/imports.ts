import { FILE_FORMATS, SECTION_ROWS, TARGETS, type FieldName, type FileProblem, type OwnFieldName, type Mapping, type ReadingOptions } from '@caderno/core/exchange';
import { SIDES } from '@caderno/core/versions';
import { z } from 'zod';
import { ownFieldIdSchema, requirementIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

const count = z.int().min(0);

/** A column that fills a field of the project's own: `own:` and its id. */
export const ownTargetSchema: z.ZodType<OwnFieldName> = z.string().startsWith('own:').refine((text) => ownFieldIdSchema.safeParse(text.slice('own:'.length)).success).transform((text) => text as OwnFieldName);

/** Which column of a file becomes which field. */
export const mappingSchema: z.ZodType<Mapping> = z.strictObject({
  source: trimmedTextUpTo(100),
  columns: z.record(textUpTo(200), z.union([z.enum(TARGETS), ownTargetSchema])),
  sections: z.enum(SECTION_ROWS).optional(),
});

/** How a file is to be read where it can be read in several ways. */
export const readingSchema: z.ZodType<ReadingOptions> = z.strictObject({
  encoding: z.enum(['utf-8', 'utf-16le', 'utf-16be', 'windows-1252']).nullable(),
  separator: z.string().length(1).nullable(),
  sheet: textUpTo(200).nullable(),
  header: z.int().min(0).max(1000).nullable(),
});

/** Problems cross the wire as they are: codes with facts. Their sentences are made by {@link fileProblemSentence}. */
export const fileProblemSchema = z.custom<FileProblem>((value) => typeof value === 'object' && value !== null && 'code' in value && 'severity' in value);
const fieldName = z.custom<FieldName>((value) => typeof value === 'string');

/** A file that waits to be imported: what it holds, and how its columns would be matched. */
export const importDraftSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  format: z.enum(FILE_FORMATS),
  columns: z.array(z.object({ name: z.string(), examples: z.array(z.string()) })),
  records: count,
  sheets: z.array(z.string()),
  mapping: mappingSchema,
  reading: readingSchema,
  /** Of a table: the row that names the columns, and the first rows to choose another from. */
  names: z.object({ header: z.int(), rows: z.array(z.string()) }).nullable(),
  /** How many rows hold one text only and part the table. */
  sections: count,
  /** Sources that requirements came from before. */
  sources: z.array(z.string()),
  /** Whether the mapping was remembered from an earlier import of this source. */
  remembered: z.boolean(),
});
/** What a file that waits to be imported holds. */
export type ImportDraft = z.infer<typeof importDraftSchema>;

const plannedChange = z.object({
  id: requirementIdSchema,
  title: z.string(),
  line: z.int(),
  fields: z.array(z.object({ field: fieldName, from: z.string(), to: z.string() })),
  conflicts: z.array(z.object({ field: fieldName, base: z.string(), mine: z.string(), theirs: z.string() })),
  moves: z.boolean(),
  relations: z.boolean(),
});

/** How many of each kind a preview shows; the counts are of all. */
export const MOST_PREVIEWED = 200;

/** What the file would add that seems to be here already. */
const hereAlready = z.object({
  /** How many of the added have the id of a requirement from another source. */
  ids: z.array(z.object({ source: z.string(), count })),
  /** How many have the title of one. */
  titles: count,
  /** The first of both. */
  examples: z.array(z.object({ key: z.string(), title: z.string(), id: requirementIdSchema })),
});

/** What an import would do; of long lists the first. */
export const importPreviewSchema = z.object({
  here: hereAlready,
  counts: z.object({ added: count, changed: count, same: count, gone: count, conflicts: count, errors: count, warnings: count }),
  added: z.array(z.object({ line: z.int(), key: z.string(), title: z.string(), text: z.string(), parent: z.string().nullable() })),
  /** Those with conflicts first; all that have one. */
  changed: z.array(plannedChange),
  gone: z.array(requirementIdSchema),
  problems: z.array(fileProblemSchema),
});
/** See {@link importPreviewSchema}. */
export type ImportPreview = z.infer<typeof importPreviewSchema>;

/** What a file is previewed with. */
export const importStepSchema = z.object({ mapping: mappingSchema, reading: readingSchema });
/** A side of a conflict, or a text of one’s own. */
export const conflictChoiceSchema = z.union([z.enum(SIDES), z.strictObject({ own: textUpTo(LIMITS.text) })]);
/** `choices`: which side counts where the file and the project both changed. */
export const runImportSchema = importStepSchema.extend({ choices: z.record(textUpTo(400), conflictChoiceSchema) });
/** How far an import is. */
export const importProgressSchema = z.object({ state: z.enum(['waiting', 'running', 'done', 'cancelled', 'failed']), done: count, total: count });
/** How far an import is, and how it ended. */
export type ImportProgress = z.infer<typeof importProgressSchema>;

/** The formats requirements go out in. */
export const EXPORT_FORMATS = ['csv', 'xlsx', 'md', 'reqif'] as const;
/** A format requirements go out in. */
export type ExportFormat = (typeof EXPORT_FORMATS)[number];
/** `figures`: whether coverage stands beside each requirement. `files`: whether what is attached comes along, in a zip. */
export const exportQuerySchema = z.object({ format: z.enum(EXPORT_FORMATS), figures: z.enum(['yes', 'no']).default('no'), files: z.enum(['yes', 'no']).default('no') });

/** What the file is called; its ending says how it is read. */
export const uploadQuerySchema = z.object({ name: trimmedTextUpTo(LIMITS.title) });
