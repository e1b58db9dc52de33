import { BOUNDARY_RULES, CLASS_KINDS, MOST_TABLE_VALUES, STATE_LEVELS, STRENGTHS, eventId, stateId, transitionId, type Model } from '@caderno/core/conditions';
import type { ValueType } from '@caderno/core/values';
import { z } from 'zod';
import { fieldIdSchema, innerIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import { textUpTo } from '../text.ts';
import { cell, name, title, uniqueById } from './parts.ts';

const stepSeconds = z.int().min(1).max(86_400);
const valueType: z.ZodType<ValueType> = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('whole') }),
  z.strictObject({ kind: z.literal('decimal'), step: textUpTo(60) }),
  z.strictObject({ kind: z.literal('date') }),
  z.strictObject({ kind: z.literal('time'), stepSeconds }),
  z.strictObject({ kind: z.literal('dateTime'), stepSeconds }),
  z.strictObject({ kind: z.literal('textLength') }),
  z.strictObject({ kind: z.literal('textPattern') }),
  z.strictObject({ kind: z.literal('choice') }),
  z.strictObject({ kind: z.literal('yesNo') }),
]);

const partition = { id: innerIdSchema, valid: z.boolean(), outcome: title };
const interval = z.strictObject({ ...partition, name, from: name, to: name });
const choice = z.strictObject({ ...partition, value: name, aliases: z.array(name).max(50) });
const patternPart = z.strictObject({ ...partition, name, pattern: name, example: cell });
const otherClass = z.strictObject({ ...partition, name, kind: z.enum(CLASS_KINDS), example: cell, limit: z.int().min(0).max(1_000_000) });

const field = z.strictObject({
  id: fieldIdSchema,
  name,
  type: valueType,
  unit: name,
  required: z.boolean(),
  intervals: uniqueById(z.array(interval).max(LIMITS.intervals)),
  choices: uniqueById(z.array(choice).max(LIMITS.choices)),
  patterns: uniqueById(z.array(patternPart).max(LIMITS.intervals)),
  classes: uniqueById(z.array(otherClass).max(50)),
});

const named = { id: innerIdSchema, value: name, aliases: z.array(name).max(50) };
const tableCondition = z.strictObject({ id: fieldIdSchema, name, values: uniqueById(z.array(z.strictObject(named)).max(MOST_TABLE_VALUES)) });
const rule = z.strictObject({
  id: innerIdSchema,
  entries: z.record(fieldIdSchema, z.array(innerIdSchema).max(MOST_TABLE_VALUES)),
  impossible: z.boolean(),
  actions: z.record(innerIdSchema, title),
});

export const stateIdSchema = innerIdSchema.transform(stateId);
export const eventIdSchema = innerIdSchema.transform(eventId);
export const transitionIdSchema = innerIdSchema.transform(transitionId);
const coordinate = z.number().min(-100_000).max(100_000);
const modelState = z.strictObject({ id: stateIdSchema, name, initial: z.boolean(), final: z.boolean(), place: z.strictObject({ x: coordinate, y: coordinate }).nullable() });
const transition = z.strictObject({ id: transitionIdSchema, from: stateIdSchema, event: eventIdSchema, to: stateIdSchema, guard: title, action: title });

const factor = z.strictObject({ id: fieldIdSchema, name, values: uniqueById(z.array(z.strictObject({ ...named, valid: z.boolean(), base: z.boolean(), outcome: title })).max(LIMITS.factorValues)) });
const factorGroup = z.strictObject({ id: innerIdSchema, factors: z.array(fieldIdSchema).max(LIMITS.factors), size: z.int().min(1).max(6) });

/** The model of a condition, of any technique. */
export const modelSchema: z.ZodType<Model> = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('decisionTable'),
    conditions: uniqueById(z.array(tableCondition).max(LIMITS.tableLines)),
    actions: uniqueById(z.array(z.strictObject({ id: innerIdSchema, name })).max(LIMITS.tableLines)),
    rules: uniqueById(z.array(rule).max(LIMITS.tableRules)),
  }),
  z.strictObject({
    kind: z.literal('stateTransitions'),
    states: uniqueById(z.array(modelState).max(LIMITS.states)),
    events: uniqueById(z.array(z.strictObject({ id: eventIdSchema, name })).max(LIMITS.events)),
    transitions: uniqueById(z.array(transition).max(LIMITS.transitions)),
    level: z.enum(STATE_LEVELS),
    invalidPairs: z.boolean(),
  }),
  z.strictObject({
    kind: z.literal('combination'),
    factors: uniqueById(z.array(factor).max(LIMITS.factors)),
    constraints: uniqueById(z.array(z.strictObject({ id: innerIdSchema, text: textUpTo(2_000) })).max(LIMITS.constraints)),
    strength: z.enum(STRENGTHS),
    groups: uniqueById(z.array(factorGroup).max(20)),
    seed: z.int().min(0).max(1_000_000_000),
  }),
  z.strictObject({ kind: z.literal('plain') }),
  z.strictObject({
    kind: z.literal('valueRanges'),
    boundaries: z.enum(BOUNDARY_RULES),
    allowInvalidTogether: z.boolean(),
    fields: uniqueById(z.array(field).max(LIMITS.fields)),
  }),
]);
