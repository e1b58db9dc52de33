import type { Pin } from '@caderno/core/artefacts';
import { PARAMETER_TYPES, type Parameter, type PlainStep, type Step } from '@caderno/core/cases';
import { z } from 'zod';
import { caseIdSchema, fieldIdSchema, parameterIdSchema, rowIdSchema, sharedIdSchema, stepIdSchema, versionNumberSchema, conditionIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import type { Migration } from './kind.ts';
import { attachments, cell, line, name, title, uniqueById } from './parts.ts';

/** The version that a use means: see {@link Pin}. */
export const pinSchema: z.ZodType<Pin> = z.union([versionNumberSchema, z.literal('agreed')]).nullable();
const argument = z.strictObject({ id: name, value: cell });
/** Values given to the parameters of what is used, each once. */
export const argumentsSchema = uniqueById(z.array(argument).max(LIMITS.parameters));
const use = { id: stepIdSchema, pinned: pinSchema, arguments: argumentsSchema };
const calledRows = z.discriminatedUnion('kind', [z.strictObject({ kind: z.literal('own'), row: rowIdSchema }), z.strictObject({ kind: z.literal('chosen'), rows: z.array(rowIdSchema).max(LIMITS.rows) }), z.strictObject({ kind: z.literal('every') }), z.strictObject({ kind: z.literal('mine') })]);
const plainStep = z.strictObject({ kind: z.literal('step'), id: stepIdSchema, action: line, expected: line, attachments });
/** A step of its own words. */
export const plainStepSchema: z.ZodType<PlainStep> = plainStep;
/** A step of its own words, a use of shared steps, or a call of a case. */
export const stepSchema: z.ZodType<Step> = z.discriminatedUnion('kind', [
  plainStep,
  z.strictObject({ kind: z.literal('shared'), shared: sharedIdSchema, ...use }),
  z.strictObject({ kind: z.literal('call'), case: caseIdSchema, rows: calledRows, ...use }),
]);
/** A parameter of a case, of shared steps, or a column of a data set. */
export const parameterSchema: z.ZodType<Parameter> = z.strictObject({ id: parameterIdSchema, name, type: z.enum(PARAMETER_TYPES), default: cell, description: title });

/** Steps as they go from one window to another, with the parameters they name. */
export const carriedStepsSchema = z.strictObject({ project: z.string(), steps: z.array(stepSchema).max(LIMITS.steps), parameters: z.array(parameterSchema).max(LIMITS.parameters) });
/** Steps on their way to another case, with the parameters they name. */
export type CarriedSteps = z.infer<typeof carriedStepsSchema>;

/** Which parameters carry the fields of a condition. */
export const carriedBy = {
  id: conditionIdSchema,
  seenVersion: versionNumberSchema,
  fields: uniqueById(z.array(z.strictObject({ id: fieldIdSchema, parameter: parameterIdSchema })).max(LIMITS.carried)),
  outcome: parameterIdSchema.nullable(),
};

/** Steps may have pictures since schema 3 of cases and 2 of shared steps. */
export const withAttachments: Migration = (stored) => ({
  ...stored,
  steps: z.array(z.looseObject({})).parse(stored.steps).map((step) => (step.kind === 'step' ? { ...step, attachments: [] } : step)),
});

/** Of the files of steps type and size are noted since schema 7 of cases and 4 of shared steps; before, all were pictures. */
export const withNotedAttachments: Migration = (stored) => ({
  ...stored,
  steps: z
    .array(z.looseObject({}))
    .parse(stored.steps)
    .map((step) => (step.kind === 'step' ? { ...step, attachments: z.array(z.looseObject({})).parse(step.attachments).map((a) => ({ ...a, type: null, size: null })) } : step)),
});
