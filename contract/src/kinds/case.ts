import { CASE_KINDS, EXECUTIONS, NAME_COLUMN, type CaseContent } from '@caderno/core/cases';
import { z } from 'zod';
import { caseIdSchema, conditionIdSchema, dataSetIdSchema, parameterIdSchema, rowIdSchema, stepIdSchema, versionNumberSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import { rowsSchema } from '../rows.ts';
import type { KindSchema, Migration } from './kind.ts';
import { eventIdSchema, stateIdSchema, transitionIdSchema } from './model.ts';
import { attachments, count, defects, head, name, own, priority, text, title, uniqueById, withOwn, withFiles } from './parts.ts';
import { carriedBy, parameterSchema, pinSchema, stepSchema, withAttachments, withNotedAttachments } from './steps.ts';

const columnFilter = z.strictObject({ id: z.union([z.literal(NAME_COLUMN), parameterIdSchema]), text: name });
const rowChoice = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('all') }),
  z.strictObject({ kind: z.literal('chosen'), rows: z.array(rowIdSchema).max(LIMITS.rows) }),
  z.strictObject({ kind: z.literal('filter'), filters: uniqueById(z.array(columnFilter).max(LIMITS.parameters)) }),
]);
const dataUse = z.strictObject({ set: dataSetIdSchema, pinned: pinSchema, columns: uniqueById(z.array(z.strictObject({ id: parameterIdSchema, column: parameterIdSchema })).max(LIMITS.parameters)) });
/** How a case, or a scenario, covers a condition. */
export const caseCoverSchema = z.strictObject({
  ...carriedBy,
  expects: z.array(stepIdSchema).max(LIMITS.steps),
  start: stateIdSchema.nullable(),
  events: uniqueById(z.array(z.strictObject({ id: stepIdSchema, event: eventIdSchema, transition: transitionIdSchema.nullable() })).max(LIMITS.steps)),
});

/** What a version of a case holds. */
export const caseContentSchema: z.ZodType<CaseContent> = z.strictObject({
  title,
  kind: z.enum(CASE_KINDS),
  execution: z.enum(EXECUTIONS),
  objective: text,
  areas: text,
  ideas: text,
  preconditions: text,
  steps: uniqueById(z.array(stepSchema).max(LIMITS.steps)),
  parameters: uniqueById(z.array(parameterSchema).max(LIMITS.parameters)),
  rows: uniqueById(rowsSchema),
  data: dataUse.nullable(),
  runs: rowChoice,
  covers: uniqueById(z.array(caseCoverSchema).max(LIMITS.links)),
  module: name,
  priority,
  tags: z.array(name).max(LIMITS.tags),
  estimate: z.number().min(0).max(LIMITS.minutes).nullable(),
  owner: name,
  defects,
  dependsOn: uniqueById(z.array(z.strictObject({ id: caseIdSchema })).max(LIMITS.links)),
  origin: z.strictObject({ id: caseIdSchema, version: versionNumberSchema }).nullable(),
  attachments,
  own,
});

/** What lists show of a case. Counts are of its own rows and steps; what others lend it is coverage’s to count. */
export const caseSummarySchema = z.object({
  kind: z.literal('case'),
  id: caseIdSchema,
  ...head,
  priority: z.string(),
  tags: z.array(z.string()),
  owner: z.string(),
  caseKind: z.enum(CASE_KINDS),
  execution: z.enum(EXECUTIONS),
  steps: count,
  /** Steps that expect something. */
  expected: count,
  /** Of its own. */
  rows: count,
  dataSet: dataSetIdSchema.nullable(),
  estimate: z.number().nullable(),
  covers: z.array(conditionIdSchema),
});
/** See {@link caseSummarySchema}. */
export type CaseSummary = z.infer<typeof caseSummarySchema>;

const withoutEvents: Migration = (stored) => ({ ...stored, covers: z.array(z.looseObject({})).parse(stored.covers).map((cover) => ({ ...cover, start: null, events: [] })) });

const withRowNotes: Migration = (stored) => ({
  ...stored,
  rows: z.array(z.looseObject({})).parse(stored.rows).map((row) => ({ ...row, description: '', mark: null, aside: false })),
  data: null,
  runs: { kind: 'all' },
});

const NO_CHARTER = { kind: 'procedure', execution: 'byHand', areas: '', ideas: '', dependsOn: [], origin: null };

export const caseSchemas: KindSchema<CaseContent, CaseSummary> = {
  content: caseContentSchema,
  summary: caseSummarySchema,
  migrations: [(stored) => ({ ...stored, defects: [] }), withoutEvents, (stored) => ({ ...withAttachments(stored), ...NO_CHARTER }), withRowNotes, withOwn, (stored) => withFiles(withNotedAttachments(stored))],
};
