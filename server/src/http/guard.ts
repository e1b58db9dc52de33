import { roleReaches, type AnyEndpoint } from '@caderno/contract';
import type { Context } from 'hono';
import type { UnitOfWork } from '../database/index.ts';
import { mayMakeProjects, roleIn, type Membership, type SignedIn } from '../people/index.ts';
import { DomainError } from '../domainError.ts';

/** Refuses a changing request that a page of another origin had the browser send. */
export function refuseForgedOrigin(c: Context): void {
  if (c.req.method === 'GET' || c.req.method === 'HEAD') return;
  const origin = c.req.header('origin');
  const site = c.req.header('sec-fetch-site');
  const foreign = origin !== undefined && hostOf(origin) !== c.req.header('host');
  if (foreign || (site !== undefined && site !== 'same-origin' && site !== 'none')) throw new DomainError({ code: 'origin_forged' });
}

function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}

/**
 * Checks that a person may call an operation. Answers the membership for calls below a project.
 * A project one is no member of is answered as if it did not exist.
 */
export async function admit(work: UnitOfWork, endpoint: Pick<AnyEndpoint, 'access' | 'method' | 'reads' | 'ofPart'>, person: SignedIn | null, project: string | null): Promise<Membership | null> {
  const { access } = endpoint;
  if (access === 'anyone') return null;
  if (person === null) throw new DomainError({ code: 'not_signed_in' });
  if (access === 'signedIn') return null;
  if (access === 'projectMaker') {
    if (!(await mayMakeProjects(work, person))) throw new DomainError({ code: 'role_too_low', needed: 'lead', have: 'reader' });
    return null;
  }
  if (access === 'installationAdministrator') {
    // Nobody has to know a password to be one of the demo's people: they look after no accounts.
    if (!person.administrator || person.demo) throw new DomainError({ code: 'role_too_low', needed: 'administrator', have: 'reader' });
    return null;
  }
  const membership = project === null ? null : await roleIn(work, person, project);
  if (membership === null) throw new DomainError({ code: 'project_unknown', project: project ?? '' });
  if (membership.isHidden && endpoint.ofPart !== true) throw new DomainError({ code: 'part_only' });
  if (membership.isPast && endpoint.method !== 'GET' && endpoint.reads !== true) throw new DomainError({ code: 'moment_is_past' });
  if (!roleReaches(membership.role, access)) throw new DomainError({ code: 'role_too_low', needed: access, have: membership.role });
  return membership;
}
