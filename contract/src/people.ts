import { z } from 'zod';
import { LIMITS, SHORTEST_PASSWORD } from './limits.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

/** From least to most; each may do what those before it may. */
export const ROLES = ['reader', 'analyst', 'lead', 'administrator'] as const;
export type Role = (typeof ROLES)[number];

export function roleReaches(have: Role, needed: Role): boolean {
  return ROLES.indexOf(have) >= ROLES.indexOf(needed);
}

export const personSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  administrator: z.boolean(),
  /** One of the demo's people, who have no password. */
  demo: z.boolean(),
});
export type Person = z.infer<typeof personSchema>;

export const demoPersonSchema = z.object({ id: z.uuid(), name: z.string(), job: z.string(), role: z.enum(ROLES) });
export type DemoPerson = z.infer<typeof demoPersonSchema>;

/** Addresses begin with a project's key; these begin other addresses. */
const RESERVED_KEYS = ['api', 'assets', 'healthz', 'livez', 'metrics', 'new-project', 'reset'];
const projectKey = z
  .string()
  .regex(/^[a-z][a-z0-9-]{0,39}$/)
  .refine((key) => !RESERVED_KEYS.includes(key), 'is reserved');

export const projectRefSchema = z.object({ key: projectKey, name: z.string(), role: z.enum(ROLES) });
export type ProjectRef = z.infer<typeof projectRefSchema>;

export const sessionSchema = z.object({
  person: personSchema.nullable(),
  projects: z.array(projectRefSchema),
  /** Administrators may, and whoever leads a project. */
  mayMakeProjects: z.boolean(),
  /** People to sign in as by a click; empty unless Caderno runs with its demo and nobody else could do so. */
  demoPeople: z.array(demoPersonSchema),
  /** Nobody has an account yet: the first administrator is to be made. */
  needsSetup: z.boolean(),
  /** Everybody who reaches this server may sign in as the demo's people: it was started so. */
  openToAll: z.boolean(),
});
export type Session = z.infer<typeof sessionSchema>;

const password = textUpTo(LIMITS.password).refine((text) => text.length >= SHORTEST_PASSWORD, `must have at least ${SHORTEST_PASSWORD} characters`);
const typedPassword = textUpTo(LIMITS.password).refine((text) => text !== '', 'must not be empty');
const personName = trimmedTextUpTo(LIMITS.name);
const email = z.email().max(LIMITS.name);

export const signInSchema = z.union([
  z.object({ email, password: typedPassword }),
  z.object({ demoPerson: z.uuid() }),
]);
export const newAccountSchema = z.object({ name: personName, email, password });
export type NewAccount = z.infer<typeof newAccountSchema>;

export const newMemberSchema = newAccountSchema.extend({ role: z.enum(ROLES) });
export type NewMember = z.infer<typeof newMemberSchema>;

export const memberSchema = z.object({ id: z.uuid(), name: z.string(), email: z.string(), role: z.enum(ROLES) });
export type Member = z.infer<typeof memberSchema>;

export const newProjectSchema = z.object({ key: projectKey, name: trimmedTextUpTo(LIMITS.name) });
export type NewProject = z.infer<typeof newProjectSchema>;
export const projectKeySchema = projectKey;

/** The first administrator, with the word that Caderno printed when it was started. */
export const setUpSchema = newAccountSchema.extend({ word: trimmedTextUpTo(LIMITS.name) });
export type SetUp = z.infer<typeof setUpSchema>;

/** Somebody who has an account already joins a project. */
export const existingMemberSchema = z.strictObject({ email, role: z.enum(ROLES) });
export const roleSchema = z.strictObject({ role: z.enum(ROLES) });
