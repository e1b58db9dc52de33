import { QUESTION_STATUSES, type QuestionContent } from '@caderno/core/basis';
import { z } from 'zod';
import { conditionIdSchema, itemKeySchema, questionIdSchema, requirementIdSchema, versionNumberSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import type { KindSchema } from './kind.ts';
import { attachments, head, line, moment, name, observations, own, text, title, uniqueById, withOwn, withFiles } from './parts.ts';

const questionSubject = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('requirement'), id: requirementIdSchema, words: line, holds: z.boolean() }),
  z.strictObject({ kind: z.literal('condition'), id: conditionIdSchema, items: z.array(itemKeySchema).max(LIMITS.leftOut), holds: z.boolean() }),
]);

/** What a version of a question holds. */
export const questionContentSchema: z.ZodType<QuestionContent> = z.strictObject({
  title,
  text,
  asked: name,
  about: uniqueById(z.array(questionSubject).max(LIMITS.links)),
  status: z.enum(QUESTION_STATUSES),
  answer: text,
  answeredBy: name,
  answeredAt: moment.or(z.literal('')),
  settledIn: uniqueById(z.array(z.strictObject({ id: requirementIdSchema, version: versionNumberSchema })).max(LIMITS.links)),
  observations,
  attachments,
  own,
});

/** What lists show of a question. `asked` is whom; `answeredAt` is empty while it is open. */
export const questionSummarySchema = z.object({
  kind: z.literal('question'),
  id: questionIdSchema,
  ...head,
  status: z.enum(QUESTION_STATUSES),
  asked: z.string(),
  about: z.array(z.union([requirementIdSchema, conditionIdSchema])),
  answeredAt: z.string(),
});
/** See {@link questionSummarySchema}. */
export type QuestionSummary = z.infer<typeof questionSummarySchema>;

export const questionSchemas: KindSchema<QuestionContent, QuestionSummary> = { content: questionContentSchema, summary: questionSummarySchema, migrations: [withOwn, withFiles] };
