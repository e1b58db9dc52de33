import { INBOX_REASONS, USUAL_PACE, artefactLink, inboxEntryWords, type InboxEntry } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { answersAny, execute, idRow, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { letterText, type GivenUp, type Mailing } from '../mail/index.ts';
import { tellReached } from './put.ts';
import { readEntries } from './read.ts';

/** What is mailed at once waits this long: who reads it meanwhile needs no mail, and what comes together goes together. */
const GRACE_MS = 2 * 60_000;
/** The hour of the morning, by the server's clock, from which daily mails are written. */
const MORNING = 7;
const AT_A_TIME = 2_000;
/** Entries that a mail tells; of more it says how many. */
const MOST_TOLD = 40;

/** Writes mails of what reached people and is not read. Any number of servers may; each entry goes into one mail. `demoToo`: mails of the demo's people go nowhere else. */
export async function mailInbox(db: Sequelize, mailing: Mailing, { demoToo }: { readonly demoToo: boolean }): Promise<void> {
  while (await inTransaction(db, (work) => decide(work, demoToo)));
  const { at } = mailing;
  await mailTo(db, mailing, 'atOnce', new Date(at.getTime() - GRACE_MS));
  if (at.getHours() >= MORNING) await mailTo(db, mailing, 'daily', at);
}

/** Settles for entries that came in how soon they are mailed. Answers whether there may be more. */
async function decide(work: UnitOfWork, demoToo: boolean): Promise<boolean> {
  const usual = INBOX_REASONS.map((reason) => `WHEN '${reason}' THEN '${USUAL_PACE[reason]}'`).join(' ');
  const decided = await selectRows(
    work,
    idRow,
    `WITH fresh AS MATERIALIZED (SELECT id FROM inbox_entry WHERE mail = 'undecided' ORDER BY id LIMIT ${AT_A_TIME} FOR UPDATE SKIP LOCKED)
     UPDATE inbox_entry e SET mail = CASE coalesce((SELECT c.pace FROM inbox_pace c WHERE c.person_id = e.person_id AND c.project_id = e.project_id AND c.reason = e.reason), CASE e.reason ${usual} END)
       WHEN 'atOnce' THEN 'atOnce' WHEN 'daily' THEN 'daily' ELSE 'none' END
     FROM fresh WHERE e.id = fresh.id RETURNING e.id::text AS id`,
  );
  if (!demoToo) await execute(work, `UPDATE inbox_entry e SET mail = 'none' FROM person p WHERE e.id = ANY($1::bigint[]) AND p.id = e.person_id AND p.demo_job IS NOT NULL`, [decided.map((d) => d.id)]);
  return decided.length === AT_A_TIME;
}

type Mailed = 'atOnce' | 'daily';
const waitingRow = z.object({ personId: z.string(), projectId: z.string(), key: z.string(), project: z.string(), name: z.string(), address: z.string() });
type Waiting = z.infer<typeof waitingRow>;

async function mailTo(db: Sequelize, mailing: Mailing, pace: Mailed, until: Date): Promise<void> {
  const waiting = await inTransaction(db, (work) =>
    selectRows(
      work,
      waitingRow,
      `SELECT e.person_id AS "personId", e.project_id AS "projectId", project.key, project.name AS project, p.name, p.email AS address
       FROM (SELECT DISTINCT person_id, project_id FROM inbox_entry WHERE mail = $1 AND at <= $2) e JOIN person p ON p.id = e.person_id JOIN project ON project.id = e.project_id ORDER BY p.name, project.key`,
      [pace, until],
    ),
  );
  for (const one of waiting) await inTransaction(db, (work) => mailOne(work, mailing, one, pace, until));
}

/** One mail of all that waits for one person in one project; of what was read meanwhile none. */
async function mailOne(work: UnitOfWork, mailing: Mailing, one: Waiting, pace: Mailed, until: Date): Promise<void> {
  if (pace === 'daily' && !(await isFirstToday(work, one, mailing.at))) return;
  const taken = await selectRows(work, idRow, `UPDATE inbox_entry SET mail = 'none' WHERE person_id = $1 AND project_id = $2 AND mail = $3 AND at <= $4 RETURNING id::text AS id`, [one.personId, one.projectId, pace, until]);
  if (!(await answersAny(work, 'SELECT 1 FROM member JOIN person ON person.id = member.person_id WHERE member.person_id = $1 AND member.project_id = $2 AND member.sees IS NULL AND person.active', [one.personId, one.projectId]))) return;
  const entries = await readEntries(work, `e.id = ANY($1::bigint[]) AND e.read_at IS NULL`, [taken.map((t) => t.id)]);
  if (entries.length > 0) await mailing.post(work, { to: { name: one.name, address: one.address }, ...letterOf(mailing.address, one, entries), by: null, projectId: one.projectId, shown: false });
}

function isFirstToday(work: UnitOfWork, { personId, projectId }: Waiting, at: Date): Promise<boolean> {
  const day = `${at.getFullYear()}-${String(at.getMonth() + 1).padStart(2, '0')}-${String(at.getDate()).padStart(2, '0')}`;
  return answersAny(work, 'INSERT INTO inbox_morning (project_id, person_id, day) VALUES ($1, $2, $3) ON CONFLICT (person_id, project_id) DO UPDATE SET day = EXCLUDED.day WHERE inbox_morning.day < EXCLUDED.day RETURNING day', [projectId, personId, day]);
}

/** What reached somebody, as a mail: the latest first, each with where it leads. */
function letterOf(server: string, { key, project }: Waiting, entries: readonly InboxEntry[]): { readonly subject: string; readonly text: string } {
  const [first] = entries;
  const told = entries.slice(0, MOST_TOLD).map((entry) => [sentenceOf(entry), ...(entry.text === null || entry.reason === 'unsent' ? [] : quoted(entry.text)), linkOf(server, key, entry)].join('\n'));
  const more = entries.length - told.length;
  return {
    subject: first !== undefined && entries.length === 1 ? sentenceOf(first) : `${entries.length} things for you in ${project}`,
    text: letterText({ paragraphs: [...told, more > 0 ? `and ${more} more:\n${server}/${key}/inbox` : ''], why: `You get this as you are in “${project}”. What is mailed you choose in its inbox, at “What reaches you”:\n${server}/${key}/inbox` }),
  };
}

function sentenceOf(entry: InboxEntry): string {
  if (entry.reason === 'imported' || entry.reason === 'unsent') return inboxEntryWords(entry);
  const what = entry.review !== null ? `“${entry.review.title}”` : entry.artefact !== null ? `${entry.artefact.id} ${entry.artefact.title}` : '';
  return `${entry.by} ${inboxEntryWords(entry)}${what === '' ? '' : ` ${what}`}`;
}

function quoted(text: string): string[] {
  return text === '' ? [] : [text.split('\n').map((line) => `> ${line}`).join('\n')];
}

function linkOf(server: string, key: string, { review, artefact }: InboxEntry): string {
  if (review !== null) return `${server}/${key}/reviews/${review.number}`;
  return artefact === null ? `${server}/${key}/inbox` : artefactLink(server, key, artefact.id);
}

/** Tells whoever sent a mail from a project that it was given up. */
export async function putGivenUp(work: UnitOfWork, { by, projectId, address, subject }: GivenUp, at: Date): Promise<void> {
  if (by === null || projectId === null) return;
  const reached = await answersAny(
    work,
    `INSERT INTO inbox_entry (project_id, person_id, reason, by_id, at, detail) SELECT $1, $2, 'unsent', $2, $3, $4 WHERE EXISTS (SELECT 1 FROM member m WHERE m.project_id = $1 AND m.person_id = $2)
       AND NOT EXISTS (SELECT 1 FROM inbox_silence s WHERE s.project_id = $1 AND s.person_id = $2 AND s.reason = 'unsent') RETURNING id`,
    [projectId, by, at, `${address}: ${subject}`],
  );
  if (reached) await tellReached(work, projectId, [by]);
}
