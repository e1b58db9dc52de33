import type { SharedContent } from '@caderno/core/shared';
import { z } from 'zod';
import { sharedIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import type { KindSchema } from './kind.ts';
import { count, head, line, name, own, title, uniqueById, withOwn } from './parts.ts';
import { parameterSchema, stepSchema, withAttachments, withNotedAttachments } from './steps.ts';

/** What a version of shared steps holds. */
export const sharedContentSchema: z.ZodType<SharedContent> = z.strictObject({
  title,
  purpose: line,
  steps: uniqueById(z.array(stepSchema).max(LIMITS.steps)),
  parameters: uniqueById(z.array(parameterSchema).max(LIMITS.parameters)),
  module: name,
  tags: z.array(name).max(LIMITS.tags),
  own,
});

/** What lists show of shared steps. */
export const sharedSummarySchema = z.object({ kind: z.literal('shared'), id: sharedIdSchema, ...head, tags: z.array(z.string()), steps: count, parameters: z.array(z.string()) });
/** See {@link sharedSummarySchema}. */
export type SharedSummary = z.infer<typeof sharedSummarySchema>;

export const sharedSchemas: KindSchema<SharedContent, SharedSummary> = { content: sharedContentSchema, summary: sharedSummarySchema, migrations: [withAttachments, withOwn, withNotedAttachments] };
