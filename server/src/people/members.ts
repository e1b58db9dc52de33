import type { DemoPerson, Member, NewAccount, NewMember, Role, Session } from '@caderno/contract';
import { modelsOf, selectRows, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { hashPassword } from './password.ts';
import type { SignedIn } from './session.ts';

/** What the sign-in page and the frame need to know. */
export async function describeSession(work: Work, person: SignedIn | null): Promise<Session> {
  const demoPeople = await selectRows<DemoPerson>(
    work,
    `SELECT DISTINCT ON (person.name) person.id, person.name, person.demo_job AS job, coalesce(member.role, 'administrator') AS role
     FROM person LEFT JOIN member ON member.person_id = person.id WHERE demo_job IS NOT NULL ORDER BY person.name`,
  );
  const [people] = await selectRows<{ count: number }>(work, 'SELECT count(*)::int AS count FROM person');
  return { person, projects: person === null ? [] : await projectsOf(work, person), demoPeople, needsSetup: people?.count === 0 };
}

async function projectsOf(work: Work, person: SignedIn): Promise<Session['projects']> {
  return selectRows(
    work,
    `SELECT project.key, project.name, CASE WHEN $2 THEN 'administrator' ELSE member.role END AS role
     FROM project LEFT JOIN member ON member.project_id = project.id AND member.person_id = $1
     WHERE $2 OR member.role IS NOT NULL ORDER BY project.name`,
    [person.id, person.administrator],
  );
}

/** A person's role in a project; null when they have none there, or there is no such project. */
export async function roleIn(work: Work, person: SignedIn, projectKey: string): Promise<{ projectId: string; role: Role } | null> {
  const [row] = await selectRows<{ projectId: string; role: Role | null }>(
    work,
    `SELECT project.id AS "projectId", CASE WHEN $2 THEN 'administrator' ELSE member.role END AS role
     FROM project LEFT JOIN member ON member.project_id = project.id AND member.person_id = $1 WHERE project.key = $3`,
    [person.id, person.administrator, projectKey],
  );
  return row === undefined || row.role === null ? null : { projectId: row.projectId, role: row.role };
}

export async function listMembers(work: Work, projectId: string): Promise<Member[]> {
  return selectRows<Member>(
    work,
    'SELECT person.id, person.name, person.email, member.role FROM member JOIN person ON person.id = member.person_id WHERE member.project_id = $1 ORDER BY person.name',
    [projectId],
  );
}

/** Makes the first administrator. @throws Refused when there is anybody already. */
export async function setUp(work: Work, account: NewAccount): Promise<string> {
  await work.db.query('LOCK TABLE person IN EXCLUSIVE MODE', { transaction: work.transaction });
  const { Person } = modelsOf(work.db);
  if ((await Person.count({ transaction: work.transaction })) > 0) throw new Refused({ code: 'set_up_already' });
  return createAccount(work, account, true);
}

export async function addMember(work: Work, projectId: string, member: NewMember): Promise<Member> {
  const id = await createAccount(work, member, false);
  await joinProject(work, projectId, id, member.role);
  return { id, name: member.name, email: member.email.toLowerCase(), role: member.role };
}

export async function joinProject(work: Work, projectId: string, personId: string, role: Role): Promise<void> {
  await modelsOf(work.db).Member.create({ projectId, personId, role }, { transaction: work.transaction });
}

async function createAccount(work: Work, account: NewAccount, administrator: boolean): Promise<string> {
  const { Person } = modelsOf(work.db);
  const email = account.email.toLowerCase();
  if ((await Person.count({ where: { email }, transaction: work.transaction })) > 0) throw new Refused({ code: 'person_exists', email });
  const person = await Person.create(
    { name: account.name, email, passwordHash: await hashPassword(account.password), administrator, demoJob: null },
    { transaction: work.transaction },
  );
  return person.id;
}

/** A person of the demo: no password, signed in as by a click. */
export async function createDemoPerson(work: Work, person: { name: string; email: string; job: string; administrator: boolean }): Promise<string> {
  const row = await modelsOf(work.db).Person.create(
    { name: person.name, email: person.email, passwordHash: null, administrator: person.administrator, demoJob: person.job },
    { transaction: work.transaction },
  );
  return row.id;
}
