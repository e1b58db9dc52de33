import { ARTEFACT_STATES, type ArtefactKind } from '@caderno/core/artefacts';
import type { ContentOfKind } from '@caderno/core/kinds';
import { z } from 'zod';
import { artefactIdSchema, requirementIdSchema, versionNumberSchema } from './ids.ts';
import { KIND_SCHEMA, kindAndContentSchema, unionOfKinds, type SummaryOfKind } from './kinds/index.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { placedIssueSchema } from './placedIssue.ts';
import { textUpTo } from './text.ts';

/** The working text of one person, kept until it becomes a version; with the content it grew from, to merge by. */
export interface Draft<C> {
  /** The version it grew from. */
  readonly base: number;
  readonly at: string;
  readonly content: C;
  /** Null: it grew from the head. */
  readonly baseContent: C | null;
}

/** An opened artefact of one kind: its head, the content of its newest version, and one’s own draft. */
export interface ArtefactOfKind<K extends ArtefactKind> {
  readonly kind: K;
  readonly summary: SummaryOfKind[K];
  readonly content: ContentOfKind[K];
  readonly draft: Draft<ContentOfKind[K]> | null;
}
/** An opened artefact of any kind; `kind` tells which content it has. */
export type Artefact = { [K in ArtefactKind]: ArtefactOfKind<K> }[ArtefactKind];

/** See {@link Artefact}. */
export const artefactSchema = unionOfKinds<Artefact>((kind) => {
  const { summary, content } = KIND_SCHEMA[kind];
  return { summary, content, draft: z.object({ base: z.int(), at: z.iso.datetime(), content, baseContent: content.nullable() }).nullable() };
});

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
/** A version in the list of an artefact’s versions, with what was said of it in reviews. */
export const reviewedVersionSchema = versionSchema.extend({ answers: z.array(z.object({ review: z.int(), name: z.string(), agrees: z.boolean(), note: z.string(), at: z.iso.datetime() })) });
/** See {@link reviewedVersionSchema}. */
export type ReviewedVersion = z.infer<typeof reviewedVersionSchema>;
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
export const CHANGE_ACTIONS = ['create', 'save', 'state', 'move', 'undo', 'import', 'split', 'merge', 'settle', 'settings', 'write', 'takeOut', 'rename', 'review', 'baseline'] as const;
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
  /** For `state`: the new state. For `undo`: the entry undone. For `import`: the source. For `review`: its number and what became of it. For `baseline`: its number and name. */
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
