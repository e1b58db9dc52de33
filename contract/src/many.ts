import { ARTEFACT_KINDS, ARTEFACT_STATES } from '@caderno/core/artefacts';
import { REQUIREMENT_TYPES, RISKS } from '@caderno/core/basis';
import { CASE_KINDS, CLONED_PARTS, EXECUTIONS } from '@caderno/core/cases';
import { z } from 'zod';
import { changeSchema } from './artefacts.ts';
import { artefactIdSchema, caseIdSchema, conditionIdSchema, dataSetIdSchema, ownFieldIdSchema, phraseKeySchema, requirementIdSchema, sharedIdSchema, versionNumberSchema } from './ids.ts';
import { ownValueSchema, pinSchema } from './kinds/index.ts';
import { LIMITS } from './limits.ts';
import { searchSchema, textPartsSchema, withoutSchema } from './replacing.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

/** Which artefacts: by their ids, all of a kind that a query finds, or all that are not withdrawn. */
export const chosenSchema = z.union([z.strictObject({ ids: z.array(artefactIdSchema).min(1).max(LIMITS.many) }), z.strictObject({ kind: z.enum(ARTEFACT_KINDS), query: textUpTo(LIMITS.title) }), z.strictObject({ everything: z.literal(true) })]);
/** See {@link chosenSchema}. */
export type Chosen = z.infer<typeof chosenSchema>;

/** Which artefacts' texts are looked through, for what, and how many places were told already. */
export const findPlacesSchema = z.strictObject({ of: chosenSchema, search: searchSchema, parts: textPartsSchema, skip: z.int().min(0).max(LIMITS.number) });

const editSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('title'), title: trimmedTextUpTo(LIMITS.title) }),
  z.strictObject({ kind: z.literal('module'), module: textUpTo(LIMITS.name) }),
  z.strictObject({ kind: z.literal('priority'), priority: trimmedTextUpTo(60) }),
  z.strictObject({ kind: z.literal('owner'), owner: textUpTo(LIMITS.name) }),
  z.strictObject({ kind: z.literal('tag'), tag: trimmedTextUpTo(LIMITS.name), belongs: z.boolean() }),
  z.strictObject({ kind: z.literal('tags'), from: z.array(trimmedTextUpTo(LIMITS.name)).min(1).max(LIMITS.tags).readonly(), to: trimmedTextUpTo(LIMITS.name).nullable() }),
  z.strictObject({ kind: z.literal('minutes'), minutes: z.number().min(0).max(LIMITS.minutes).nullable() }),
  z.strictObject({ kind: z.literal('caseKind'), caseKind: z.enum(CASE_KINDS) }),
  z.strictObject({ kind: z.literal('execution'), execution: z.enum(EXECUTIONS) }),
  z.strictObject({ kind: z.literal('covers'), condition: conditionIdSchema, seenVersion: versionNumberSchema, belongs: z.boolean() }),
  z.strictObject({ kind: z.literal('risk'), risk: z.enum(RISKS) }),
  z.strictObject({ kind: z.literal('rating'), part: z.enum(['likelihood', 'impact']), step: z.int().min(0).max(20) }),
  z.strictObject({ kind: z.literal('type'), type: z.enum(REQUIREMENT_TYPES) }),
  z.strictObject({ kind: z.literal('derivedFrom'), requirement: requirementIdSchema, seenVersion: versionNumberSchema, insteadOf: requirementIdSchema.nullable() }),
  z.strictObject({ kind: z.literal('depth'), depth: textUpTo(LIMITS.name), belongs: z.boolean() }),
  z.strictObject({ kind: z.literal('writtenFor'), requirement: requirementIdSchema, seenVersion: versionNumberSchema, belongs: z.boolean(), tags: textUpTo(LIMITS.title) }),
  z.strictObject({ kind: z.literal('wording'), from: z.array(phraseKeySchema).min(1).max(200).readonly(), to: phraseKeySchema }),
  z.strictObject({ kind: z.literal('own'), field: ownFieldIdSchema, value: ownValueSchema.nullable() }),
  z.strictObject({ kind: z.literal('pins'), of: z.union([sharedIdSchema, caseIdSchema, dataSetIdSchema]), version: versionNumberSchema }),
  z.strictObject({ kind: z.literal('uses'), of: z.union([sharedIdSchema, caseIdSchema, dataSetIdSchema]), pinned: pinSchema }),
]);

const replacementSchema = z.strictObject({ from: textUpTo(LIMITS.name), to: textUpTo(LIMITS.name) });

/** What is done with each of them. `clone` makes a case of each, once for every list of replacements; `copyTo` makes a condition of each for a requirement as it is in a version. */
const doneSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('edit'), edit: editSchema }),
  z.strictObject({ kind: z.literal('state'), state: z.enum(ARTEFACT_STATES) }),
  z.strictObject({ kind: z.literal('copyTo'), requirement: requirementIdSchema, seenVersion: versionNumberSchema }),
  /** `asOf`: the revision that was looked through; what changed since is left as it is. */
  z.strictObject({ kind: z.literal('replace'), search: searchSchema, parts: textPartsSchema, without: withoutSchema, asOf: z.int().min(0).max(LIMITS.number) }),
  z.strictObject({ kind: z.literal('clone'), parts: z.array(z.enum(CLONED_PARTS)), sets: z.array(z.array(replacementSchema).max(12)).min(1).max(50) }),
]);

/** The same done with many artefacts by one command, on what they are when it is carried out. `detail` says in words what for. */
export const changeManySchema = z.strictObject({ of: chosenSchema, done: doneSchema, detail: textUpTo(LIMITS.title) });
/** See {@link changeManySchema}. */
export type ChangeMany = z.infer<typeof changeManySchema>;

/** Why one of them was left as it is. */
export const LEFT_REASONS = ['absent', 'broken', 'otherKind', 'changedMeanwhile', 'untitled', 'tooLong', 'kept'] as const;
/** Not there, not readable, of a kind that has no such thing, changed since it was looked at, left without a title or with a text that is too long, or in a module that others keep. */
export type LeftReason = (typeof LEFT_REASONS)[number];

/** `changed` counts those that are another now; what could not be done is named one by one, the rest is done. `change` is null when nothing was to be done. */
export const changedManySchema = z.object({
  change: changeSchema.nullable(),
  changed: z.int(),
  made: z.array(artefactIdSchema),
  left: z.array(z.object({ id: artefactIdSchema, reason: z.enum(LEFT_REASONS) })),
});
/** See {@link changedManySchema}. */
export type ChangedMany = z.infer<typeof changedManySchema>;
