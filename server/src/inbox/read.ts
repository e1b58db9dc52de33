import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId } from '@caderno/core/artefacts';
import { INBOX_REASONS, MAIL_PACES, MOST_COUNTED, USUAL_PACE, type InboxChoices, type InboxEntry, type InboxMarks, type QueryOf, type ResponseOf } from '@caderno/contract';
import { z } from 'zod';
import { countRow, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import type { Reader } from './follow.ts';

/** Entries of a page. */
const PAGE = 50;
/** Characters of what was said. */
const SAID = 240;

const entryRow = z.object({
  id: z.coerce.number(),
  reason: z.enum(INBOX_REASONS),
  by: z.string(),
  at: z.date().transform((date) => date.toISOString()),
  kind: z.enum(ARTEFACT_KINDS).nullable(),
  number: z.number().nullable(),
  title: z.string().nullable(),
  isThere: z.boolean().nullable(),
  fromVersion: z.number().nullable(),
  toVersion: z.number().nullable(),
  state: z.enum(ARTEFACT_STATES).nullable(),
  text: z.string().nullable(),
  count: z.number(),
  reviewNumber: z.number().nullable(),
  reviewTitle: z.string().nullable(),
  becauseKind: z.enum(ARTEFACT_KINDS).nullable(),
  becauseNumber: z.number().nullable(),
  read: z.boolean(),
  kept: z.boolean(),
});

/** What reached somebody, the latest first. */
export async function readInbox(work: UnitOfWork, { projectId, personId }: Reader, { part, reason, before }: QueryOf<'readInbox'>): Promise<ResponseOf<'readInbox'>> {
  const which = { unread: 'AND e.read_at IS NULL', kept: 'AND e.kept', all: '' }[part];
  const entries = await readEntries(
    work,
    `e.person_id = $1 AND e.project_id = $2 AND ($3::bigint IS NULL OR (e.at, e.id) < (SELECT l.at, l.id FROM inbox_entry l WHERE l.id = $3)) AND ($4::text IS NULL OR e.reason = $4) ${which}`,
    [personId, projectId, before ?? null, reason ?? null],
    PAGE + 1,
  );
  return { entries: entries.slice(0, PAGE), more: entries.length > PAGE };
}

/** Entries that fulfil a condition in SQL, the latest first; all of them when no limit is named. */
export async function readEntries(work: UnitOfWork, where: string, bind: readonly unknown[], limit: number | null = null): Promise<InboxEntry[]> {
  const rows = await selectRows(
    work,
    entryRow,
    `SELECT e.id, e.reason, p.name AS by, e.at, a.kind, a.number, a.title, a.deleted_at IS NULL AS "isThere", e.from_version AS "fromVersion", e.to_version AS "toVersion", e.state,
       CASE WHEN e.remark_id IS NULL THEN e.detail WHEN r.taken_back_at IS NULL THEN left(r.text, ${SAID}) END AS text, e.count, v.number AS "reviewNumber", v.title AS "reviewTitle", b.kind AS "becauseKind", b.number AS "becauseNumber", e.read_at IS NOT NULL AS read, e.kept
     FROM inbox_entry e JOIN person p ON p.id = e.by_id LEFT JOIN artefact a ON a.id = e.artefact_id LEFT JOIN remark r ON r.id = e.remark_id LEFT JOIN review v ON v.id = e.review_id LEFT JOIN artefact b ON b.id = e.because_id
     WHERE ${where} ORDER BY e.at DESC, e.id DESC LIMIT ${limit ?? 'ALL'}`,
    bind,
  );
  return rows.map(toEntry);
}

function toEntry({ kind, number, title, isThere, reviewNumber, reviewTitle, becauseKind, becauseNumber, ...row }: z.infer<typeof entryRow>): InboxEntry {
  return {
    ...row,
    artefact: kind === null || number === null ? null : { id: artefactId(kind, number), title: title ?? '', isThere: isThere === true },
    review: reviewNumber === null ? null : { number: reviewNumber, title: reviewTitle ?? '' },
    because: becauseKind === null || becauseNumber === null ? null : artefactId(becauseKind, becauseNumber),
  };
}

/** How many somebody has not read. */
export async function countInbox(work: UnitOfWork, { projectId, personId }: Reader): Promise<ResponseOf<'countInbox'>> {
  const [row] = await selectRows(work, countRow, `SELECT count(*)::int AS count FROM (SELECT 1 FROM inbox_entry WHERE person_id = $1 AND project_id = $2 AND read_at IS NULL LIMIT ${MOST_COUNTED}) some_of_them`, [personId, projectId]);
  return { unread: row?.count ?? 0 };
}

/** Marks some of one's own as read, or not, or to be kept; of others' nothing is marked. */
export async function markInbox(work: UnitOfWork, reader: Reader, { of, read, kept }: InboxMarks, at: Date): Promise<ResponseOf<'countInbox'>> {
  const ids = 'ids' in of ? of.ids : null;
  const own = 'person_id = $1 AND project_id = $2 AND (($3::bigint[] IS NULL AND read_at IS NULL) OR id = ANY($3))';
  const bind = [reader.personId, reader.projectId, ids];
  if (kept !== undefined) await execute(work, `UPDATE inbox_entry SET kept = $4 WHERE ${own}`, [...bind, kept]);
  if (read === true) await execute(work, `UPDATE inbox_entry SET read_at = coalesce(read_at, $4) WHERE ${own}`, [...bind, at]);
  // Of the same only one can wait to be read: where something newer came in, or is marked with it, that says it and this stays read.
  else if (read === false)
    await execute(
      work,
      `UPDATE inbox_entry e SET read_at = NULL WHERE ${own} AND NOT (e.reason IN ('changed', 'suspect') AND EXISTS (
         SELECT 1 FROM inbox_entry n WHERE n.person_id = e.person_id AND n.artefact_id = e.artefact_id AND n.reason = e.reason AND n.id <> e.id AND (n.read_at IS NULL OR (n.id > e.id AND n.id = ANY($3)))))`,
      bind,
    );
  return countInbox(work, reader);
}

const silentRow = z.object({ reason: z.enum(INBOX_REASONS) });
const paceRow = silentRow.extend({ pace: z.enum(MAIL_PACES) });

/** The reasons for which nothing reaches somebody, and how soon what does is mailed. */
export async function readChoices(work: UnitOfWork, { projectId, personId }: Reader): Promise<ResponseOf<'readInboxChoices'>> {
  const rows = await selectRows(work, silentRow, 'SELECT reason FROM inbox_silence WHERE project_id = $1 AND person_id = $2', [projectId, personId]);
  const chosen = await selectRows(work, paceRow, 'SELECT reason, pace FROM inbox_pace WHERE project_id = $1 AND person_id = $2', [projectId, personId]);
  return { silent: INBOX_REASONS.filter((reason) => rows.some((r) => r.reason === reason)), mail: { ...USUAL_PACE, ...Object.fromEntries(chosen.map(({ reason, pace }) => [reason, pace])) } };
}

/** Says for which reasons nothing is to reach somebody from now on, and how soon what does is mailed. */
export async function saveChoices(work: UnitOfWork, reader: Reader, { silent, mail }: InboxChoices): Promise<ResponseOf<'readInboxChoices'>> {
  // Two savings of one person follow each other.
  await execute(work, 'SELECT 1 FROM person WHERE id = $1 FOR NO KEY UPDATE', [reader.personId]);
  await execute(work, 'DELETE FROM inbox_silence WHERE project_id = $1 AND person_id = $2', [reader.projectId, reader.personId]);
  await execute(work, 'INSERT INTO inbox_silence (project_id, person_id, reason) SELECT $1, $2, unnest($3::text[])', [reader.projectId, reader.personId, silent]);
  await execute(work, 'DELETE FROM inbox_pace WHERE project_id = $1 AND person_id = $2', [reader.projectId, reader.personId]);
  // What is usual is not kept, so that it may become otherwise.
  const other = INBOX_REASONS.filter((reason) => mail[reason] !== USUAL_PACE[reason]);
  await execute(work, 'INSERT INTO inbox_pace (project_id, person_id, reason, pace) SELECT $1, $2, * FROM unnest($3::text[], $4::text[])', [reader.projectId, reader.personId, other, other.map((reason) => mail[reason])]);
  return readChoices(work, reader);
}
