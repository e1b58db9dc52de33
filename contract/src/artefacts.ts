import { ARTEFACT_STATES, PRIORITIES } from '@caderno/core/artefacts';
import { QUESTION_STATUSES, REQUIREMENT_TYPES, RISKS } from '@caderno/core/basis';
import { CASE_KINDS, EXECUTIONS } from '@caderno/core/cases';
import { MODEL_KINDS, POLARITIES } from '@caderno/core/conditions';
import { z } from 'zod';
import { caseContentSchema, conditionContentSchema, dataSetContentSchema, kindAndContentSchema, questionContentSchema, requirementContentSchema, sharedContentSchema } from './content.ts';
import { artefactIdSchema, caseIdSchema, conditionIdSchema, dataSetIdSchema, questionIdSchema, requirementIdSchema, sharedIdSchema, versionNumberSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { placedIssueSchema } from './placedIssue.ts';
import { textUpTo } from './text.ts';

const count = z.int().min(0);

const head = {
  title: z.string(),
  state: z.enum(ARTEFACT_STATES),
  version: z.int(),
  /** The version with which the present meaning began: links that saw an earlier one are suspect. */
  meaningSince: z.int(),
  module: z.string(),
  author: z.string(),
  at: z.iso.datetime(),
  /** What is stored of it cannot be read. */
  broken: z.boolean(),
};

export const requirementSummarySchema = z.object({
  kind: z.literal('requirement'),
  id: requirementIdSchema,
  ...head,
  parent: requirementIdSchema.nullable(),
  position: z.number(),
  type: z.enum(REQUIREMENT_TYPES),
  /** The id its source gives it; empty: it was written here. */
  sourceId: z.string(),
  risk: z.enum(RISKS),
  priority: z.enum(PRIORITIES),
});
export const conditionSummarySchema = z.object({
  kind: z.literal('condition'),
  id: conditionIdSchema,
  ...head,
  model: z.enum(MODEL_KINDS),
  polarity: z.enum(POLARITIES),
  /** Its own; null: that of its requirements. */
  risk: z.enum(RISKS).nullable(),
  requirements: z.array(requirementIdSchema),
});
export const caseSummarySchema = z.object({
  kind: z.literal('case'),
  id: caseIdSchema,
  ...head,
  priority: z.enum(PRIORITIES),
  tags: z.array(z.string()),
  owner: z.string(),
  caseKind: z.enum(CASE_KINDS),
  execution: z.enum(EXECUTIONS),
  steps: count,
  /** Steps that expect something. */
  expected: count,
  /** Of its own. */
  rows: count,
  dataSet: dataSetIdSchema.nullable(),
  estimate: z.number().nullable(),
  covers: z.array(conditionIdSchema),
});
export const questionSummarySchema = z.object({
  kind: z.literal('question'),
  id: questionIdSchema,
  ...head,
  status: z.enum(QUESTION_STATUSES),
  asked: z.string(),
  about: z.array(z.union([requirementIdSchema, conditionIdSchema])),
  answeredAt: z.string(),
});
export const sharedSummarySchema = z.object({ kind: z.literal('shared'), id: sharedIdSchema, ...head, tags: z.array(z.string()), steps: count, parameters: z.array(z.string()) });
export const dataSetSummarySchema = z.object({ kind: z.literal('dataSet'), id: dataSetIdSchema, ...head, tags: z.array(z.string()), rows: count, parameters: z.array(z.string()), serves: z.array(conditionIdSchema) });
/** What lists show, by kind. */
export const SUMMARY_SCHEMA = {
  requirement: requirementSummarySchema,
  condition: conditionSummarySchema,
  case: caseSummarySchema,
  question: questionSummarySchema,
  shared: sharedSummarySchema,
  dataSet: dataSetSummarySchema,
} as const;
export const summarySchema = z.discriminatedUnion('kind', [requirementSummarySchema, conditionSummarySchema, caseSummarySchema, questionSummarySchema, sharedSummarySchema, dataSetSummarySchema]);
export type RequirementSummary = z.infer<typeof requirementSummarySchema>;
export type ConditionSummary = z.infer<typeof conditionSummarySchema>;
export type CaseSummary = z.infer<typeof caseSummarySchema>;
export type QuestionSummary = z.infer<typeof questionSummarySchema>;
export type SharedSummary = z.infer<typeof sharedSummarySchema>;
export type DataSetSummary = z.infer<typeof dataSetSummarySchema>;
export type Summary = z.infer<typeof summarySchema>;

/** The working text of one person, kept until it becomes a version; with the content it grew from, to merge by. Null: it grew from the head. */
function draftOf<C extends z.ZodType>(content: C) {
  return z.object({ base: z.int(), at: z.iso.datetime(), content, baseContent: content.nullable() }).nullable();
}

export const artefactSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('requirement'),
    summary: requirementSummarySchema,
    content: requirementContentSchema,
    draft: draftOf(requirementContentSchema),
  }),
  z.object({
    kind: z.literal('condition'),
    summary: conditionSummarySchema,
    content: conditionContentSchema,
    draft: draftOf(conditionContentSchema),
  }),
  z.object({ kind: z.literal('case'), summary: caseSummarySchema, content: caseContentSchema, draft: draftOf(caseContentSchema) }),
  z.object({ kind: z.literal('question'), summary: questionSummarySchema, content: questionContentSchema, draft: draftOf(questionContentSchema) }),
  z.object({ kind: z.literal('shared'), summary: sharedSummarySchema, content: sharedContentSchema, draft: draftOf(sharedContentSchema) }),
  z.object({ kind: z.literal('dataSet'), summary: dataSetSummarySchema, content: dataSetContentSchema, draft: draftOf(dataSetContentSchema) }),
]);
export type Artefact = z.infer<typeof artefactSchema>;
export type ArtefactOfKind<K extends Artefact['kind']> = Extract<Artefact, { kind: K }>;

