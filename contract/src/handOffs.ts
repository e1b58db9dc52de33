import { ARTEFACT_STATES } from '@caderno/core/artefacts';
import { baselineNumber } from '@caderno/core/baselines';
import { EXECUTIONS } from '@caderno/core/cases';
import { DIVIDINGS, HAND_OFF_FORMAT, handOffNumber, type Doubt, type ExecutedInstance, type HandOffLine, type HandOffNumber } from '@caderno/core/handOffs';
import { z } from 'zod';
import { baselineNumberSchema } from './baselines.ts';
import { artefactIdSchema, caseIdSchema, conditionIdSchema, coveringIdSchema, innerIdSchema, suiteIdSchema, versionNumberSchema } from './ids.ts';
import { attachmentSchema, configurationsSchema, runsInSchema } from './kinds/index.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { remarkIdSchema, remarkThreadSchema } from './remarks.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

const count = z.int().min(0);

/** As it stands in a path. */
export const handOffNumberSchema: z.ZodType<HandOffNumber> = z.coerce.number().pipe(versionNumberSchema).transform(handOffNumber);

/** What is handed off: the members of a suite as they stand, or the cases and scenarios of a baseline. */
const handedOffSchema = z.union([z.strictObject({ suite: suiteIdSchema }), z.strictObject({ baseline: baselineNumberSchema })]);
/** See {@link handedOffSchema}. */
export type HandedOffPart = z.infer<typeof handedOffSchema>;

const part = { of: handedOffSchema, configurations: configurationsSchema };
/** What would be handed off, in which configurations; none: once, in no configuration. `since`: an earlier hand-off that it is held against. */
export const askHandOffSchema = z.strictObject({ ...part, since: versionNumberSchema.transform(handOffNumber).optional() });
/** See {@link askHandOffSchema}. */
export type AskHandOff = z.infer<typeof askHandOffSchema>;

const doubtSchema: z.ZodType<Doubt> = z.discriminatedUnion('kind', [
  z.object({ kind: z.enum(['tooLarge', 'noInstances', 'nothingToDo', 'nothingExpected', 'noMinutes']) }),
  z.object({ kind: z.literal('unbound'), names: z.array(z.string()) }),
  z.object({ kind: z.literal('gone'), ids: z.array(artefactIdSchema) }),
  z.object({ kind: z.literal('unclear'), words: z.array(z.string()) }),
  z.object({ kind: z.literal('notAgreed'), state: z.enum(ARTEFACT_STATES) }),
  z.object({ kind: z.literal('suspect'), ids: z.array(conditionIdSchema) }),
  z.object({ kind: z.literal('outside'), ids: z.array(caseIdSchema) }),
]);

const member = z.object({ of: coveringIdSchema, version: z.int(), title: z.string(), module: z.string(), owner: z.string(), execution: z.enum(EXECUTIONS), minutes: z.number().nullable(), instances: count, runsIn: runsInSchema, same: z.boolean(), doubts: z.array(doubtSchema) });
/** Cases and scenarios as they would be handed off, in their order, each with what is doubtful about it; `runsIn`: the configurations that the suite says for it, null for all; `same`: it is executed as it was in the earlier hand-off; `absent`: members that are withdrawn or gone, and are never handed off. */
export const handOffPreviewSchema = z.object({ members: z.array(member), absent: z.array(coveringIdSchema) });
/** See {@link handOffPreviewSchema}. */
export type HandOffPreview = z.infer<typeof handOffPreviewSchema>;
/** One of them. */
export type HandOffMember = HandOffPreview['members'][number];

const person = trimmedTextUpTo(LIMITS.name);
/** A hand-off to be made. `people`: who executes, by name, members or not; `chosen`: lines that somebody was chosen for by hand, '' for nobody. */
export const newHandOffSchema = z.strictObject({
  ...part,
  name: trimmedTextUpTo(LIMITS.title),
  note: textUpTo(LIMITS.note),
  due: z.iso.date().nullable(),
  leftOut: z.array(coveringIdSchema).max(LIMITS.many),
  people: z.array(person).max(LIMITS.recipients).refine(isEachOnce, 'must not repeat'),
  dividing: z.enum(DIVIDINGS),
  chosen: z.array(z.strictObject({ of: coveringIdSchema, configuration: innerIdSchema.nullable(), person: textUpTo(LIMITS.name) })).max(LIMITS.many),
});
/** See {@link newHandOffSchema}. */
export type NewHandOff = z.infer<typeof newHandOffSchema>;

