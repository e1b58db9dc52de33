import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { z } from 'zod';
import { handOffNumberSchema } from './handOffs.ts';
import { artefactIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

const moment = z.iso.datetime();

/** Where a mail stands: it waits for the mail server, was taken by it, or will never be. */
export const MAIL_STATES = ['waiting', 'sent', 'refused'] as const;
/** See {@link MAIL_STATES}. */
export type MailState = (typeof MAIL_STATES)[number];

/** A mail that one sent. `answer`: what the mail server said last; '' nothing yet. */
export const mailLineSchema = z.object({
  id: z.uuid(),
  to: z.string(),
  subject: z.string(),
  state: z.enum(MAIL_STATES),
  answer: z.string(),
  tries: z.int(),
  madeAt: moment,
  /** When it is tried next, while it waits. */
  nextAt: moment.nullable(),
  /** When it was sent, or given up. */
  endedAt: moment.nullable(),
});
/** See {@link mailLineSchema}. */
export type MailLine = z.infer<typeof mailLineSchema>;

/** Somebody of the project, or whoever has an address. */
const recipient = z.union([z.strictObject({ person: z.uuid() }), z.strictObject({ address: z.email().max(LIMITS.name) })]);
/** What is sent: an artefact, the list that a query finds, or somebody's part of a hand-off. */
const sent = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('artefact'), id: artefactIdSchema }),
  z.strictObject({ what: z.literal('list'), kind: z.enum(ARTEFACT_KINDS), query: textUpTo(LIMITS.address) }),
  z.strictObject({ what: z.literal('handOff'), number: handOffNumberSchema, person: trimmedTextUpTo(LIMITS.name) }),
]);
/** A note and a link, for some people. */
export const sendByMailSchema = z.strictObject({ to: z.array(recipient).min(1).max(LIMITS.recipients), of: sent, note: textUpTo(LIMITS.note) });
/** See {@link sendByMailSchema}. */
export type SendByMail = z.infer<typeof sendByMailSchema>;

/** How mail stands on this server, for administrators. */
export const mailStandingSchema = z.object({
  /** Where it is sent to; null: no mail server is named, and no mail is sent. */
  server: z.string().nullable(),
  from: z.string(),
  waiting: z.int(),
  /** Given up within the last week. */
  refused: z.int(),
  /** What the mail server said to the last mail that could not be sent, while one waits or was given up. */
  lastAnswer: z.string(),
});
/** See {@link mailStandingSchema}. */
export type MailStanding = z.infer<typeof mailStandingSchema>;
