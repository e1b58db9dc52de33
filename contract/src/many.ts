import { ARTEFACT_KINDS, ARTEFACT_STATES, PRIORITIES } from '@caderno/core/artefacts';
import { REQUIREMENT_TYPES, RISKS } from '@caderno/core/basis';
import { CLONED_PARTS } from '@caderno/core/cases';
import { z } from 'zod';
import { changeSchema } from './artefacts.ts';
import { artefactIdSchema, caseIdSchema, dataSetIdSchema, requirementIdSchema, sharedIdSchema, versionNumberSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { textUpTo } from './text.ts';

/** Which artefacts: by their ids, or all of a kind that a query finds. */
const chosenSchema = z.union([z.strictObject({ ids: z.array(artefactIdSchema).min(1).max(LIMITS.many) }), z.strictObject({ kind: z.enum(ARTEFACT_KINDS), query: textUpTo(LIMITS.line) })]);

const editSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('module'), module: textUpTo(LIMITS.name) }),
  z.strictObject({ kind: z.literal('priority'), priority: z.enum(PRIORITIES) }),
  z.strictObject({ kind: z.literal('risk'), risk: z.enum(RISKS) }),
  z.strictObject({ kind: z.literal('rating'), part: z.enum(['likelihood', 'impact']), step: z.int().min(0).max(20) }),
  z.strictObject({ kind: z.literal('type'), type: z.enum(REQUIREMENT_TYPES) }),
  z.strictObject({ kind: z.literal('derivedFrom'), requirement: requirementIdSchema, seenVersion: versionNumberSchema, insteadOf: requirementIdSchema.nullable() }),
  z.strictObject({ kind: z.literal('depth'), depth: textUpTo(LIMITS.name), belongs: z.boolean() }),
  z.strictObject({ kind: z.literal('pins'), of: z.union([sharedIdSchema, caseIdSchema, dataSetIdSchema]), version: versionNumberSchema }),
]);

const replacementSchema = z.strictObject({ from: textUpTo(LIMITS.name), to: textUpTo(LIMITS.name) });

/** What is done with each of them. `clone` makes a case of each, once for every list of replacements; `copyTo` makes a condition of each for a requirement as it is in a version. */
const doneSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('edit'), edit: editSchema }),
  z.strictObject({ kind: z.literal('state'), state: z.enum(ARTEFACT_STATES) }),
  z.strictObject({ kind: z.literal('copyTo'), requirement: requirementIdSchema, seenVersion: versionNumberSchema }),
  z.strictObject({ kind: z.literal('clone'), parts: z.array(z.enum(CLONED_PARTS)), sets: z.array(z.array(replacementSchema).max(12)).min(1).max(50) }),
]);

/** The same done with many artefacts by one command, on what they are when it is carried out. `detail` says in words what for. */
export const changeManySchema = z.strictObject({ of: chosenSchema, done: doneSchema, detail: textUpTo(LIMITS.title) });
/** See {@link changeManySchema}. */
export type ChangeMany = z.infer<typeof changeManySchema>;

/** Why one of them was left as it is. */
export const LEFT_REASONS = ['absent', 'broken', 'otherKind'] as const;
/** Not there, not readable, or of a kind that has no such thing. */
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
