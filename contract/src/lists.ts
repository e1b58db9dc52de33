import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { LIST_COLUMNS, ownColumn } from '@caderno/core/listing';
import { z } from 'zod';
import { ownFieldIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { trimmedTextUpTo, textUpTo } from './text.ts';

/** Queries that a person keeps, and that a project does. */
export const MOST_SAVED_QUERIES = 200;

const column = z.union([z.enum(LIST_COLUMNS), z.string().startsWith('own:').transform((text) => ownFieldIdSchema.parse(text.slice('own:'.length))).transform(ownColumn)]);

/** How what a query finds is counted: by what down and across (null: not across), what of them, and whether as a table or as bars. */
export const countsViewSchema = z.strictObject({ down: column, across: column.nullable(), measure: z.union([z.literal('number'), column]), as: z.enum(['table', 'bars']) });
/** See {@link countsViewSchema}. */
export type CountsView = z.infer<typeof countsViewSchema>;

/** A query that is kept under a name; `everybody`: it is the project's and not one's own; `counts`: it is a table of counts (null: a list). */
const savedQuery = { kind: z.enum(ARTEFACT_KINDS), name: trimmedTextUpTo(LIMITS.name), query: textUpTo(LIMITS.title), everybody: z.boolean(), counts: countsViewSchema.nullable() };
/** What is kept of a query. */
export const saveQuerySchema = z.strictObject(savedQuery);
/** A query that is kept, with its id. */
export const savedQuerySchema = z.object({ id: z.uuid(), ...savedQuery });
/** See {@link savedQuerySchema}. */
export type SavedQuery = z.infer<typeof savedQuerySchema>;

/** How somebody wants to see a list: what it is grouped and sorted by, and the columns of its table, each with its width in pixels (null: as wide as it is made). */
export const listViewSchema = z.strictObject({
  group: column.nullable(),
  sort: z.strictObject({ column, descending: z.boolean() }).nullable(),
  columns: z.array(z.strictObject({ column, width: z.int().min(40).max(2_000).nullable() })).min(1).max(LIST_COLUMNS.length + LIMITS.ownFields)
    .refine((columns) => isEachOnce(columns.map((c) => c.column)), 'must name each column once'),
});
/** See {@link listViewSchema}. */
export type ListView = z.infer<typeof listViewSchema>;
/** The views that a person has chosen, by kind of artefact. */
export const listViewsSchema = z.partialRecord(z.enum(ARTEFACT_KINDS), listViewSchema);
