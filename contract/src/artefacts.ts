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

/** What lists show of a requirement. `position` orders it among those below the same parent. */
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
/** What lists show of a condition. */
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
/** What lists show of a case. Counts are of its own rows and steps; what others lend it is coverage’s to count. */
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
/** What lists show of a question. `asked` is whom; `answeredAt` is empty while it is open. */
export const questionSummarySchema = z.object({
  kind: z.literal('question'),
  id: questionIdSchema,
  ...head,
  status: z.enum(QUESTION_STATUSES),
  asked: z.string(),
  about: z.array(z.union([requirementIdSchema, conditionIdSchema])),
  answeredAt: z.string(),
});
/** What lists show of shared steps. */
export const sharedSummarySchema = z.object({ kind: z.literal('shared'), id: sharedIdSchema, ...head, tags: z.array(z.string()), steps: count, parameters: z.array(z.string()) });
/** What lists show of a data set. `serves`: the conditions its columns carry values of. */
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
/** What lists show of an artefact of any kind. */
export const summarySchema = z.discriminatedUnion('kind', [requirementSummarySchema, conditionSummarySchema, caseSummarySchema, questionSummarySchema, sharedSummarySchema, dataSetSummarySchema]);
/** See {@link requirementSummarySchema}. */
export type RequirementSummary = z.infer<typeof requirementSummarySchema>;
/** See {@link conditionSummarySchema}. */
export type ConditionSummary = z.infer<typeof conditionSummarySchema>;
/** See {@link caseSummarySchema}. */
export type CaseSummary = z.infer<typeof caseSummarySchema>;
/** See {@link questionSummarySchema}. */
export type QuestionSummary = z.infer<typeof questionSummarySchema>;
/** See {@link sharedSummarySchema}. */
export type SharedSummary = z.infer<typeof sharedSummarySchema>;
/** See {@link dataSetSummarySchema}. */
export type DataSetSummary = z.infer<typeof dataSetSummarySchema>;
/** What lists show of an artefact of any kind: its head. */
export type Summary = z.infer<typeof summarySchema>;

/** The working text of one person, kept until it becomes a version; with the content it grew from, to merge by. Null: it grew from the head. */
function draftOf<C extends z.ZodType>(content: C) {
  return z.object({ base: z.int(), at: z.iso.datetime(), content, baseContent: content.nullable() }).nullable();
}

/** An artefact that is opened: its head, the content of its newest version, and one’s own draft. */
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
/** An opened artefact of any kind; `kind` tells which content it has. */
export type Artefact = z.infer<typeof artefactSchema>;
/** An opened artefact of one kind. */
export type ArtefactOfKind<K extends Artefact['kind']> = Extract<Artefact, { kind: K }>;

/** A requirement may be given its place: below `parent`, after `after` (null: first). Others have none. */
export const newArtefactSchema = z.intersection(
  kindAndContentSchema,
  z.object({ parent: requirementIdSchema.nullable().optional(), after: requirementIdSchema.nullable().optional() }),
);
/** What is needed to make an artefact. */
export type NewArtefact = z.infer<typeof newArtefactSchema>;

/** Counts a person’s drafts of an artefact on, over all their windows: what was typed before is kept after nothing that was typed later. A save or a drop with one ends all drafts up to it. */
const draftSequence = z.int().min(0);

/** `keepsDraft`: the content was not made of one's own draft, which stays. */
export const saveSchema = z.intersection(kindAndContentSchema, z.object({ note: textUpTo(LIMITS.note), keepsDraft: z.boolean().optional(), sequence: draftSequence.optional() }));
/** A working text; `base` is the version it grew from. */
export const draftSchema = z.intersection(kindAndContentSchema, z.object({ base: versionNumberSchema, sequence: draftSequence }));
/** Drops what was typed until `sequence`; without it, whatever is kept. */
export const dropDraftQuerySchema = z.object({ sequence: z.coerce.number().pipe(draftSequence).optional() });
/** When the server kept it, by its own clock. */
export const draftKeptSchema = z.object({ at: z.iso.datetime() });
/** Below which requirement, and after which of those there (null: as the first). */
export const placeSchema = z.object({ parent: requirementIdSchema.nullable(), after: requirementIdSchema.nullable() });
/** The state an artefact is to have. `agreed` agrees its newest version. */
export const stateSchema = z.object({ state: z.enum(ARTEFACT_STATES) });

/** A version in the list of an artefact’s versions. */
export const versionSchema = z.object({
  version: z.int(),
  author: z.string(),
  at: z.iso.datetime(),
  note: z.string(),
});
/** A version without its content. */
export type Version = z.infer<typeof versionSchema>;
/** A version with its content, brought to the newest form of its kind. */
export const versionWithContentSchema = z.intersection(versionSchema, kindAndContentSchema);
/** A version and what it says. */
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
/** What is stored of an artefact that cannot be read, and which versions can. */
export type BrokenArtefact = z.infer<typeof brokenArtefactSchema>;
/** An earlier version that is to be the newest. */
export const restoreSchema = z.strictObject({ version: versionNumberSchema });

/** What an entry of the journal can be. */
export const CHANGE_ACTIONS = ['create', 'save', 'state', 'move', 'undo', 'import', 'split', 'merge', 'settle', 'settings', 'write', 'takeOut', 'rename'] as const;
/** What a command did. */
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
/** An entry of the journal: one command, undone as one. */
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
/** See above; each artefact is named once. */
export const writeSchema = writeParts.refine(({ changed, withdrawn, states = [] }) => isEachOnce([...changed.map((c) => c.id), ...withdrawn]) && isEachOnce([...states.map((s) => s.id), ...withdrawn]), 'must name each artefact once');
/** Several artefacts made, changed and withdrawn by one command. */
export type Write = z.infer<typeof writeSchema>;

/** What was made, in the order asked for; `change` is null when nothing was to be done. */
export const writtenSchema = z.object({ change: changeSchema.nullable(), made: z.array(artefactIdSchema) });
