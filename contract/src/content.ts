import { PRIORITIES, type ArtefactKind } from '@caderno/core/artefacts';
import { LONGEST_SCALE, QUESTION_STATUSES, REQUIREMENT_TYPES, RISKS, WORDING_RULES, type QuestionContent, type RequirementContent } from '@caderno/core/basis';
import { CASE_KINDS, EXECUTIONS, NAME_COLUMN, PARAMETER_TYPES, type CaseContent, type PlainStep, type Step } from '@caderno/core/cases';
import { BOUNDARY_RULES, CLASS_KINDS, MOST_TABLE_VALUES, POLARITIES, STATE_LEVELS, STRENGTHS, eventId, stateId, transitionId, type ConditionContent, type Model } from '@caderno/core/conditions';
import type { DataSetContent } from '@caderno/core/dataSets';
import type { SharedContent } from '@caderno/core/shared';
import type { ValueType } from '@caderno/core/values';
import { z } from 'zod';
import { attachmentIdSchema, caseIdSchema, conditionIdSchema, dataSetIdSchema, fieldIdSchema, innerIdSchema, itemKeySchema, parameterIdSchema, requirementIdSchema, rowIdSchema, sharedIdSchema, stepIdSchema, versionNumberSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { rowsSchema } from './rows.ts';
import { textUpTo } from './text.ts';

const title = textUpTo(LIMITS.title);
const name = textUpTo(LIMITS.name);
const line = textUpTo(LIMITS.line);
const text = textUpTo(LIMITS.text);
const cell = textUpTo(LIMITS.cell);
const version = versionNumberSchema;

const moment = z.iso.datetime();
const step0 = z.int().min(0).max(LONGEST_SCALE - 1);

const dismissal = z.strictObject({ id: innerIdSchema, rule: z.enum(WORDING_RULES), words: title, sentence: line, reason: title, by: name, at: moment });
const observation = z.strictObject({ id: innerIdSchema, documented: line, done: line, seen: line, by: name, at: moment });
const defectLink = z.strictObject({ id: name, title, link: textUpTo(LIMITS.address) });
const observations = uniqueById(z.array(observation).max(LIMITS.observations));
const defects = uniqueById(z.array(defectLink).max(LIMITS.links));

/** What a version of a requirement holds. */
export const requirementContentSchema: z.ZodType<RequirementContent> = z.strictObject({
  title,
  text,
  type: z.enum(REQUIREMENT_TYPES),
  module: name,
  risk: z.enum(RISKS),
  rating: z.strictObject({ likelihood: step0, impact: step0 }).nullable(),
  priority: z.enum(PRIORITIES),
  source: title,
  origin: z.strictObject({ source: name, id: title, link: textUpTo(LIMITS.address) }).nullable(),
  attributes: uniqueById(z.array(z.strictObject({ id: name, value: text })).max(LIMITS.attributes)),
  relations: uniqueById(z.array(z.strictObject({ id: title, kind: name, to: requirementIdSchema })).max(LIMITS.links)),
  dismissals: uniqueById(z.array(dismissal).max(LIMITS.dismissals)),
});

const questionSubject = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('requirement'), id: requirementIdSchema, words: line, holds: z.boolean() }),
  z.strictObject({ kind: z.literal('condition'), id: conditionIdSchema, items: z.array(itemKeySchema).max(LIMITS.leftOut), holds: z.boolean() }),
]);

/** What a version of a question holds. */
export const questionContentSchema: z.ZodType<QuestionContent> = z.strictObject({
  title,
  text,
  asked: name,
  about: uniqueById(z.array(questionSubject).max(LIMITS.links)),
  status: z.enum(QUESTION_STATUSES),
  answer: text,
  answeredBy: name,
  answeredAt: moment.or(z.literal('')),
  settledIn: uniqueById(z.array(z.strictObject({ id: requirementIdSchema, version })).max(LIMITS.links)),
  observations,
});

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

const stateIdSchema = innerIdSchema.transform(stateId);
const eventIdSchema = innerIdSchema.transform(eventId);
const transitionIdSchema = innerIdSchema.transform(transitionId);
const coordinate = z.number().min(-100_000).max(100_000);
const modelState = z.strictObject({ id: stateIdSchema, name, initial: z.boolean(), final: z.boolean(), place: z.strictObject({ x: coordinate, y: coordinate }).nullable() });
const transition = z.strictObject({ id: transitionIdSchema, from: stateIdSchema, event: eventIdSchema, to: stateIdSchema, guard: title, action: title });

