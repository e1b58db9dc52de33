import { z } from 'zod';
import { LIMITS, SHORTEST_PASSWORD } from './limits.ts';

/** From least to most; each may do what those before it may. */
export const ROLES = ['reader', 'analyst', 'lead', 'administrator'] as const;
export type Role = (typeof ROLES)[number];

export function roleReaches(have: Role, needed: Role): boolean {
  return ROLES.indexOf(have) >= ROLES.indexOf(needed);
}

export const personSchema = z.object({ id: z.uuid(), name: z.string(), email: z.string(), administrator: z.boolean() });
export type Person = z.infer<typeof personSchema>;

export const demoPersonSchema = z.object({ id: z.uuid(), name: z.string(), job: z.string(), role: z.enum(ROLES) });
export type DemoPerson = z.infer<typeof demoPersonSchema>;

/** Addresses begin with a project's key; these begin other addresses. */
const RESERVED_KEYS = ['api', 'assets', 'healthz', 'new-project'];
const projectKey = z
  .string()
  .regex(/^[a-z][a-z0-9-]{0,39}$/)
  .refine((key) => !RESERVED_KEYS.includes(key), 'is reserved');

export const projectRefSchema = z.object({ key: projectKey, name: z.string(), role: z.enum(ROLES) });
export type ProjectRef = z.infer<typeof projectRefSchema>;

export const sessionSchema = z.object({
  person: personSchema.nullable(),
  projects: z.array(projectRefSchema),
  /** People to sign in as by a click; empty unless Caderno runs with its demo. */
  demoPeople: z.array(demoPersonSchema),
  /** Nobody has an account yet: the first administrator is to be made. */
  needsSetup: z.boolean(),
});
export type Session = z.infer<typeof sessionSchema>;

const password = z.string().min(SHORTEST_PASSWORD).max(LIMITS.password);
const personName = z.string().trim().min(1).max(LIMITS.name);

export const signInSchema = z.union([
  z.object({ email: z.email(), password: z.string().min(1).max(LIMITS.password) }),
  z.object({ demoPerson: z.uuid() }),
]);
export const newAccountSchema = z.object({ name: personName, email: z.email(), password });
export type NewAccount = z.infer<typeof newAccountSchema>;

export const newMemberSchema = newAccountSchema.extend({ role: z.enum(ROLES) });
export type NewMember = z.infer<typeof newMemberSchema>;

export const memberSchema = z.object({ id: z.uuid(), name: z.string(), email: z.string(), role: z.enum(ROLES) });
export type Member = z.infer<typeof memberSchema>;

export const newProjectSchema = z.object({ key: projectKey, name: z.string().trim().min(1).max(LIMITS.name) });
export type NewProject = z.infer<typeof newProjectSchema>;
export const projectKeySchema = projectKey;