export const newArtefactSchema = z.intersection(
  kindAndContentSchema,
  z.object({ parent: requirementIdSchema.nullable().optional(), after: requirementIdSchema.nullable().optional() }),
);
export type NewArtefact = z.infer<typeof newArtefactSchema>;

/** Counts a person’s drafts of an artefact on, over all their windows: what was typed before is kept after nothing that was typed later. A save or a drop with one ends all drafts up to it. */
const draftSequence = z.int().min(0);

/** `keepsDraft`: the content was not made of one's own draft, which stays. */
export const saveSchema = z.intersection(kindAndContentSchema, z.object({ note: textUpTo(LIMITS.note), keepsDraft: z.boolean().optional(), sequence: draftSequence.optional() }));
export const draftSchema = z.intersection(kindAndContentSchema, z.object({ base: versionNumberSchema, sequence: draftSequence }));
export const dropDraftQuerySchema = z.object({ sequence: z.coerce.number().pipe(draftSequence).optional() });
export const draftKeptSchema = z.object({ at: z.iso.datetime() });
export const placeSchema = z.object({ parent: requirementIdSchema.nullable(), after: requirementIdSchema.nullable() });
export const stateSchema = z.object({ state: z.enum(ARTEFACT_STATES) });

export const versionSchema = z.object({
  version: z.int(),
  author: z.string(),
  at: z.iso.datetime(),
  note: z.string(),
});
export type Version = z.infer<typeof versionSchema>;
export const versionWithContentSchema = z.intersection(versionSchema, kindAndContentSchema);
export type VersionWithContent = z.infer<typeof versionWithContentSchema>;

/** An artefact whose head cannot be read: what is stored as it is, why it cannot be read, and the versions that can. */
export const brokenArtefactSchema = z.object({
  id: artefactIdSchema,
  title: z.string(),
  version: z.int(),
  issues: z.array(placedIssueSchema),
  raw: z.string(),
  /** Whether `raw` is only the beginning. */
  cut: z.boolean(),
  versions: z.array(versionSchema.extend({ readable: z.boolean() })),
});
export type BrokenArtefact = z.infer<typeof brokenArtefactSchema>;
export const restoreSchema = z.strictObject({ version: versionNumberSchema });

export const CHANGE_ACTIONS = ['create', 'save', 'state', 'move', 'undo', 'import', 'split', 'merge', 'settle', 'settings', 'write', 'takeOut', 'rename'] as const;
export type ChangeAction = (typeof CHANGE_ACTIONS)[number];

/** What one command did, by its first artefact. */
const entrySchema = z.object({
  action: z.enum(CHANGE_ACTIONS),
  /** The first artefact it changed; null when it changed none, as a setting. */
  artefact: artefactIdSchema.nullable(),
  title: z.string(),
  /** How many artefacts it changed. */
  size: z.int(),
  toVersion: z.int().nullable(),
  /** For `state`: the new state. For `undo`: the entry undone. For `import`: the source. */
  detail: z.string(),
});

/** One entry of the journal. */
export const changeSchema = entrySchema.extend({
  id: z.uuid(),
  revision: z.int(),
  author: z.string(),
  at: z.iso.datetime(),
  fromVersion: z.int().nullable(),
  note: z.string(),
  undone: z.boolean(),
  /** For `undo`: what was undone. */
  undid: entrySchema.nullable(),
});
export type Change = z.infer<typeof changeSchema>;

/**
 * Several artefacts made, changed and withdrawn by one command. `detail` says in words what for; a change names the
 * version it starts from. A condition that is made may stand below another of the same command: `under` is its place
 * among those made.
 */
const writeParts = z.strictObject({
  made: z.array(z.intersection(kindAndContentSchema, z.object({ under: z.int().min(0).nullable().optional() }))).max(LIMITS.written),
  changed: z.array(z.intersection(kindAndContentSchema, z.object({ id: artefactIdSchema, version: versionNumberSchema }))).max(LIMITS.written),
  withdrawn: z.array(artefactIdSchema).max(LIMITS.written).default([]),
  /** Artefacts that get a state; one may be changed besides. */
  states: z.array(z.strictObject({ id: artefactIdSchema, state: z.enum(ARTEFACT_STATES) })).max(LIMITS.written).optional(),
  detail: textUpTo(LIMITS.title),
});
export const writeSchema = writeParts.refine(({ changed, withdrawn, states = [] }) => isEachOnce([...changed.map((c) => c.id), ...withdrawn]) && isEachOnce([...states.map((s) => s.id), ...withdrawn]), 'must name each artefact once');
export type Write = z.infer<typeof writeSchema>;

/** What was made, in the order asked for; `change` is null when nothing was to be done. */
export const writtenSchema = z.object({ change: changeSchema.nullable(), made: z.array(artefactIdSchema) });
