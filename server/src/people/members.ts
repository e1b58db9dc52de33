import { projectRefSchema, memberSchema, demoPersonSchema, ROLES, roleReaches, type BodyOf, type DemoPerson, type Member, type NewMember, type Role, type Session } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { answersAny, execute, inTransaction, modelsOf, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { MailPlace } from '../mail/index.ts';
import { createAccount, hasAccounts } from './accounts.ts';
import { notePersonEvent } from './events.ts';
import { refuseNameTaken } from './ownName.ts';
import { hashPassword, refuseWeakPassword } from './password.ts';
import { SESSIONS_CHANNEL, type DemoSignIn, type SignedIn } from './session.ts';

/** What of the server concerns who signs in. */
export interface Around {
  readonly demoSignIn: DemoSignIn;
  readonly mail: MailPlace | null;
}

/** What the sign-in page and the frame need to know. */
export async function describeSession(work: UnitOfWork, person: SignedIn | null, { demoSignIn, mail }: Around): Promise<Session> {
  const accounts = await hasAccounts(work);
  const open = demoSignIn === 'always' || (demoSignIn === 'whileAlone' && !accounts);
  const demoPeople = open ? await listDemoPeople(work) : [];
  const projects = person === null ? [] : await projectsOf(work, person);
  return {
    person,
    projects,
    mayMakeProjects: person !== null && mayMake(person, projects),
    demoPeople,
    needsSetup: !accounts && demoPeople.length === 0,
    openToAll: demoSignIn === 'always' && demoPeople.length > 0,
    sendsMail: mail !== null,
    mailPage: mail?.page ?? null,
  };
}

/** Administrators of the server may make projects, and whoever leads one. */
export async function mayMakeProjects(work: UnitOfWork, person: SignedIn): Promise<boolean> {
  return person.administrator || mayMake(person, await projectsOf(work, person));
}

function mayMake(person: SignedIn, projects: Session['projects']): boolean {
  return person.administrator || projects.some((p) => roleReaches(p.role, 'lead'));
}

function listDemoPeople(work: UnitOfWork): Promise<DemoPerson[]> {
  return selectRows(
    work,
    demoPersonSchema,
    `SELECT DISTINCT ON (person.name) person.id, person.name, person.demo_job AS job, coalesce(member.role, 'administrator') AS role
     FROM person LEFT JOIN member ON member.person_id = person.id WHERE demo_job IS NOT NULL ORDER BY person.name`,
  );
}

/** The role of a person (parameters 1: id, 2: administrator, 3: of the demo) in a project: the demo's people have one in its projects only. */
const ROLE = `CASE WHEN $3 AND NOT project.demo THEN NULL WHEN $2 THEN 'administrator' ELSE member.role END`;
/** The modules a person sees of it, null for everything. */
const SEES = `CASE WHEN $2 THEN NULL ELSE member.sees END`;
/** Who is in a project is in what it was, too. */
const FROM = `FROM project LEFT JOIN member ON member.project_id = coalesce(project.moment_of, project.id) AND member.person_id = $1`;

async function projectsOf(work: UnitOfWork, person: SignedIn): Promise<Session['projects']> {
  return selectRows(work, projectRefSchema, `SELECT project.key, project.name, ${ROLE} AS role, ${SEES} AS sees ${FROM} WHERE ${ROLE} IS NOT NULL AND project.moment_of IS NULL ORDER BY project.name`, [person.id, person.administrator, person.demo]);
}

const memberRow = z.object({ projectId: z.string(), role: z.enum(ROLES).nullable(), isPast: z.boolean(), sees: z.array(z.string()).nullable(), isHidden: z.boolean() });

/**
 * What a person is in a project; `isPast`: it is a project as it was, which nobody changes; `sees`: the modules that are
 * all they see; `isHidden`: there is more in it than that.
 */
export interface Membership {
  readonly projectId: string;
  readonly role: Role;
  readonly isPast: boolean;
  readonly sees: readonly string[] | null;
  readonly isHidden: boolean;
}

/** A person's role in a project; null when they have none there, or there is no such project. */
export async function roleIn(work: UnitOfWork, person: SignedIn, projectKey: string): Promise<Membership | null> {
  const [row] = await selectRows(work, memberRow, `SELECT project.id AS "projectId", ${ROLE} AS role, project.moment_of IS NOT NULL AS "isPast", ${SEES} AS sees, ${SEES} IS NOT NULL AND project.part IS DISTINCT FROM member.sees AS "isHidden" ${FROM} WHERE project.key = $4`, [person.id, person.administrator, person.demo, projectKey]);
  return row === undefined || row.role === null ? null : { ...row, role: row.isPast ? 'reader' : row.role };
}

export async function listMembers(work: UnitOfWork, projectId: string): Promise<Member[]> {
  return selectRows(
    work,
    memberSchema,
    'SELECT person.id, person.name, person.email, member.role, member.sees FROM member JOIN person ON person.id = member.person_id WHERE member.project_id = $1 ORDER BY person.name',
    [projectId],
  );
}

/** Makes an account and adds it to the project. Nothing is held while the password is hashed. */
export async function addMember(db: Sequelize, by: SignedIn, demoSignIn: DemoSignIn, projectId: string, member: NewMember): Promise<Member> {
  // The first account would close the demo to whoever makes it.
  if (by.demo && demoSignIn !== 'always') throw new DomainError({ code: 'demo_alone' });
  refuseWeakPassword(member.password, [member.name, member.email]);
  const passwordHash = await hashPassword(member.password);
  return inTransaction(db, async (work) => {
    await refuseNameTaken(work, projectId, member.name);
    const id = await createAccount(work, member, passwordHash, false);
    await joinProject(work, projectId, id, member.role);
    await notePersonEvent(work, { action: 'added', by: by.id, about: id, projectId, detail: member.role });
    return { id, name: member.name, email: member.email.toLowerCase(), role: member.role, sees: null };
  });
}

const personRow = z.object({ id: z.string(), name: z.string(), email: z.string(), demo: z.boolean() });

const joinMemberRowX = z.object({ demo: z.boolean() });

/** Adds somebody who has an account. @throws {DomainError} when nobody has this address, or they are in the project already. */
export async function joinMember(work: UnitOfWork, by: SignedIn, projectId: string, { email, role }: BodyOf<'joinMember'>): Promise<Member> {
  const [person] = await selectRows(work, personRow, 'SELECT id, name, email, demo_job IS NOT NULL AS demo FROM person WHERE email = $1 AND active', [email.toLowerCase()]);
  if (person === undefined) throw new DomainError({ code: 'account_unknown', who: email });
  const [project] = await selectRows(work, joinMemberRowX, 'SELECT demo FROM project WHERE id = $1', [projectId]);
  if (person.demo && project?.demo !== true) throw new DomainError({ code: 'demo_person' });
  if (await answersAny(work, 'SELECT 1 FROM member WHERE project_id = $1 AND person_id = $2', [projectId, person.id])) throw new DomainError({ code: 'member_already', who: person.name });
  await refuseNameTaken(work, projectId, person.name);
  const joined = await answersAny(work, 'INSERT INTO member (project_id, person_id, role) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING RETURNING role', [projectId, person.id, role]);
  if (!joined) throw new DomainError({ code: 'member_already', who: person.name });
  await notePersonEvent(work, { action: 'joined', by: by.id, about: person.id, projectId, detail: role });
  return { id: person.id, name: person.name, email: person.email, role, sees: null };
}

export async function joinProject(work: UnitOfWork, projectId: string, personId: string, role: Role): Promise<void> {
  await modelsOf(work.db).Member.create({ projectId, personId, role }, { transaction: work.transaction });
}

export async function changeRole(work: UnitOfWork, by: SignedIn, projectId: string, personId: string, role: Role): Promise<Member> {
  const before = await memberOf(work, projectId, personId);
  if (before.sees !== null && role !== 'reader') throw new DomainError({ code: 'part_of_readers', who: before.name });
  await execute(work, 'UPDATE member SET role = $3 WHERE project_id = $1 AND person_id = $2', [projectId, personId, role]);
  await refuseWithoutAdministrator(work, projectId);
  await notePersonEvent(work, { action: 'roleChanged', by: by.id, about: personId, projectId, detail: `${before.role} → ${role}` });
  return { ...before, role };
}

/** Says which modules a reader sees of a project; null: everything. @throws {DomainError} for somebody who is no reader. */
export async function changeSeenModules(work: UnitOfWork, by: SignedIn, projectId: string, personId: string, modules: readonly string[] | null): Promise<Member> {
  const before = await memberOf(work, projectId, personId);
  if (modules !== null && before.role !== 'reader') throw new DomainError({ code: 'part_of_readers', who: before.name });
  const sees = modules?.toSorted() ?? null;
  await execute(work, 'UPDATE member SET sees = $3 WHERE project_id = $1 AND person_id = $2', [projectId, personId, sees]);
  await notePersonEvent(work, { action: 'seenModulesChanged', by: by.id, about: personId, projectId, detail: sees?.join(', ') ?? 'everything' });
  await endListening(work, personId);
  return { ...before, sees };
}

export async function removeMember(work: UnitOfWork, by: SignedIn, projectId: string, personId: string): Promise<Member[]> {
  const before = await memberOf(work, projectId, personId);
  await execute(work, 'DELETE FROM member WHERE project_id = $1 AND person_id = $2', [projectId, personId]);
  await refuseWithoutAdministrator(work, projectId);
  await notePersonEvent(work, { action: 'removed', by: by.id, about: personId, projectId, detail: before.role });
  await endListening(work, personId);
  return listMembers(work, projectId);
}

/** What they listen to of a project ends; whatever else they have open listens again by itself. */
async function endListening(work: UnitOfWork, personId: string): Promise<void> {
  await execute(work, 'SELECT pg_notify($1, $2)', [SESSIONS_CHANNEL, JSON.stringify({ person: personId })]);
}

/** Locked, so that two administrators do not take each other's role away at once. */
async function memberOf(work: UnitOfWork, projectId: string, personId: string): Promise<Member> {
  await execute(work, 'SELECT 1 FROM project WHERE id = $1 FOR NO KEY UPDATE', [projectId]);
  const member = (await listMembers(work, projectId)).find((m) => m.id === personId);
  if (member === undefined) throw new DomainError({ code: 'account_unknown', who: 'this person in the project' });
  return member;
}

const administratorsRow = z.object({ some: z.boolean() });

/** Administrators of the server reach every project; without any, the project's own last one stays. */
async function refuseWithoutAdministrator(work: UnitOfWork, projectId: string): Promise<void> {
  const [left] = await selectRows(
    work,
    administratorsRow,
    `SELECT EXISTS (SELECT 1 FROM member JOIN person ON person.id = member.person_id WHERE member.project_id = $1 AND member.role = 'administrator' AND person.active) AS some`,
    [projectId],
  );
  if (left?.some !== true) throw new DomainError({ code: 'last_administrator' });
}
