import { ARTEFACT_STATES } from '@caderno/core/artefacts';
import { RISKS } from '@caderno/core/basis';
import { EXECUTIONS } from '@caderno/core/cases';
import { TECHNIQUES } from '@caderno/core/conditions';
import type { Additions } from '@caderno/core/coverage';
import type { ShowingMembers, SuiteFigures, TouchedMember } from '@caderno/core/suites';
import { z } from 'zod';
import { baselineNumberSchema } from './baselines.ts';
import { requirementCoverageSchema, standingCountsSchema } from './coverage.ts';
import { artefactIdSchema, caseIdSchema, conditionIdSchema, coveringIdSchema, entryIdSchema, requirementIdSchema, suiteIdSchema } from './ids.ts';
import { configurationsSchema, pinSchema, runsInSchema, suiteEntriesSchema } from './kinds/index.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { textUpTo } from './text.ts';

const count = z.int().min(0);

/** A suite as it is written at the moment, saved or not. */
export const writtenSuiteSchema = z.strictObject({ entries: suiteEntriesSchema, configurations: configurationsSchema });

const memberFacts = z.object({ state: z.enum(ARTEFACT_STATES), version: z.int(), head: z.int(), execution: z.enum(EXECUTIONS), instances: count, minutes: z.number().nullable() });
const memberFigures = z.object({ of: coveringIdSchema, pinned: pinSchema, entry: entryIdSchema.nullable(), part: entryIdSchema.nullable(), runsIn: runsInSchema, facts: memberFacts.nullable(), times: count, shows: count, alone: count });
const effort = { cases: count, scenarios: count, instances: count, byHand: count, minutes: z.number(), withoutMinutes: count };

/** What a suite comes to: its members in order with what each of them shows, and what they show together. */
export const suiteFiguresSchema: z.ZodType<SuiteFigures> = z.object({
  members: z.array(memberFigures),
  ...effort,
  broken: z.array(z.object({ of: caseIdSchema, on: caseIdSchema, why: z.enum(['absent', 'later']) })),
  counts: standingCountsSchema,
  weighted: standingCountsSchema,
  byTechnique: z.record(z.enum(TECHNIQUES), standingCountsSchema),
  byRisk: z.record(z.enum(RISKS), z.object({ items: count, shown: count, elsewhere: count })),
  requirements: z.array(requirementCoverageSchema),
});

/** Members that count, with the items each of them shows, and what they depend on: what a smaller suite, its best order and what fits in some minutes are worked out from. */
const showingMembersShape = z.object({
  weights: z.array(count),
  members: z.array(z.object({ of: coveringIdSchema, instances: count, minutes: z.number().nullable(), times: count, kept: z.boolean(), part: entryIdSchema.nullable(), setUp: z.string().nullable(), items: z.array(count) })),
  needs: z.array(z.object({ of: caseIdSchema, on: caseIdSchema })),
});
/** What a smaller suite is worked out from. */
export const showingMembersSchema: z.ZodType<ShowingMembers> = showingMembersShape;

/** Which items the smallest suite is to show; what is not said does not narrow. */
export const askedItemsSchema = z.strictObject({ risk: z.enum(RISKS).optional(), depth: textUpTo(LIMITS.name).optional(), requirements: z.array(requirementIdSchema).max(LIMITS.leftOut).refine(isEachOnce, 'must not repeat').optional() });

/** Whatever shows some of them, with what that depends on; `shownByNothing`: how many of them nothing shows. */
export const candidatesSchema: z.ZodType<ShowingMembers & { readonly shownByNothing: number }> = showingMembersShape.extend({ shownByNothing: count });

/** Which of the items that a suite misses something is sought for; what is not said does not narrow. */
export const askAdditionsSchema = writtenSuiteSchema.extend({ risk: z.enum(RISKS).optional(), requirement: requirementIdSchema.optional(), condition: conditionIdSchema.optional() });

/** What would show what a suite misses, the one that adds most first. */
export const additionsSchema: z.ZodType<Additions> = z.object({ proposed: z.array(z.object({ id: coveringIdSchema, adds: count })), shownByNothing: count });

/** The suites that a case, or scenarios of a feature, are in: which of its members, meant as which version, and whether a rule found them. */
export const suitesOfSchema = z.array(z.object({ id: suiteIdSchema, title: z.string(), members: z.array(z.object({ of: coveringIdSchema, pinned: pinSchema, byRule: z.boolean() })) }));
/** See {@link suitesOfSchema}. */
export type SuiteOf = z.infer<typeof suitesOfSchema>[number];

/** What each suite of a project comes to, and who is in it. */
export const suiteLinesSchema = z.array(z.object({ id: suiteIdSchema, ...effort, counts: standingCountsSchema, members: z.array(coveringIdSchema) }));
/** See {@link suiteLinesSchema}. */
export type SuiteLine = z.infer<typeof suiteLinesSchema>[number];

/** A change whose cases are sought: from a baseline to another or to now, or of chosen artefacts. */
export const askTouchedSchema = z.union([z.strictObject({ from: baselineNumberSchema, to: baselineNumberSchema.nullable() }), z.strictObject({ ids: z.array(artefactIdSchema).min(1).max(LIMITS.many) })]);
/** See {@link askTouchedSchema}. */
export type AskTouched = z.infer<typeof askTouchedSchema>;

/** The cases and scenarios that a change touches, by numbers, each with what of the change does. `changed`: of how many artefacts it is; `constants`: names that stand for another value. */
export const touchedSchema: z.ZodType<{ readonly changed: number; readonly constants: readonly string[]; readonly touched: readonly TouchedMember[] }> = z.object({ changed: count, constants: z.array(z.string()), touched: z.array(z.object({ of: coveringIdSchema, through: z.array(artefactIdSchema), constants: z.array(z.string()), rows: z.array(z.string()).nullable() })) });
