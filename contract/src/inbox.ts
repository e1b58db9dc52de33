import { ARTEFACT_STATES } from '@caderno/core/artefacts';
import { z } from 'zod';
import { artefactIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';

/** Why something reaches somebody, the most urgent first. */
export const INBOX_REASONS = ['named', 'answered', 'asked', 'review', 'objected', 'remarked', 'suspect', 'changed', 'changedMany', 'imported', 'unsent'] as const;
/**
 * Somebody named one with `@`; answered in a thread one spoke in; asked one a question; asked one to agree; objected in a
 * review one asked for; said something of what one follows; a link turned suspect in what one owns; what one follows
 * changed, by itself or in a command on many; an import of one's own ended; a mail of one's own was given up.
 */
export type InboxReason = (typeof INBOX_REASONS)[number];

const entryId = z.int().min(1).max(Number.MAX_SAFE_INTEGER);

/** One thing that reached somebody. Facts that its reason has none of are null. */
export const inboxEntrySchema = z.object({
  id: entryId,
  reason: z.enum(INBOX_REASONS),
  by: z.string(),
  at: z.iso.datetime(),
  artefact: z.object({ id: artefactIdSchema, title: z.string(), isThere: z.boolean() }).nullable(),
  /** What was unread of it, and what it is now. */
  fromVersion: z.int().nullable(),
  toVersion: z.int().nullable(),
  state: z.enum(ARTEFACT_STATES).nullable(),
  /** What was said; null where it was taken back. */
  text: z.string().nullable(),
  /** How many changed. */
  count: z.int(),
  review: z.object({ number: z.int(), title: z.string() }).nullable(),
  /** What changed, so that a link is suspect. */
  because: artefactIdSchema.nullable(),
  read: z.boolean(),
  kept: z.boolean(),
});
/** See {@link inboxEntrySchema}. */
export type InboxEntry = z.infer<typeof inboxEntrySchema>;

/** Which entries are shown. */
export const INBOX_PARTS = ['unread', 'kept', 'all'] as const;
/** See {@link INBOX_PARTS}. */
export type InboxPart = (typeof INBOX_PARTS)[number];

/** A page of them; `before` leads on from the last one of a page. */
export const inboxQuerySchema = z.object({ part: z.enum(INBOX_PARTS), reason: z.enum(INBOX_REASONS).optional(), before: z.coerce.number().pipe(entryId).optional() });

/** Unread ones are counted up to this. */
export const MOST_COUNTED = 999;
/** Those of a page, the latest first, and whether there are more. */
export const inboxPageSchema = z.object({ entries: z.array(inboxEntrySchema), more: z.boolean() });
/** How many are unread, up to {@link MOST_COUNTED}. */
export const inboxCountSchema = z.object({ unread: z.int() });

/** What is said of some entries, or of all that are unread. */
export const inboxMarksSchema = z.strictObject({
  of: z.union([z.strictObject({ ids: z.array(entryId).min(1).max(500) }), z.strictObject({ everything: z.literal(true) })]),
  read: z.boolean().optional(),
  kept: z.boolean().optional(),
});
/** See {@link inboxMarksSchema}. */
export type InboxMarks = z.infer<typeof inboxMarksSchema>;

/** How soon what reaches somebody is mailed to them as well. */
export const MAIL_PACES = ['atOnce', 'daily', 'never'] as const;
/** At once: a few minutes later, unless it was read meanwhile; daily: in the morning, what is not read by then. */
export type MailPace = (typeof MAIL_PACES)[number];
/** What is mailed as long as somebody chooses nothing else: whoever waits for them. */
export const USUAL_PACE: Readonly<Record<InboxReason, MailPace>> = { named: 'atOnce', answered: 'daily', asked: 'atOnce', review: 'atOnce', objected: 'daily', remarked: 'never', suspect: 'never', changed: 'never', changedMany: 'never', imported: 'never', unsent: 'never' };

const paces = z.strictObject(Object.fromEntries(INBOX_REASONS.map((reason) => [reason, z.enum(MAIL_PACES)])) as Record<InboxReason, z.ZodEnum<{ [P in MailPace]: P }>>);
/** The reasons for which nothing is to reach somebody, and how soon what does is mailed. */
export const inboxChoicesSchema = z.strictObject({ silent: z.array(z.enum(INBOX_REASONS)).max(LIMITS.tags).refine(isEachOnce, 'must not repeat'), mail: paces });
/** See {@link inboxChoicesSchema}. */
export type InboxChoices = z.infer<typeof inboxChoicesSchema>;

/** Whether somebody follows an artefact, and why: they chose to, own it, or wrote in it. */
export const followingSchema = z.object({ follows: z.boolean(), why: z.enum(['chosen', 'owner', 'wrote']).nullable() });
/** See {@link followingSchema}. */
export type Following = z.infer<typeof followingSchema>;
/** What somebody chooses; null: as it comes. */
export const followSchema = z.strictObject({ follows: z.boolean().nullable() });

/** Whom something reached: their pages ask again. */
export const deliveredSchema = z.object({ people: z.array(z.uuid()) });
