import { ARTEFACT_KINDS, ARTEFACT_STATES } from '@caderno/core/artefacts';
import { baselineNumber, type BaselineNumber } from '@caderno/core/baselines';
import { z } from 'zod';
import { standingCountsSchema } from './coverage.ts';
import { artefactIdSchema, requirementIdSchema, suiteIdSchema, versionNumberSchema } from './ids.ts';
import { kindAndContentSchema } from './kinds/index.ts';
import { LIMITS } from './limits.ts';
import { changedManySchema } from './many.ts';
import { isEachOnce } from './once.ts';
import { SETTINGS_PARTS } from './settings.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

/** As it stands in a path. */
export const baselineNumberSchema: z.ZodType<BaselineNumber> = z.coerce.number().pipe(versionNumberSchema).transform(baselineNumber);

/** What is frozen: everything, a module, what hangs on a requirement, a suite with what its members show, or some artefacts; with all that they use. */
const frozenPartSchema = z.union([
  z.strictObject({ everything: z.literal(true) }),
  z.strictObject({ module: trimmedTextUpTo(LIMITS.name) }),
  z.strictObject({ requirement: requirementIdSchema }),
  z.strictObject({ suite: suiteIdSchema }),
  z.strictObject({ ids: z.array(artefactIdSchema).min(1).max(LIMITS.many).refine(isEachOnce, 'must not repeat') }),
]);

/** A baseline to be taken. */
export const newBaselineSchema = z.strictObject({ name: trimmedTextUpTo(LIMITS.title), note: textUpTo(LIMITS.note), of: frozenPartSchema });
/** See {@link newBaselineSchema}. */
export type NewBaseline = z.infer<typeof newBaselineSchema>;

const number = z.number().transform(baselineNumber);
/** The coverage of that moment; absent where it could not be told. */
const frozenCoverageSchema = z.object({ counts: standingCountsSchema, cases: z.int(), instances: z.int(), minutes: z.number(), unanalysed: z.int() });
/** See {@link frozenCoverageSchema}. */
export type FrozenCoverage = z.infer<typeof frozenCoverageSchema>;

/** A baseline in the list. `part`: what it is of in words, empty: everything; `seal`: SHA-256 over what it holds; `revision`: of the project, at which it was taken. */
export const baselineSchema = z.object({
  number,
  name: z.string(),
  note: z.string(),
  by: z.string(),
  at: z.iso.datetime(),
  part: z.string(),
  revision: z.int(),
  seal: z.string(),
  counts: z.partialRecord(z.enum(ARTEFACT_KINDS), z.int()),
  agreed: z.int(),
  coverage: frozenCoverageSchema.nullable(),
});
/** See {@link baselineSchema}. */
export type Baseline = z.infer<typeof baselineSchema>;

const frozen = z.object({ id: artefactIdSchema, version: z.int(), meaningSince: z.int(), state: z.enum(ARTEFACT_STATES), title: z.string(), module: z.string() });
/** What a baseline holds, in working order. */
export const frozenItemsSchema = z.array(frozen);

/** An artefact as a baseline holds it. */
export const frozenContentSchema = z.intersection(kindAndContentSchema, z.object({ version: z.int() }));

/** Changes told at once; `total` counts all. */
export const MOST_FROZEN_CHANGES = 5_000;
const change = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('added'), to: frozen }),
  z.object({ kind: z.literal('changed'), from: frozen, to: frozen, meant: z.boolean() }),
  z.object({ kind: z.literal('state'), from: frozen, to: frozen }),
  z.object({ kind: z.literal('gone'), from: frozen }),
]);
const reached = z.object({ id: artefactIdSchema, title: z.string(), through: z.array(artefactIdSchema).readonly() });
const changedSettings = z.object({ parts: z.array(z.enum(SETTINGS_PARTS)).readonly(), constants: z.array(z.string()).readonly() });
/** What changed from a baseline to another, or to now (`to` null), of the settings too, and which constants stand for another value; `reached`: the cases that are agreed now and use what changed, against now only. */
export const frozenChangesSchema = z.object({ from: number, to: number.nullable(), changes: z.array(change), total: z.int(), reached: z.array(reached), settings: changedSettings });
/** What a comparison is written as. */
export const comparisonQuerySchema = z.object({ to: baselineNumberSchema.optional(), format: z.enum(['xlsx', 'md']) });
/** See {@link frozenChangesSchema}. */
export type FrozenChanges = z.infer<typeof frozenChangesSchema>;

/** Whether what a baseline holds is what it was sealed with: the versions whose contents are others, and whether the seal fits. */
export const sealCheckSchema = z.object({ seal: z.string(), fits: z.boolean(), altered: z.array(artefactIdSchema) });

/** What is brought back to how a baseline holds it: some artefacts, or all that it holds. `withdraw`: what was added since is withdrawn. */
export const bringBackSchema = z.strictObject({
  of: z.union([z.strictObject({ ids: z.array(artefactIdSchema).min(1).max(LIMITS.many).refine(isEachOnce, 'must not repeat') }), z.strictObject({ everything: z.literal(true), withdraw: z.boolean() })]),
});
/** See {@link bringBackSchema}. */
export type BringBack = z.infer<typeof bringBackSchema>;

/** Artefacts of a plan told by name at once; the numbers count all. */
export const MOST_BROUGHT_BACK_TOLD = 200;

/** What becomes of an artefact that is brought back: its content of then as a new version, there again, or withdrawn. */
export const BROUGHT_BACK = ['content', 'return', 'withdraw'] as const;
/** See {@link BROUGHT_BACK}. */
export type BroughtBack = (typeof BROUGHT_BACK)[number];

/**
 * What bringing back would change. `alongWith`: what uses it and could not stand without it; `agreed`: those that are
 * agreed now and would be drafts; `drafts`: those that somebody is writing in; `users`: others that use what gets another content.
 */
export const bringBackPlanSchema = z.object({
  lines: z.array(z.object({ id: artefactIdSchema, title: z.string(), does: z.enum(BROUGHT_BACK), alongWith: artefactIdSchema.nullable() })),
  counts: z.record(z.enum(BROUGHT_BACK), z.int()),
  agreed: z.int(),
  drafts: z.int(),
  users: z.array(artefactIdSchema),
});
/** See {@link bringBackPlanSchema}. */
export type BringBackPlan = z.infer<typeof bringBackPlanSchema>;

/** What was brought back; what could not be read is named. `change` is null when all was so already. */
export const broughtBackSchema = changedManySchema.omit({ made: true });