const factor = z.strictObject({ id: fieldIdSchema, name, values: uniqueById(z.array(z.strictObject({ ...named, valid: z.boolean(), base: z.boolean(), outcome: title })).max(LIMITS.factorValues)) });
const factorGroup = z.strictObject({ id: innerIdSchema, factors: z.array(fieldIdSchema).max(LIMITS.factors), size: z.int().min(1).max(6) });

const model: z.ZodType<Model> = z.discriminatedUnion('kind', [
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

const anchor = z.strictObject({ quote: text, start: z.int().min(0).max(LIMITS.text), before: name, after: name });

/** What a list shows of a condition. */
const conditionHead = {
  title,
  polarity: z.enum(POLARITIES),
  requirements: uniqueById(z.array(z.strictObject({ id: requirementIdSchema, seenVersion: version, anchor: anchor.nullable() })).max(LIMITS.links)),
  depths: z.array(name).max(LIMITS.depths),
  under: conditionIdSchema.nullable(),
  order: z.int().min(0).max(1_000_000),
};

/** A condition without its model. */
export const conditionHeadSchema: z.ZodType<Pick<ConditionContent, keyof typeof conditionHead>> = z.object(conditionHead);

/** What a version of a condition holds: where it hangs, and its model. */
export const conditionContentSchema: z.ZodType<ConditionContent> = z.strictObject({
  ...conditionHead,
  risk: z.enum(RISKS).nullable(),
  model,
  leftOut: uniqueById(z.array(z.strictObject({ id: itemKeySchema, reason: title, by: name, at: moment })).max(LIMITS.leftOut)),
  observations,
  defects,
});

const argument = z.strictObject({ id: name, value: cell });
/** Values given to the parameters of what is used, each once. */
export const argumentsSchema = uniqueById(z.array(argument).max(LIMITS.parameters));
const use = { id: stepIdSchema, pinned: version.nullable(), arguments: argumentsSchema };
const calledRows = z.discriminatedUnion('kind', [z.strictObject({ kind: z.literal('own'), row: rowIdSchema }), z.strictObject({ kind: z.literal('chosen'), rows: z.array(rowIdSchema).max(LIMITS.rows) }), z.strictObject({ kind: z.literal('every') }), z.strictObject({ kind: z.literal('mine') })]);
const attachment = z.strictObject({ id: attachmentIdSchema, name: title });
const plainStep = z.strictObject({ kind: z.literal('step'), id: stepIdSchema, action: line, expected: line, attachments: uniqueById(z.array(attachment).max(LIMITS.attachments)) });
/** A step of its own words. */
export const plainStepSchema: z.ZodType<PlainStep> = plainStep;
/** A step of its own words, a use of shared steps, or a call of a case. */
export const stepSchema: z.ZodType<Step> = z.discriminatedUnion('kind', [
  plainStep,
  z.strictObject({ kind: z.literal('shared'), shared: sharedIdSchema, ...use }),
  z.strictObject({ kind: z.literal('call'), case: caseIdSchema, rows: calledRows, ...use }),
]);
const parameter = z.strictObject({ id: parameterIdSchema, name, type: z.enum(PARAMETER_TYPES), default: cell, description: title });
/** Steps as they go from one window to another, with the parameters they name. */
export const carriedStepsSchema = z.strictObject({ project: z.string(), steps: z.array(stepSchema).max(LIMITS.steps), parameters: z.array(parameter).max(LIMITS.parameters) });
/** Steps on their way to another case, with the parameters they name. */
export type CarriedSteps = z.infer<typeof carriedStepsSchema>;
const columnFilter = z.strictObject({ id: z.union([z.literal(NAME_COLUMN), parameterIdSchema]), text: name });
const rowChoice = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('all') }),
  z.strictObject({ kind: z.literal('chosen'), rows: z.array(rowIdSchema).max(LIMITS.rows) }),
  z.strictObject({ kind: z.literal('filter'), filters: uniqueById(z.array(columnFilter).max(LIMITS.parameters)) }),
]);
const dataUse = z.strictObject({ set: dataSetIdSchema, pinned: version.nullable(), columns: uniqueById(z.array(z.strictObject({ id: parameterIdSchema, column: parameterIdSchema })).max(LIMITS.parameters)) });
const carriedBy = {
  id: conditionIdSchema,
  seenVersion: version,
  fields: uniqueById(z.array(z.strictObject({ id: fieldIdSchema, parameter: parameterIdSchema })).max(LIMITS.carried)),
  outcome: parameterIdSchema.nullable(),
};
const cover = z.strictObject({
  ...carriedBy,
  expects: z.array(stepIdSchema).max(LIMITS.steps),
  start: stateIdSchema.nullable(),
  events: uniqueById(z.array(z.strictObject({ id: stepIdSchema, event: eventIdSchema, transition: transitionIdSchema.nullable() })).max(LIMITS.steps)),
});

