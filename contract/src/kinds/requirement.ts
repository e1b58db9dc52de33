import { LONGEST_SCALE, REQUIREMENT_TYPES, RISKS, WORDING_RULES, type RequirementContent } from '@caderno/core/basis';
import { z } from 'zod';
import { innerIdSchema, requirementIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import { textUpTo } from '../text.ts';
import type { KindSchema } from './kind.ts';
import { attachments, head, line, moment, name, own, priority, text, title, uniqueById, withOwn, withFiles } from './parts.ts';

const step0 = z.int().min(0).max(LONGEST_SCALE - 1);
const dismissal = z.strictObject({ id: innerIdSchema, rule: z.enum(WORDING_RULES), words: title, sentence: line, reason: title, by: name, at: moment });

/** What a version of a requirement holds. */
export const requirementContentSchema: z.ZodType<RequirementContent> = z.strictObject({
  title,
  text,
  type: z.enum(REQUIREMENT_TYPES),
  module: name,
  risk: z.enum(RISKS),
  rating: z.strictObject({ likelihood: step0, impact: step0 }).nullable(),
  priority,
  source: title,
  origin: z.strictObject({ source: name, id: title, link: textUpTo(LIMITS.address) }).nullable(),
  attributes: uniqueById(z.array(z.strictObject({ id: name, value: text })).max(LIMITS.attributes)),
  relations: uniqueById(z.array(z.strictObject({ id: title, kind: name, to: requirementIdSchema })).max(LIMITS.links)),
  dismissals: uniqueById(z.array(dismissal).max(LIMITS.dismissals)),
  attachments,
  own,
});

/** What lists show of a requirement. `position` orders it among those below the same parent. */
export const requirementSummarySchema = z.object({
  kind: z.literal('requirement'),
  id: requirementIdSchema,
  ...head,
  parent: requirementIdSchema.nullable(),
  position: z.number(),
  type: z.enum(REQUIREMENT_TYPES),
  /** The id its source gives it; empty: it was written here. */
  sourceId: z.string(),
  risk: z.enum(RISKS),
  priority: z.string(),
});
/** See {@link requirementSummarySchema}. */
export type RequirementSummary = z.infer<typeof requirementSummarySchema>;

export const requirementSchemas: KindSchema<RequirementContent, RequirementSummary> = {
  content: requirementContentSchema,
  summary: requirementSummarySchema,
  migrations: [(stored) => ({ ...stored, rating: null, origin: null, attributes: [], relations: [], dismissals: [] }), withOwn, withFiles],
};
