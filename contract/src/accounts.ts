import { z } from 'zod';
import { LIMITS, SHORTEST_PASSWORD } from './limits.ts';
import { MAIL_STATES } from './mail.ts';
import { ROLES, existingMemberSchema, memberSchema, newProjectSchema } from './people.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

const moment = z.iso.datetime();

/** An account as administrators of the server see it. */
export const accountSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  administrator: z.boolean(),
  /** Whoever is not active cannot sign in; nothing of theirs is lost. */
  active: z.boolean(),
  demo: z.boolean(),
  projects: z.int(),
  lastSignIn: moment.nullable(),
});
/** An account as administrators of the server see it. `lastSignIn` is the last one by password; null: never. */
export type Account = z.infer<typeof accountSchema>;
/** What is left out stays as it is. */
export const accountChangeSchema = z.strictObject({ active: z.boolean().optional(), administrator: z.boolean().optional() });

/** One of one's own sessions. */
export const sessionLineSchema = z.object({ id: z.uuid(), startedAt: moment, seenAt: moment, agent: z.string(), current: z.boolean() });
/** One of a person’s own sessions: in which browser, since when, and whether it is this one. */
export type SessionLine = z.infer<typeof sessionLineSchema>;

/** What a program may do with an access token: read, or write too. */
export const TOKEN_SCOPES = ['read', 'write'] as const;
export type TokenScope = (typeof TOKEN_SCOPES)[number];

/** One of one's own access tokens. `usedAt`: null: never yet. */
export const accessTokenSchema = z.object({ id: z.uuid(), name: z.string(), project: z.string(), projectName: z.string(), scope: z.enum(TOKEN_SCOPES), madeAt: moment, usedAt: moment.nullable(), expiresAt: moment });
/** See {@link accessTokenSchema}. */
export type AccessTokenLine = z.infer<typeof accessTokenSchema>;
/** A token for one project; it ends after so many days. */
export const newAccessTokenSchema = z.strictObject({ name: trimmedTextUpTo(LIMITS.name), project: newProjectSchema.shape.key, scope: z.enum(TOKEN_SCOPES), days: z.int().min(1).max(366) });
/** See {@link newAccessTokenSchema}. */
export type NewAccessToken = z.infer<typeof newAccessTokenSchema>;
/** The token in the clear, this once, among all of one's own. */
export const madeAccessTokenSchema = z.object({ token: z.string(), tokens: z.array(accessTokenSchema) });

/** A word out of a link that was mailed; it works once. */
const linkWord = z.string().regex(/^[\w-]{20,80}$/);
const newPassword = textUpTo(LIMITS.password).refine((text) => text.length >= SHORTEST_PASSWORD, `must have at least ${SHORTEST_PASSWORD} characters`);
/** `current` is asked for again, so that nobody changes it on a machine that was left open. */
export const changePasswordSchema = z.strictObject({ current: textUpTo(LIMITS.password), next: newPassword });
/** `token` comes from a link that an administrator made; it works once. */
export const resetPasswordSchema = z.strictObject({ token: linkWord, password: newPassword });
/** Leads whoever has it to a page where they set a new password, once. */
export const resetLinkSchema = z.object({ token: z.string(), endsAt: moment });

/** A link's word, to see what it opens. */
export const linkWordSchema = z.strictObject({ token: linkWord });
/** Whose password was forgotten. */
export const forgottenSchema = z.strictObject({ email: z.email().max(LIMITS.name) });
/** What one wants to be called. */
export const newNameSchema = z.strictObject({ name: trimmedTextUpTo(LIMITS.name).refine((name) => name !== '', 'must not be empty') });
/** The address one wants to have, with one's password, so that nobody changes it on a machine that was left open. */
export const newEmailSchema = z.strictObject({ email: z.email().max(LIMITS.name), password: textUpTo(LIMITS.password) });

/** Somebody to be in the project who may have no account yet. */
export const newInvitationSchema = existingMemberSchema;
/** An invitation that waits. `mail`: how its mail stands, and what the mail server said; null: it is gone. */
export const invitationSchema = z.object({ id: z.uuid(), email: z.string(), role: z.enum(ROLES), by: z.string(), madeAt: moment, endsAt: moment, mail: z.object({ state: z.enum(MAIL_STATES), answer: z.string() }).nullable() });
/** See {@link invitationSchema}. */
export type Invitation = z.infer<typeof invitationSchema>;
/** Those that wait; and who had an account already, so that they are in the project at once. */
export const invitedSchema = z.object({ invitations: z.array(invitationSchema), joined: memberSchema.nullable() });
/** What an invitation is to, for whom it was sent to. */
export const openedInvitationSchema = z.object({ project: z.string(), email: z.string(), role: z.enum(ROLES), by: z.string() });
/** By whom an invitation is taken up. */
export const acceptInvitationSchema = z.strictObject({ token: linkWord, name: trimmedTextUpTo(LIMITS.name), password: newPassword });

/** What the journal of people can say. */
export const PERSON_ACTIONS = [
  'setUp', 'added', 'joined', 'removed', 'roleChanged', 'seenModulesChanged', 'signedIn', 'signInRefused', 'signedOut', 'passwordChanged', 'resetLinkMade', 'passwordReset',
  'deactivated', 'activated', 'administratorMade', 'administratorUnmade', 'sessionEnded', 'secretRevealed', 'hostsChanged', 'tokenMade', 'tokenWithdrawn',
  'invited', 'invitationWithdrawn', 'invitationAccepted', 'passwordForgotten', 'emailChanged', 'renamed',
  'readLinkMade', 'readLinkEnded',
] as const;
/** What was done by or about a person. */
export type PersonAction = (typeof PERSON_ACTIONS)[number];

/** An entry of the journal of people. */
export const personEventSchema = z.object({
  id: z.int(),
  at: moment,
  action: z.enum(PERSON_ACTIONS),
  /** Who did it; null: somebody who was not signed in. */
  by: z.string().nullable(),
  /** Whom it is about, when that is somebody else. */
  about: z.string().nullable(),
  project: z.string().nullable(),
  detail: z.string(),
});
/** An entry of the journal of people, of the server or of one project. */
export type PersonEvent = z.infer<typeof personEventSchema>;
/** `before`: the number of an entry; those older than it are answered. */
export const personEventQuerySchema = z.object({ before: z.coerce.number().pipe(z.int().min(0).max(LIMITS.number)).optional() });

const HOST = /^(?:[a-z0-9](?:[a-z0-9.-]{0,250}[a-z0-9])?|\[[0-9a-f:.]+\])(?::(?:\d{1,5}|\*))?$/;

/** Hosts that a story tracker may have: a name or an address, with or without a port; `*` for any port. */
export const outsideHostsSchema = z.strictObject({ hosts: z.array(z.string().trim().toLowerCase().regex(HOST, 'must be a host, as tracker.example or 10.1.2.3:8080')).max(100) });

/** A secret constant's value in a configuration; null: the usual one. */
export const revealSchema = z.strictObject({ configuration: textUpTo(LIMITS.name).nullable() });
/** A secret in the clear. Never kept, and looking is noted. */
export const revealedSchema = z.object({ value: z.string() });
