import { ARTEFACT_STATES, type ArtefactId, type CoveringId, type SuiteId } from '@caderno/core/artefacts';
import { REQUIREMENT_TYPES, RISKS } from '@caderno/core/basis';
import { ITEM_KINDS, MODEL_KINDS, TECHNIQUES, type CoverageItem } from '@caderno/core/conditions';
import { CELL_SIZE, STANDINGS, type CoverageReport, type Design, type InstanceRef, type ListedItem, type MatrixCells, type RequirementCoverage, type StandingCounts } from '@caderno/core/coverage';
import { z } from 'zod';
import { caseContentSchema, conditionContentSchema, conditionHeadSchema, questionContentSchema } from './kinds/index.ts';
import { constantSchema } from './settings.ts';
import { LIMITS } from './limits.ts';
import { usedSchema } from './shared.ts';
import { textUpTo } from './text.ts';
import { artefactIdSchema, conditionIdSchema, coveringIdSchema, fieldIdSchema, itemKeySchema, questionIdSchema, requirementIdSchema, rowIdSchema, suiteIdSchema } from './ids.ts';

const count = z.int().min(0);
const standing = z.enum(STANDINGS);
/** How many items stand how. */
export const standingCountsSchema: z.ZodType<StandingCounts> = z.object({ leftOut: count, waiting: count, suspect: count, shown: count, linked: count, gap: count });

/** A row of the wall. */
export const requirementCoverageSchema: z.ZodType<RequirementCoverage> = z.object({
  id: requirementIdSchema,
  title: z.string(),
  module: z.string(),
  risk: z.enum(RISKS),
  counts: standingCountsSchema,
  conditions: z.array(z.object({ id: conditionIdSchema, standings: z.array(standing) })),
});

/** With the artefacts that cannot be read: nothing of them is counted, and the numbers say so. */
export const coverageReportSchema: z.ZodType<CoverageReport & { readonly broken: readonly ArtefactId[] }> = z.object({
  counts: standingCountsSchema,
  weighted: standingCountsSchema,
  byTechnique: z.record(z.enum(TECHNIQUES), standingCountsSchema),
  byModule: z.array(z.object({ module: z.string(), counts: standingCountsSchema, requirements: count })),
  requirements: z.array(requirementCoverageSchema),
  unanalysed: z.array(requirementIdSchema),
  cases: count,
  instances: count,
  minutes: z.number(),
  broken: z.array(artefactIdSchema),
});

/** What goes across a matrix. */
export const matrixQuerySchema = z.object({ across: z.enum(['covering', 'suites']) });

/** The cells of a matrix of conditions and cases with scenarios, or suites. Of hundreds of thousands of numbers it is looked once at all, as a schema for each takes longer than drawing them. */
export const matrixCellsSchema: z.ZodType<MatrixCells<CoveringId | SuiteId>> = z
  .object({ conditions: z.array(conditionIdSchema), columns: z.array(z.union([coveringIdSchema, suiteIdSchema])), cells: z.array(z.number()) })
  .refine(({ conditions, columns, cells }) => {
    if (cells.length % CELL_SIZE !== 0 || !cells.every((n) => Number.isSafeInteger(n) && n >= 0)) return false;
    for (let at = 0; at < cells.length; at += CELL_SIZE) if ((cells[at] ?? 0) >= conditions.length || (cells[at + 1] ?? 0) >= columns.length) return false;
    return true;
  }, 'every cell must stand at a condition and a column that are named, with numbers of items');

/** Something that has to be shown. */
export const coverageItemSchema: z.ZodType<CoverageItem> = z.object({
  key: itemKeySchema,
  number: z.int(),
  kind: z.enum(ITEM_KINDS),
  field: fieldIdSchema.nullable(),
  name: z.string(),
  extent: z.string(),
  sample: z.string().nullable(),
  valid: z.boolean(),
  outcome: z.string(),
});

const instanceRef: z.ZodType<InstanceRef> = z.object({ case: coveringIdSchema, row: rowIdSchema.nullable(), rowName: z.string() });

/** A coverage item in a list, with how it stands and whose it is. */
export const listedItemSchema: z.ZodType<ListedItem> = z.object({
  condition: conditionIdSchema,
  conditionTitle: z.string(),
  requirements: z.array(requirementIdSchema),
  weight: z.number(),
  item: coverageItemSchema,
  standing,
  shownBy: z.array(instanceRef),
  instances: count,
  cases: z.array(coveringIdSchema),
});

/** Some of the items that were asked for, and how many there are in all. */
export const itemListSchema = z.object({ items: z.array(listedItemSchema), total: count });
/** See {@link itemListSchema}. */
export type ItemList = z.infer<typeof itemListSchema>;

/** Which items: by standing, technique, module or condition. What is left out does not narrow. */
export const itemQuerySchema = z.object({
  standing: textUpTo(LIMITS.title).optional(),
  requirement: requirementIdSchema.optional(),
  technique: z.enum(TECHNIQUES).optional(),
  module: textUpTo(LIMITS.name).optional(),
  limit: z.coerce.number().int().min(1).max(2000).default(200),
});

const state = z.enum(ARTEFACT_STATES);

/** A part of the project's design that is whole for the conditions in it: their requirements, and every case that covers them. */
export const designSchema: z.ZodType<Design> = z.object({
  requirements: z.array(z.object({ id: requirementIdSchema, title: z.string(), module: z.string(), risk: z.enum(RISKS), state, type: z.enum(REQUIREMENT_TYPES), meaningSince: z.int() })),
  conditions: z.array(z.object({ id: conditionIdSchema, state, version: z.int(), meaningSince: z.int(), content: conditionContentSchema })),
  cases: z.array(z.object({ id: coveringIdSchema, state, version: z.int(), content: caseContentSchema })),
  questions: z.array(z.object({ id: questionIdSchema, state, content: questionContentSchema })),
  library: z.array(z.object({ key: z.string(), used: usedSchema })),
  riskWeights: z.object({ high: z.int(), medium: z.int(), low: z.int() }),
  mostItems: z.int(),
  constants: z.array(constantSchema),
});

/** A condition in a list: without its model, which may be large. */
export const conditionLineSchema = z.object({
  id: conditionIdSchema,
  state,
  version: z.int(),
  technique: z.enum(MODEL_KINDS),
  /** What is stored of it cannot be read. */
  broken: z.boolean(),
  content: conditionHeadSchema,
});
/** A condition in the list of a requirement. */
export type ConditionLine = z.infer<typeof conditionLineSchema>;