/** What a version of a case holds. */
export const caseContentSchema: z.ZodType<CaseContent> = z.strictObject({
  title,
  kind: z.enum(CASE_KINDS),
  execution: z.enum(EXECUTIONS),
  objective: text,
  areas: text,
  ideas: text,
  preconditions: text,
  steps: uniqueById(z.array(stepSchema).max(LIMITS.steps)),
  parameters: uniqueById(z.array(parameter).max(LIMITS.parameters)),
  rows: uniqueById(rowsSchema),
  data: dataUse.nullable(),
  runs: rowChoice,
  covers: uniqueById(z.array(cover).max(LIMITS.links)),
  module: name,
  priority: z.enum(PRIORITIES),
  tags: z.array(name).max(LIMITS.tags),
  estimate: z.number().min(0).max(100_000).nullable(),
  owner: name,
  defects,
  dependsOn: uniqueById(z.array(z.strictObject({ id: caseIdSchema })).max(LIMITS.links)),
  origin: z.strictObject({ id: caseIdSchema, version }).nullable(),
});

/** What a version of shared steps holds. */
export const sharedContentSchema: z.ZodType<SharedContent> = z.strictObject({
  title,
  purpose: line,
  steps: uniqueById(z.array(stepSchema).max(LIMITS.steps)),
  parameters: uniqueById(z.array(parameter).max(LIMITS.parameters)),
  module: name,
  tags: z.array(name).max(LIMITS.tags),
});

/** What a version of a data set holds. */
export const dataSetContentSchema: z.ZodType<DataSetContent> = z.strictObject({
  title,
  purpose: line,
  parameters: uniqueById(z.array(parameter).max(LIMITS.parameters)),
  rows: uniqueById(rowsSchema),
  serves: uniqueById(z.array(z.strictObject(carriedBy)).max(LIMITS.links)),
  module: name,
  tags: z.array(name).max(LIMITS.tags),
});

/** The content that artefacts of a kind have. */
export interface ContentOfKind {
  requirement: RequirementContent;
  condition: ConditionContent;
  case: CaseContent;
  question: QuestionContent;
  shared: SharedContent;
  dataSet: DataSetContent;
}
/** A content of any kind. */
export type Content = ContentOfKind[ArtefactKind];

/** The content schema of every kind. */
export const CONTENT_SCHEMA: { readonly [K in ArtefactKind]: z.ZodType<ContentOfKind[K]> } = {
  requirement: requirementContentSchema,
  condition: conditionContentSchema,
  case: caseContentSchema,
  question: questionContentSchema,
  shared: sharedContentSchema,
  dataSet: dataSetContentSchema,
};

/** A content with its kind beside it, as it crosses the wire. */
export const kindAndContentSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('requirement'), content: requirementContentSchema }),
  z.object({ kind: z.literal('condition'), content: conditionContentSchema }),
  z.object({ kind: z.literal('case'), content: caseContentSchema }),
  z.object({ kind: z.literal('question'), content: questionContentSchema }),
  z.object({ kind: z.literal('shared'), content: sharedContentSchema }),
  z.object({ kind: z.literal('dataSet'), content: dataSetContentSchema }),
]);
/** A content that says its kind: what is stored, sent and checked everywhere. */
export type KindAndContent = z.infer<typeof kindAndContentSchema>;

function uniqueById<E extends { readonly id: string }, S extends z.ZodType<E[]>>(list: S): S {
  return list.refine((elements) => isEachOnce(elements.map((e) => e.id)), 'ids must not repeat');
}
