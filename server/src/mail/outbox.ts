import { randomUUID } from 'node:crypto';
import { MAIL_STATES, LIMITS, type MailLine, type MailStanding } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { answersAny, countRow, execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { SecretBox } from '../secrets/index.ts';
import { MailFailed, type MailPlace, type MailServer } from './mailServer.ts';

/** What somebody is told by mail. */
export interface Letter {
  readonly to: { readonly name: string; readonly address: string };
  readonly subject: string;
  readonly text: string;
  /** Who sends it; null: Caderno by itself. */
  readonly by: string | null;
  readonly projectId: string | null;
  /** Whether it is among the mails that who sent it sees. */
  readonly shown: boolean;
}

const MINUTE_MS = 60_000;
/** Minutes until it is tried again, after each time; then as the last one says. */
const AGAIN = [1, 5, 15, 30, 60];
/** A mail server may be away for a day or two. */
const GIVEN_UP_MS = 3 * 24 * 60 * MINUTE_MS;
/** For so long nobody else takes up a mail that one is at; then who was has died. */
const AT_WORK_MS = 6 * MINUTE_MS;
/** So few that one who waits for a slow mail server is through with them before. */
const AT_A_TIME = 5;
/** How long mails are remembered that were sent or given up. */
const KEPT_DAYS = 30;
const SHOWN = 100;

const placeOf = (id: string): string => `mail/${id}`;

/** Writes a mail, which is sent when the transaction holds. Answers its id. */
export async function post(work: UnitOfWork, box: Pick<SecretBox, 'seal'>, { to, subject, text, by, projectId, shown }: Letter, at: Date): Promise<string> {
  const id = randomUUID();
  await execute(work, 'INSERT INTO mail (id, by_id, project_id, to_name, to_address, subject, sealed, shown, made_at, next_at) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $9)', [id, by, projectId, to.name, to.address, oneLine(subject), box.seal(text, placeOf(id)), shown, at]);
  return id;
}

function oneLine(text: string): string {
  return text.replaceAll(/\s+/g, ' ').trim();
}

const dueRow = z.object({ id: z.string(), name: z.string(), address: z.string(), subject: z.string(), sealed: z.instanceof(Buffer), tries: z.number(), madeAt: z.date(), by: z.string().nullable(), projectId: z.string().nullable(), number: z.coerce.number() });
/** A mail that nobody tries any more. */
export type GivenUp = Pick<z.infer<typeof dueRow>, 'by' | 'projectId' | 'address' | 'subject'>;

/** What sending takes. `onGivenUp` tells whoever sent it, in the transaction that gives it up. */
export interface Sending {
  readonly db: Sequelize;
  readonly box: SecretBox;
  readonly server: Pick<MailServer, 'send'>;
  readonly now: () => Date;
  readonly onGivenUp: (work: UnitOfWork, mail: GivenUp) => Promise<void>;
}

/** Sends what is due. Any number of servers may; each mail is with one of them, and nothing is held while the mail server answers. */
export async function sendDue(sending: Sending): Promise<void> {
  for (;;) {
    const due = await inTransaction(sending.db, (work) => takeUp(work, sending.now()));
    // A server that takes one not now would take the others not now either: they come again by themselves.
    let down: MailFailed | null = null;
    for (const mail of due) down = await trySending(sending, mail, down);
    if (due.length === 0 || down !== null) return;
  }
}

async function takeUp(work: UnitOfWork, now: Date): Promise<z.infer<typeof dueRow>[]> {
  const taken = await selectRows(
    work,
    dueRow,
    `UPDATE mail SET next_at = $2, tries = tries + 1 WHERE id IN (SELECT id FROM mail WHERE state = 'waiting' AND next_at <= $1 ORDER BY next_at, number LIMIT ${AT_A_TIME} FOR UPDATE SKIP LOCKED)
     RETURNING id, to_name AS name, to_address AS address, subject, sealed, tries, made_at AS "madeAt", by_id AS by, project_id AS "projectId", number`,
    [now, new Date(now.getTime() + AT_WORK_MS)],
  );
  return taken.sort((a, b) => a.number - b.number);
}

/** Answers why the mail server takes none now; null: it does. `down` says it already. */
async function trySending({ db, box, server, now, onGivenUp }: Sending, { name, ...mail }: z.infer<typeof dueRow>, down: MailFailed | null): Promise<MailFailed | null> {
  const text = box.open(mail.sealed, placeOf(mail.id));
  const failure = text === null ? new MailFailed('It was written under another key, and cannot be read any more.', 'neverThis') : (down ?? (await server.send({ ...mail, to: { name, address: mail.address }, text }).then(() => null, asFailure)));
  const at = now();
  await inTransaction(db, async (work) => {
    if (failure === null) return end(work, mail.id, 'sent', '', at);
    if (failure.takes !== 'neverThis' && at.getTime() - mail.madeAt.getTime() < GIVEN_UP_MS) return putOff(work, mail, failure, at);
    await end(work, mail.id, 'refused', failure.message, at);
    await onGivenUp(work, mail);
  });
  return failure?.takes === 'none' ? failure : down;
}

function asFailure(error: unknown): MailFailed {
  if (error instanceof MailFailed) return error;
  throw error;
}

/** What was sent is not kept; what was given up may be sent again. */
async function end(work: UnitOfWork, id: string, state: 'sent' | 'refused', answer: string, at: Date): Promise<void> {
  await execute(work, `UPDATE mail SET state = $2, answer = $3, ended_at = $4, sealed = CASE WHEN $2 = 'sent' THEN NULL ELSE sealed END WHERE id = $1`, [id, state, answer, at]);
}

async function putOff(work: UnitOfWork, { id, tries }: { readonly id: string; readonly tries: number }, failure: MailFailed, at: Date): Promise<void> {
  const minutes = AGAIN[Math.min(tries, AGAIN.length) - 1] ?? 1;
  await execute(work, `UPDATE mail SET answer = $2, next_at = $3 WHERE id = $1 AND state = 'waiting'`, [id, failure.message, new Date(at.getTime() + minutes * MINUTE_MS)]);
}

const lineRow = z.object({ id: z.string(), to: z.string(), subject: z.string(), state: z.enum(MAIL_STATES), answer: z.string(), tries: z.number(), madeAt: z.date(), nextAt: z.date(), endedAt: z.date().nullable() });

/** The mails that somebody sent from a project, the latest first. */
export async function listMails(work: UnitOfWork, projectId: string, personId: string): Promise<MailLine[]> {
  const rows = await selectRows(
    work,
    lineRow,
    `SELECT id, CASE WHEN to_name = '' THEN to_address ELSE to_name END AS to, subject, state, answer, tries, made_at AS "madeAt", next_at AS "nextAt", ended_at AS "endedAt" FROM mail WHERE project_id = $1 AND by_id = $2 AND shown ORDER BY number DESC LIMIT ${SHOWN}`,
    [projectId, personId],
  );
  return rows.map((row) => ({ ...row, madeAt: row.madeAt.toISOString(), nextAt: row.state === 'waiting' ? row.nextAt.toISOString() : null, endedAt: row.endedAt?.toISOString() ?? null }));
}

/** Has a mail of one's own tried now, and anew when it was given up. @throws {DomainError} when one sent no such mail, or it was taken. */
export async function sendAgain(work: UnitOfWork, projectId: string, personId: string, id: string, at: Date): Promise<void> {
  const found = await answersAny(work, `UPDATE mail SET state = 'waiting', next_at = $4, made_at = CASE WHEN state = 'refused' THEN $4 ELSE made_at END, tries = 0, ended_at = NULL WHERE id = $3 AND project_id = $1 AND by_id = $2 AND shown AND state <> 'sent' AND sealed IS NOT NULL RETURNING id`, [projectId, personId, id, at]);
  if (!found) throw new DomainError({ code: 'mail_unknown' });
}

/** @throws {DomainError} when one sent no such mail, or it was taken. */
export async function takeBack(work: UnitOfWork, projectId: string, personId: string, id: string): Promise<void> {
  const found = await answersAny(work, `DELETE FROM mail WHERE id = $3 AND project_id = $1 AND by_id = $2 AND shown AND state <> 'sent' RETURNING id`, [projectId, personId, id]);
  if (!found) throw new DomainError({ code: 'mail_unknown' });
}

/** @throws {DomainError} when somebody would send more mails than anybody may in a day. */
export async function refuseTooMany(work: UnitOfWork, personId: string, more: number, at: Date): Promise<void> {
  await execute(work, 'SELECT pg_advisory_xact_lock(hashtextextended($1, 4))', [personId]);
  const [row] = await selectRows(work, countRow, `SELECT count(*)::int AS count FROM mail WHERE by_id = $1 AND made_at > $2::timestamptz - interval '1 day'`, [personId, at]);
  if ((row?.count ?? 0) + more > LIMITS.mailsADay) throw new DomainError({ code: 'too_many_mails', limit: LIMITS.mailsADay });
}

const standingRow = z.object({ waiting: z.number(), refused: z.number(), lastAnswer: z.string().nullable() });

/** How mail stands. */
export async function readMailStanding(work: UnitOfWork, place: MailPlace | null): Promise<MailStanding> {
  const [row] = await selectRows(
    work,
    standingRow,
    `SELECT count(*) FILTER (WHERE state = 'waiting')::int AS waiting, count(*) FILTER (WHERE state = 'refused')::int AS refused,
       (array_agg(answer ORDER BY coalesce(ended_at, next_at) DESC) FILTER (WHERE answer <> ''))[1] AS "lastAnswer"
     FROM mail WHERE state = 'waiting' OR (state = 'refused' AND ended_at > now() - interval '7 days')`,
  );
  const server = place === null ? null : new URL(place.server).host;
  return { server, from: place?.from ?? '', waiting: row?.waiting ?? 0, refused: row?.refused ?? 0, lastAnswer: row?.lastAnswer ?? '' };
}

/** Forgets mails that ended long ago. */
export async function sweepMails(work: UnitOfWork): Promise<void> {
  await execute(work, `DELETE FROM mail WHERE ended_at < now() - interval '${KEPT_DAYS} days'`);
}
