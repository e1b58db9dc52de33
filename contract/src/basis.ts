import { FEWEST_PARTS, MOST_PARTS, WORDING_RULES } from '@caderno/core/basis';
import { z } from 'zod';
import { artefactIdSchema, conditionIdSchema, questionIdSchema, requirementIdSchema, versionNumberSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

const part = z.strictObject({ title: trimmedTextUpTo(LIMITS.title), text: textUpTo(LIMITS.text) });
const place = z.int().min(0).max(MOST_PARTS - 1);

/** Splitting a requirement: the parts, and by their place who goes where. The first part stays the requirement. */
export const splitSchema = z.strictObject({
  parts: z.array(part).min(FEWEST_PARTS).max(MOST_PARTS),
  conditions: z.record(conditionIdSchema, place),
  questions: z.record(questionIdSchema, place),
  children: z.record(requirementIdSchema, place),
});
/** How a requirement is taken apart. */
export type Split = z.infer<typeof splitSchema>;

/** Merging others into a requirement; they are withdrawn and point to it. */
export const mergeSchema = part.extend({ absorbed: z.array(requirementIdSchema).min(1).max(MOST_PARTS).refine(isEachOnce, 'must name each requirement once') });

/** A trace link whose target changed in meaning since the person had it in view. */
export const suspectLinkSchema = z.object({
  from: artefactIdSchema,
  fromTitle: z.string(),
  to: artefactIdSchema,
  toTitle: z.string(),
  seen: z.int(),
  now: z.int(),
});
/** A link that saw an earlier meaning of what it leads to, with both texts. */
export type SuspectLink = z.infer<typeof suspectLinkSchema>;
/** Links that somebody looked at and found still right. */
export const settleSchema = z.strictObject({ links: z.array(z.strictObject({ from: artefactIdSchema, to: artefactIdSchema, now: versionNumberSchema })).min(1).max(5_000).refine((links) => isEachOnce(links.map((l) => `${l.from} ${l.to}`)), 'must name each link once') });

/** The texts of the basis, for what looks at all of them at once. */
export const basisTextSchema = z.object({
  id: requirementIdSchema,
  title: z.string(),
  text: z.string(),
  dismissals: z.array(z.object({ rule: z.enum(WORDING_RULES), words: z.string(), sentence: z.string() })),
});
/** The text of one requirement. */
export type BasisText = z.infer<typeof basisTextSchema>;
/** The texts of the whole basis, in the order of the outline. */
export const basisTextsSchema = z.array(basisTextSchema);


/** A question as the agenda of a meeting prints it. */
export const agendaQuerySchema = z.object({ format: z.enum(['md', 'csv']), status: z.enum(['open', 'all']).default('open') });
