import { MAIL_STATES, ROLES, type BodyOf, type Invitation, type ResponseOf } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { answersAny, execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { letterText, type Mailing } from '../mail/index.ts';
import { createAccount } from './accounts.ts';
import { notePersonEvent } from './events.ts';
import { joinMember, joinProject } from './members.ts';
import { refuseNameTaken } from './ownName.ts';
import { newSecretWord } from './secretWord.ts';
import { hashPassword, refuseWeakPassword } from './password.ts';
import { hashToken, startSession, type DemoSignIn, type SignedIn } from './session.ts';

const LASTS_DAYS = 14;
const DAY_MS = 86_400_000;

/** Who invites, and into which project. */
export interface Inviting {
  readonly by: SignedIn;
  readonly projectId: string;
  readonly demoSignIn: DemoSignIn;
}

const projectRow = z.object({ name: z.string() });

/**
 * Invites somebody by mail; an earlier invitation of theirs ends. Who has an account is in the project at once.
 * @throws {DomainError} when no mail is sent here, or they are in the project already.
 */
export async function invite(work: UnitOfWork, mailing: Mailing, { by, projectId, demoSignIn }: Inviting, { email: typed, role }: BodyOf<'invite'>): Promise<ResponseOf<'invite'>> {
  // The first account would close the demo to whoever made it.
  if (by.demo && demoSignIn !== 'always') throw new DomainError({ code: 'demo_alone' });
  const email = typed.toLowerCase();
  if (await answersAny(work, 'SELECT 1 FROM person WHERE email = $1 AND active', [email])) return { joined: await joinMember(work, by, projectId, { email, role }), invitations: await listInvitations(work, projectId) };
  const token = newSecretWord();
  const [project] = await selectRows(work, projectRow, 'SELECT name FROM project WHERE id = $1', [projectId]);
  const name = project?.name ?? '';
  const mail = await mailing.post(work, {
    to: { name: '', address: email },
    subject: `${by.name} invites you to ${name}`,
    text: letterText({
      paragraphs: [`${by.name} invites you to work on the test design of “${name}” in Caderno, as ${role}.`, `Choose your name and a password here:\n${mailing.address}/invited#${token}`, `The link works once, within ${LASTS_DAYS} days.`],
      why: 'You may leave this mail unanswered: nothing happens then.',
    }),
    by: by.id,
    projectId,
    shown: false,
  });
  await execute(
    work,
    `INSERT INTO invitation (token_hash, project_id, email, role, by_id, made_at, expires_at, mail_id) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
     ON CONFLICT (project_id, email) DO UPDATE SET token_hash = EXCLUDED.token_hash, role = EXCLUDED.role, by_id = EXCLUDED.by_id, made_at = EXCLUDED.made_at, expires_at = EXCLUDED.expires_at, mail_id = EXCLUDED.mail_id`,
    [hashToken(token), projectId, email, role, by.id, mailing.at, new Date(mailing.at.getTime() + LASTS_DAYS * DAY_MS), mail],
  );
  await notePersonEvent(work, { action: 'invited', by: by.id, projectId, detail: `${email}, ${role}` });
  return { joined: null, invitations: await listInvitations(work, projectId) };
}

const invitationRow = z.object({ id: z.string(), email: z.string(), role: z.enum(ROLES), by: z.string(), madeAt: z.date(), endsAt: z.date(), state: z.enum(MAIL_STATES).nullable(), answer: z.string().nullable() });

/** Those that wait, the latest first. */
export async function listInvitations(work: UnitOfWork, projectId: string): Promise<Invitation[]> {
  const rows = await selectRows(
    work,
    invitationRow,
    `SELECT i.id, i.email, i.role, p.name AS by, i.made_at AS "madeAt", i.expires_at AS "endsAt", m.state, m.answer FROM invitation i JOIN person p ON p.id = i.by_id LEFT JOIN mail m ON m.id = i.mail_id
     WHERE i.project_id = $1 AND i.expires_at > now() ORDER BY i.made_at DESC, i.id`,
    [projectId],
  );
  return rows.map(({ state, answer, madeAt, endsAt, ...row }) => ({ ...row, madeAt: madeAt.toISOString(), endsAt: endsAt.toISOString(), mail: state === null ? null : { state, answer: answer ?? '' } }));
}

const goneRow = z.object({ email: z.string(), mail: z.string().nullable() });

/** Its link opens nothing any more; its mail is not sent if it still waits. */
export async function withdrawInvitation(work: UnitOfWork, by: SignedIn, projectId: string, id: string): Promise<Invitation[]> {
  const [gone] = await selectRows(work, goneRow, 'DELETE FROM invitation WHERE project_id = $1 AND id = $2 RETURNING email, mail_id AS mail', [projectId, id]);
  if (gone === undefined) throw new DomainError({ code: 'invitation_ended' });
  if (gone.mail !== null) await execute(work, `DELETE FROM mail WHERE id = $1 AND state = 'waiting'`, [gone.mail]);
  await notePersonEvent(work, { action: 'invitationWithdrawn', by: by.id, projectId, detail: gone.email });
  return listInvitations(work, projectId);
}

const openedRow = z.object({ id: z.string(), projectId: z.string(), project: z.string(), email: z.string(), role: z.enum(ROLES), by: z.string() });

/** What an invitation is to. @throws {DomainError} when the word is of none that waits. */
export async function openInvitation(work: UnitOfWork, token: string): Promise<z.infer<typeof openedRow>> {
  const [found] = await selectRows(
    work,
    openedRow,
    `SELECT i.id, i.project_id AS "projectId", project.name AS project, i.email, i.role, p.name AS by FROM invitation i JOIN project ON project.id = i.project_id JOIN person p ON p.id = i.by_id WHERE i.token_hash = $1 AND i.expires_at > now()`,
    [hashToken(token)],
  );
  if (found === undefined) throw new DomainError({ code: 'invitation_ended' });
  return found;
}

/** Makes the account, which is in the project from then on; answers its session. Nothing is held while the password is hashed. */
export async function acceptInvitation(db: Sequelize, { token, name, password }: BodyOf<'acceptInvitation'>, agent: string): Promise<{ readonly token: string }> {
  const { email } = await inTransaction(db, (work) => openInvitation(work, token));
  refuseWeakPassword(password, [name, email]);
  const passwordHash = await hashPassword(password);
  return inTransaction(db, async (work) => {
    const { id, projectId, role } = await openInvitation(work, token);
    // Whoever came with the same link first has it.
    if (!(await answersAny(work, 'DELETE FROM invitation WHERE id = $1 RETURNING id', [id]))) throw new DomainError({ code: 'invitation_ended' });
    await refuseNameTaken(work, projectId, name);
    const person = await createAccount(work, { name, email }, passwordHash, false);
    await joinProject(work, projectId, person, role);
    await notePersonEvent(work, { action: 'invitationAccepted', by: person, projectId, detail: role });
    return { token: await startSession(work, person, agent) };
  });
}
