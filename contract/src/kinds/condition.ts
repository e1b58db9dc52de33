import { RISKS } from '@caderno/core/basis';
import { MODEL_KINDS, POLARITIES, type ConditionContent } from '@caderno/core/conditions';
import { z } from 'zod';
import { conditionIdSchema, itemKeySchema, requirementIdSchema, versionNumberSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import type { KindSchema, Migration } from './kind.ts';
import { modelSchema } from './model.ts';
import { attachments, defects, head, moment, name, observations, own, text, title, uniqueById, withOwn, withFiles } from './parts.ts';

const anchor = z.strictObject({ quote: text, start: z.int().min(0).max(LIMITS.text), before: name, after: name });

/** What a list shows of a condition. */
const conditionHead = {
  title,
  polarity: z.enum(POLARITIES),
  requirements: uniqueById(z.array(z.strictObject({ id: requirementIdSchema, seenVersion: versionNumberSchema, anchor: anchor.nullable() })).max(LIMITS.links)),
  depths: z.array(name).max(LIMITS.depths),
  under: conditionIdSchema.nullable(),
  order: z.int().min(0).max(1_000_000),
};

/** A condition without its model. */
export const conditionHeadSchema: z.ZodType<Pick<ConditionContent, keyof typeof conditionHead>> = z.object(conditionHead);

/** What a version of a condition holds: where it hangs, and its model. */
export const conditionContentSchema: z.ZodType<ConditionContent> = z.strictObject({
  ...conditionHead,
  risk: z.enum(RISKS).nullable(),
  model: modelSchema,
  leftOut: uniqueById(z.array(z.strictObject({ id: itemKeySchema, reason: title, by: name, at: moment })).max(LIMITS.leftOut)),
  observations,
  defects,
  attachments,
  own,
});

/** What lists show of a condition. */
export const conditionSummarySchema = z.object({
  kind: z.literal('condition'),
  id: conditionIdSchema,
  ...head,
  model: z.enum(MODEL_KINDS),
  polarity: z.enum(POLARITIES),
  /** Its own; null: that of its requirements. */
  risk: z.enum(RISKS).nullable(),
  requirements: z.array(requirementIdSchema),
  depths: z.array(z.string()),
});
/** See {@link conditionSummarySchema}. */
export type ConditionSummary = z.infer<typeof conditionSummarySchema>;

const withPatterns: Migration = (stored) => {
  const model = z.looseObject({ fields: z.array(z.looseObject({})).optional() }).parse(stored.model);
  return model.fields === undefined ? stored : { ...stored, model: { ...model, fields: model.fields.map((field) => ({ ...field, patterns: [] })) } };
};

export const conditionSchemas: KindSchema<ConditionContent, ConditionSummary> = {
  content: conditionContentSchema,
  summary: conditionSummarySchema,
  migrations: [(stored) => ({ ...stored, observations: [], defects: [] }), (stored) => ({ ...withPatterns(stored), depths: [], under: null, order: 0 }), withOwn, withFiles],
};
