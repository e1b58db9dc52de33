import { z } from 'zod';
import { answersAny, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { notePersonEvent } from './events.ts';
import type { SignedIn } from './session.ts';

const projectRow = z.object({ id: z.string() });

/** Two at once would both find that nobody is called so. */
async function lockName(work: UnitOfWork, name: string): Promise<void> {
  await execute(work, 'SELECT pg_advisory_xact_lock(hashtextextended(lower($1), 2))', [name]);
}

/** @throws {DomainError} when somebody is called so in a project that another one of this name is to join. */
export async function refuseNameTaken(work: UnitOfWork, projectId: string, name: string): Promise<void> {
  await lockName(work, name);
  const taken = await answersAny(work, 'SELECT 1 FROM member JOIN person ON person.id = member.person_id WHERE member.project_id = $1 AND lower(person.name) = lower($2)', [projectId, name]);
  if (taken) throw new DomainError({ code: 'name_taken', name });
}

/**
 * Gives somebody the name they want to be called by; answers the projects in which they may edit, where what they own
 * names them still as before. @throws {DomainError} when somebody beside them in a project is called so already: nobody
 * passes for another.
 */
export async function changeName(work: UnitOfWork, person: SignedIn, name: string): Promise<string[]> {
  if (person.demo) throw new DomainError({ code: 'demo_person' });
  if (name === person.name) return [];
  await lockName(work, name);
  const taken = await answersAny(
    work,
    'SELECT 1 FROM person p WHERE p.id <> $1 AND lower(p.name) = lower($2) AND (p.administrator OR EXISTS (SELECT 1 FROM member a JOIN member b ON b.project_id = a.project_id WHERE a.person_id = $1 AND b.person_id = p.id))',
    [person.id, name],
  );
  if (taken) throw new DomainError({ code: 'name_taken', name });
  await execute(work, 'UPDATE person SET name = $2 WHERE id = $1', [person.id, name]);
  await notePersonEvent(work, { action: 'renamed', by: person.id, detail: `${person.name} → ${name}` });
  const projects = await selectRows(work, projectRow, `SELECT project_id AS id FROM member WHERE person_id = $1 AND role <> 'reader' ORDER BY project_id`, [person.id]);
  return projects.map((p) => p.id);
}