const number = z.number().transform(handOffNumber);
/** A hand-off in the list. `of`: `U-1` or `B-2`; `baseline`: the one whose versions it has; `minutes`: of those that are known. */
export const handOffHeadSchema = z.object({ number, name: z.string(), note: z.string(), of: z.string(), baseline: z.number().transform(baselineNumber), due: z.iso.date().nullable(), by: z.string(), at: z.iso.datetime(), instances: count, minutes: z.number(), people: z.array(z.string()) });
/** See {@link handOffHeadSchema}. */
export type HandOffListed = z.infer<typeof handOffHeadSchema>;

const configuration = z.object({ id: innerIdSchema, name: z.string(), factors: z.array(z.object({ name: z.string(), value: z.string() })) });
const line: z.ZodType<HandOffLine> = z.object({ of: coveringIdSchema, version: z.int(), title: z.string(), module: z.string(), owner: z.string(), execution: z.enum(EXECUTIONS), configuration: innerIdSchema.nullable(), instances: count, minutes: z.number().nullable(), person: z.string() });
/** As it is kept: lines in their order. */
export const handOffLinesSchema = z.array(line);
/** As they are kept. */
export const handOffConfigurationsSchema = z.array(configuration);
/** A hand-off with its lines; `now`: the latest version of each that is another than the one handed off, 0 for what was withdrawn or is gone since. */
export const handOffSchema = handOffHeadSchema.extend({ configurations: handOffConfigurationsSchema, lines: handOffLinesSchema, now: z.array(z.object({ of: coveringIdSchema, version: count })) });
/** See {@link handOffSchema}. */
export type HandOff = z.infer<typeof handOffSchema>;

/** What a hand-off is written as; `schema`: of the JSON, `features`: the features of its scenarios as Gherkin. */
export const HAND_OFF_FORMATS = ['xlsx', 'html', 'csv', 'md', 'json', 'schema', 'features'] as const;
/** See {@link HAND_OFF_FORMATS}. */
export type HandOffFormat = (typeof HAND_OFF_FORMATS)[number];
/** `person`: the part of one of them only, '' of nobody. */
export const exportHandOffQuerySchema = z.object({ format: z.enum(HAND_OFF_FORMATS), person: textUpTo(LIMITS.name).optional() });

const step = z.object({ number: z.int(), through: z.string(), action: z.string(), expected: z.string(), files: z.array(attachmentSchema) });
const instance: z.ZodType<ExecutedInstance> = z.object({
  key: z.string(), of: coveringIdSchema, version: z.int(), title: z.string(), module: z.string(), priority: z.string(), tags: z.array(z.string()), execution: z.enum(EXECUTIONS), name: z.string(), configuration: z.string(), person: z.string(), minutes: z.number().nullable(),
  before: z.array(z.object({ word: z.string(), text: z.string() })), values: z.array(z.object({ name: z.string(), value: z.string() })), steps: z.array(step), files: z.array(attachmentSchema),
});
/** A hand-off as it is written in JSON, for any executor. */
export const handOffFileSchema = z.object({
  $schema: z.string(), format: z.literal(HAND_OFF_FORMAT), version: z.literal(1), handOff: z.string(), project: z.object({ key: z.string(), name: z.string() }), name: z.string(), note: z.string(), due: z.string().nullable(), by: z.string(), at: z.string(), baseline: z.string(), person: z.string().nullable(),
  instances: z.array(instance),
});

const noted = z.strictObject({ instance: z.string(), step: z.int().nullable(), done: z.boolean(), remark: z.string(), minutes: z.string() });
/** What was noted in the page of a hand-off, as the page saves it. */
export const handOffNotesSchema = z.object({ format: z.literal('caderno-hand-off-notes'), version: z.literal(1), project: z.string(), handOff: z.int(), by: z.string(), notes: z.array(noted) });

/** Of what came back, told at once; the numbers count all. */
export const MOST_RETURNED_TOLD = 1_000;

const proposal = z.object({
  /** The same words at the same place, however often they come back, are one remark. */
  remark: remarkIdSchema,
  /** It is at its place already. */
  there: z.boolean(),
  of: artefactIdSchema,
  version: z.int(),
  place: remarkThreadSchema.shape.place,
  said: z.string(),
  text: z.string(),
  offer: z.string().nullable(),
  instances: z.array(z.string()),
  step: z.int().nullable(),
});
/** What executors noted, each at its place, and what has none. `by`: who noted it, where the file says so. */
export const returnedSchema = z.object({
  by: z.string(),
  proposals: z.array(proposal),
  total: count,
  unplaced: z.array(z.object({ instance: z.string(), step: z.int().nullable(), why: z.enum(['unknownInstance', 'unknownStep', 'otherHandOff', 'tooLong']) })),
  unplacedTotal: count,
});
/** See {@link returnedSchema}. */
export type ReturnedNotes = z.infer<typeof returnedSchema>;
