import { z } from 'zod';
import { momentTextSchema } from './moment.ts';
import { LIMITS, SHORTEST_PASSWORD } from './limits.ts';
import { isEachOnce } from './once.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

/** From least to most; each may do what those before it may. */
export const ROLES = ['reader', 'analyst', 'lead', 'administrator'] as const;
/** What somebody may do in a project; each may what those before it may. */
export type Role = (typeof ROLES)[number];

/** Whether a role is at least another. */
export function roleReaches(have: Role, needed: Role): boolean {
  return ROLES.indexOf(have) >= ROLES.indexOf(needed);
}

/** A person as they see themselves. */
export const personSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  administrator: z.boolean(),
  /** One of the demo's people, who have no password. */
  demo: z.boolean(),
});
/** See {@link personSchema}. */
export type Person = z.infer<typeof personSchema>;

/** One of the demo’s people, to sign in as by a click. */
export const demoPersonSchema = z.object({ id: z.uuid(), name: z.string(), job: z.string(), role: z.enum(ROLES) });
/** See {@link demoPersonSchema}. */
export type DemoPerson = z.infer<typeof demoPersonSchema>;

/** Addresses begin with a project's key; these begin other addresses. */
const RESERVED_KEYS = ['api', 'assets', 'healthz', 'invited', 'livez', 'metrics', 'new-address', 'new-project', 'reset', 'shown'];
const projectKey = z
  .string()
  .regex(/^[a-z][a-z0-9-]{0,39}$/)
  .refine((key) => !RESERVED_KEYS.includes(key), 'is reserved');

/** Small letters, digits and dashes, none that an address of ours has; with a moment behind an `@` the project as it was then. */
export const projectKeySchema = z.string().transform((key, context) => {
  const [project = '', moment, ...more] = key.split('@');
  if (more.length === 0 && projectKey.safeParse(project).success && (moment === undefined || momentTextSchema.safeParse(moment).success)) return key;
  context.addIssue({ code: 'custom', message: 'is the key of no project' });
  return z.NEVER;
});

/** The modules that somebody sees, and nothing else of the project; null: all of it. */
const sees = z.array(z.string()).nullable();

/** A project, and what one may do and see in it. `key` stands in addresses. */
export const projectRefSchema = z.object({ key: projectKeySchema, name: z.string(), role: z.enum(ROLES), sees });
/** See {@link projectRefSchema}. */
export type ProjectRef = z.infer<typeof projectRefSchema>;

/** A project as it was, opened to be read below a key of its own; `at`: when that was. */
export const openedMomentSchema = projectRefSchema.extend({ at: z.iso.datetime() });
/** See {@link openedMomentSchema}. */
export type OpenedMoment = z.infer<typeof openedMomentSchema>;

/** Who is signed in, what is open to them, and how one could sign in. */
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
  /** Whether this server sends mail, and where a simulated one shows what it took; null: a real one. */
  sendsMail: z.boolean(),
  mailPage: z.string().nullable(),
});
/** See {@link sessionSchema}. */
export type Session = z.infer<typeof sessionSchema>;

const password = textUpTo(LIMITS.password).refine((text) => text.length >= SHORTEST_PASSWORD, `must have at least ${SHORTEST_PASSWORD} characters`);
const typedPassword = textUpTo(LIMITS.password).refine((text) => text !== '', 'must not be empty');
const personName = trimmedTextUpTo(LIMITS.name);
const email = z.email().max(LIMITS.name);

/** By address and password, or as one of the demo’s people. */
export const signInSchema = z.union([
  z.object({ email, password: typedPassword }),
  z.object({ demoPerson: z.uuid() }),
]);
/** An account that is made for somebody. */
export const newAccountSchema = z.object({ name: personName, email, password });
/** See {@link newAccountSchema}. */
export type NewAccount = z.infer<typeof newAccountSchema>;

/** Somebody new, with their role in the project. */
export const newMemberSchema = newAccountSchema.extend({ role: z.enum(ROLES) });
/** See {@link newMemberSchema}. */
export type NewMember = z.infer<typeof newMemberSchema>;

/** Somebody of a project. */
export const memberSchema = z.object({ id: z.uuid(), name: z.string(), email: z.string(), role: z.enum(ROLES), sees });
/** See {@link memberSchema}. */
export type Member = z.infer<typeof memberSchema>;

/** A project to be made; its key never changes. */
export const newProjectSchema = z.object({ key: projectKey, name: trimmedTextUpTo(LIMITS.name) });
/** See {@link newProjectSchema}. */
export type NewProject = z.infer<typeof newProjectSchema>;
/** The first administrator, with the word that Caderno printed when it was started. */
export const setUpSchema = newAccountSchema.extend({ word: trimmedTextUpTo(LIMITS.name) });
/** The first administrator, and the word that the server printed. */
export type SetUp = z.infer<typeof setUpSchema>;

/** Somebody who has an account already joins a project. */
export const existingMemberSchema = z.strictObject({ email, role: z.enum(ROLES) });
/** The modules that somebody is to see, in any order; null: everything. */
export const seenModulesSchema = z.strictObject({ sees: z.array(textUpTo(LIMITS.name).refine((name) => name.trim() !== '', 'must not be empty')).min(1).max(LIMITS.modules).refine(isEachOnce, 'must not repeat').nullable() });
/** The role somebody is to have. */
export const roleSchema = z.strictObject({ role: z.enum(ROLES) });
