import { ARTEFACT_STATES } from '@caderno/core/artefacts';
import type { FoundRun, RenameHindrance, Used } from '@caderno/core/shared';
import { z } from 'zod';
import { changeSchema } from './artefacts.ts';
import { argumentsSchema, caseContentSchema, dataSetContentSchema, pinSchema, plainStepSchema, sharedContentSchema, stepSchema } from './kinds/index.ts';
import { caseIdSchema, dataSetIdSchema, sharedIdSchema, stepIdSchema, versionNumberSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { textUpTo } from './text.ts';

const stepsOwnerId = z.union([sharedIdSchema, caseIdSchema]);
const reusableId = z.union([sharedIdSchema, caseIdSchema, dataSetIdSchema]);

/** What is asked for of the library: `S-4` for the latest version, `S-4@2` for the second, parted by commas. */
export const libraryQuerySchema = z.object({ uses: z.string().max(20_000).regex(/^(?:[SCD]-[1-9]\d{0,8}(?:@(?:[1-9]\d{0,8}|agreed))?(?:,|$))*$/) });

/** What a use leads to: shared steps, a case or a data set, in one version. */
export const usedSchema: z.ZodType<Used> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('shared'), id: sharedIdSchema, version: z.int(), withdrawn: z.boolean(), content: sharedContentSchema }),
  z.object({ kind: z.literal('case'), id: caseIdSchema, version: z.int(), withdrawn: z.boolean(), content: caseContentSchema }),
  z.object({ kind: z.literal('dataSet'), id: dataSetIdSchema, version: z.int(), withdrawn: z.boolean(), content: dataSetContentSchema }),
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
  pinned: pinSchema,
  /** Rows of its own, at least one; null for what is not executed itself. */
  instances: z.int().nullable(),
});
/** Something that uses, or is used. */
export type ConnectedArtefact = z.infer<typeof connected>;

/** What uses an artefact and what it uses, the nearest first. */
export const reuseSchema = z.object({ users: z.array(connected), uses: z.array(connected) });
/** What uses an artefact, and what it uses. */
export type Reuse = z.infer<typeof reuseSchema>;

/** Where the same run of steps stands, or nearly the same: asked for by the steps, `except` the case they are of. */
export const runsQuerySchema = z.strictObject({ steps: z.array(stepSchema).min(1).max(200), except: caseIdSchema.nullable() });
/** Places where the same run of steps stands. */
export const foundRunsSchema: z.ZodType<readonly FoundRun[]> = z.array(
  z.object({ id: caseIdSchema, steps: z.array(stepIdSchema), kind: z.enum(['same', 'near']), arguments: argumentsSchema, differing: z.array(z.object({ place: z.int(), step: plainStepSchema })) }),
);

/** An artefact with steps as it is to become, and the version that is changed. */
const writtenIn = z.intersection(
  z.discriminatedUnion('kind', [z.object({ kind: z.literal('case'), id: caseIdSchema, content: caseContentSchema }), z.object({ kind: z.literal('shared'), id: sharedIdSchema, content: sharedContentSchema })]),
  z.object({ version: versionNumberSchema }),
);

/**
 * A run of steps taken out into new shared steps. Each user is an artefact with the run gone; `at` are the places where
 * the new shared steps are used instead, ascending, counted with the uses before them.
 */
export const takeOutSchema = z.strictObject({
  shared: sharedContentSchema,
  users: z
    .array(
      z.intersection(writtenIn, z.object({ uses: z.array(z.strictObject({ at: z.int().min(0).max(LIMITS.steps), step: stepIdSchema, arguments: argumentsSchema })).max(LIMITS.steps) })),
    )
    .min(1)
    .max(LIMITS.written)
    .refine((users) => isEachOnce(users.map((u) => u.id)), 'must name each artefact once'),
});
/** Steps that become shared steps, and where they are to be used. */
export type TakeOut = z.infer<typeof takeOutSchema>;

const hindrance: z.ZodType<RenameHindrance> = z.discriminatedUnion('code', [
  z.object({ code: z.literal('name_invalid'), name: z.string() }),
  z.object({ code: z.literal('name_in_use'), id: stepsOwnerId, name: z.string() }),
  z.object({ code: z.literal('name_of_constant'), name: z.string() }),
  z.object({ code: z.literal('pinned_takes_it'), id: stepsOwnerId, used: stepsOwnerId, version: z.union([z.int(), z.literal('agreed')]) }),
]);

/** A parameter of an artefact renamed everywhere; with `apply` false only what that would change is answered. */
export const renameSchema = z.strictObject({ owner: writtenIn, from: textUpTo(LIMITS.name), to: textUpTo(LIMITS.name), apply: z.boolean() });

/** With hindrances nothing is renamed anywhere. */
export const renamedSchema = z.object({
  change: changeSchema.nullable(),
  renamed: z.array(z.object({ id: stepsOwnerId, title: z.string(), hasIt: z.boolean(), places: z.int() })),
  hindrances: z.array(hindrance),
});
/** What a renaming changes, or what stands in its way. */
export type RenamePlan = z.infer<typeof renamedSchema>;

/** The project's reuse as it is drawn; `leftOut`: how many artefacts are more than can be drawn. */
export const reuseGraphSchema = z.object({
  nodes: z.array(z.object({ id: reusableId, title: z.string(), module: z.string(), state: z.enum(ARTEFACT_STATES) })),
  edges: z.array(z.object({ from: reusableId, to: reusableId, pinned: pinSchema })),
  leftOut: z.int(),
});
/** Who uses whom in the whole project. */
export type ReuseGraph = z.infer<typeof reuseGraphSchema>;

/** Runs and cases nearly alike, as the last search found them; `search`: how far the next one is, null when none is under way. */
export const alikeSchema = z.object({
  search: z.object({ done: z.int(), of: z.int() }).nullable(),
  runs: z.array(z.object({ length: z.int(), places: z.array(z.object({ id: caseIdSchema, steps: z.array(stepIdSchema) })) })),
  cases: z.array(z.object({ first: caseIdSchema, second: caseIdSchema, likeness: z.number() })),
});
