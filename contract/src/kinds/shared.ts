import type { SharedContent } from '@caderno/core/shared';
import { z } from 'zod';
import { innerIdSchema, parameterIdSchema, phraseKeySchema, sharedIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import type { KindSchema, Migration } from './kind.ts';
import { count, head, line, name, own, title, uniqueById, withOwn } from './parts.ts';
import { parameterSchema, stepSchema, withAttachments, withNotedAttachments } from './steps.ts';

const detailedPhrase = z.strictObject({ id: innerIdSchema, phrase: phraseKeySchema, values: z.array(parameterIdSchema.nullable()).max(LIMITS.parameters) });

/** What a version of shared steps holds. */
export const sharedContentSchema: z.ZodType<SharedContent> = z.strictObject({
  title,
  purpose: line,
  steps: uniqueById(z.array(stepSchema).max(LIMITS.steps)),
  parameters: uniqueById(z.array(parameterSchema).max(LIMITS.parameters)),
  phrases: uniqueById(z.array(detailedPhrase).max(LIMITS.phrasesDetailed)),
  module: name,
  tags: z.array(name).max(LIMITS.tags),
  own,
});

/** The phrases whose detail shared steps are, with the names of the parameters that take their values. */
export const phrasesDetailedSchema = z.array(z.object({ phrase: z.string(), takes: z.array(z.string().nullable()) }));

/** What lists show of shared steps. */
export const sharedSummarySchema = z.object({ kind: z.literal('shared'), id: sharedIdSchema, ...head, tags: z.array(z.string()), steps: count, parameters: z.array(z.string()), phrases: phrasesDetailedSchema });
/** See {@link sharedSummarySchema}. */
export type SharedSummary = z.infer<typeof sharedSummarySchema>;

/** Shared steps may be the detail of phrases since schema 5. */
const withPhrases: Migration = (stored) => ({ ...stored, phrases: [] });

export const sharedSchemas: KindSchema<SharedContent, SharedSummary> = { content: sharedContentSchema, summary: sharedSummarySchema, migrations: [withAttachments, withOwn, withNotedAttachments, withPhrases] };
