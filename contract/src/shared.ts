import { ARTEFACT_STATES } from '@caderno/core/artefacts';
import type { FoundRun, Used } from '@caderno/core/shared';
import { z } from 'zod';
import { argumentsSchema, caseContentSchema, plainStepSchema, sharedContentSchema, stepSchema } from './content.ts';
import { caseIdSchema, sharedIdSchema, stepIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';

const reusableId = z.union([sharedIdSchema, caseIdSchema]);

/** What is asked for of the library: `S-4` for the latest version, `S-4@2` for the second, parted by commas. */
export const libraryQuerySchema = z.object({ uses: z.string().max(20_000).regex(/^(?:[SC]-[1-9]\d{0,8}(?:@[1-9]\d{0,8})?(?:,|$))*$/) });

export const usedSchema: z.ZodType<Used> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('shared'), id: sharedIdSchema, version: z.int(), withdrawn: z.boolean(), content: sharedContentSchema }),
  z.object({ kind: z.literal('case'), id: caseIdSchema, version: z.int(), withdrawn: z.boolean(), content: caseContentSchema }),
]);

/** All that the uses asked for lead to, directly or through others, by the key under which a use finds it. */
export const librarySchema = z.array(z.object({ key: z.string(), used: usedSchema }));

const connected = z.object({
  id: reusableId,
  title: z.string(),
  state: z.enum(ARTEFACT_STATES),
  agreedVersion: z.int().nullable(),
  distance: z.int(),
  follows: z.boolean(),
  pinned: z.int().nullable(),
  /** Rows of its own, at least one; null for shared steps. */
  instances: z.int().nullable(),
});
export type ConnectedArtefact = z.infer<typeof connected>;

/** What uses an artefact and what it uses, the nearest first. */
export const reuseSchema = z.object({ users: z.array(connected), uses: z.array(connected) });
export type Reuse = z.infer<typeof reuseSchema>;

/** Where the same run of steps stands, or nearly the same: asked for by the steps, `except` the case they are of. */
export const runsQuerySchema = z.strictObject({ steps: z.array(stepSchema).min(1).max(200), except: caseIdSchema.nullable() });
export const foundRunsSchema: z.ZodType<readonly FoundRun[]> = z.array(
  z.object({ id: caseIdSchema, steps: z.array(stepIdSchema), kind: z.enum(['same', 'near']), arguments: argumentsSchema, differing: z.array(z.object({ place: z.int(), step: plainStepSchema })) }),
);

/**
 * A run of steps taken out into new shared steps. Each user is an artefact with the run gone; `at` are the places where
 * the new shared steps are used instead, ascending, counted with the uses before them.
 */
export const takeOutSchema = z.strictObject({
  shared: sharedContentSchema,
  users: z
    .array(
      z.intersection(
        z.discriminatedUnion('kind', [z.object({ kind: z.literal('case'), id: caseIdSchema, content: caseContentSchema }), z.object({ kind: z.literal('shared'), id: sharedIdSchema, content: sharedContentSchema })]),
        z.object({ version: z.int().min(1), uses: z.array(z.strictObject({ at: z.int().min(0), step: stepIdSchema, arguments: argumentsSchema })).max(LIMITS.steps) }),
      ),
    )
    .min(1)
    .max(LIMITS.written),
});
export type TakeOut = z.infer<typeof takeOutSchema>;
