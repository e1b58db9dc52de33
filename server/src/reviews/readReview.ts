import { ARTEFACT_KINDS, artefactId } from '@caderno/core/artefacts';
import { ITEM_STANDINGS, reviewNumber, waitsFor, type ReviewNumber } from '@caderno/core/reviews';
import { roleReaches, type Review, type ReviewItem, type ReviewLine } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { listMembers } from '../people/index.ts';
import { readSettings } from '../projects/index.ts';
import { DomainError } from '../domainError.ts';

const time = z.date().transform((date) => date.toISOString());
const number = z.number().transform(reviewNumber);
const headRow = z.object({ id: z.string(), number, title: z.string(), note: z.string(), due: z.string().nullable(), by: z.string(), at: time, endedAt: time.nullable(), endedBy: z.string().nullable() });
const askedRow = z.object({ review: z.string(), person: z.string() });
const itemRow = z.object({ rowId: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), title: z.string(), module: z.string(), version: z.number(), since: z.number().nullable(), head: z.number(), standing: z.enum(ITEM_STANDINGS), authors: z.array(z.string()) });
const answerRow = z.object({ rowId: z.string(), person: z.string(), name: z.string(), version: z.number(), agrees: z.boolean(), note: z.string(), at: time });

const HEADS = `SELECT r.id, r.number, r.title, r.note, r.due::text AS due, by.name AS by, r.at, r.ended_at AS "endedAt", ender.name AS "endedBy"
  FROM review r JOIN person by ON by.id = r.asked_by LEFT JOIN person ender ON ender.id = r.ended_by WHERE r.project_id = $1`;

/** A review as it is stored, by the row of each. */
export interface StoredReview {
  readonly rowId: string;
  readonly review: Review;
  readonly rowOf: ReadonlyMap<ReviewItem['id'], string>;
}

/** @throws {DomainError} when the project has no such review. */
export async function readReview(work: UnitOfWork, projectId: string, wanted: ReviewNumber): Promise<StoredReview> {
  const [head] = await selectRows(work, headRow, `${HEADS} AND r.number = $2`, [projectId, wanted]);
  if (head === undefined) throw new DomainError({ code: 'review_unknown' });
  const { id, ...rest } = head;
  const answers = await selectRows(
    work,
    answerRow,
    `SELECT w.artefact_id AS "rowId", w.person_id AS person, p.name, w.version, w.agrees, w.note, w.at FROM review_answer w JOIN person p ON p.id = w.person_id WHERE w.review_id = $1 ORDER BY w.id`,
    [id],
  );
  const rows = await selectRows(
    work,
    itemRow,
    `SELECT i.artefact_id AS "rowId", a.kind, a.number, a.title, a.module, i.version, i.since, a.head, i.standing,
       ARRAY(SELECT DISTINCT v.author_id::text FROM artefact_version v WHERE v.artefact_id = i.artefact_id AND v.version > coalesce(i.since, 0) AND v.version <= i.version) AS authors
     FROM review_item i JOIN artefact a ON a.id = i.artefact_id WHERE i.review_id = $1 AND a.deleted_at IS NULL ORDER BY i.place`,
    [id],
  );
  const given = new Map<string, z.infer<typeof answerRow>[]>();
  for (const a of answers) given.set(a.rowId, [...(given.get(a.rowId) ?? []), a]);
  const items = rows.map(({ rowId, kind, number: of, ...item }): ReviewItem => ({ ...item, id: artefactId(kind, of), answers: (given.get(rowId) ?? []).map(({ person, name, version, agrees, note, at }) => ({ person, name, version, agrees, note, at })) }));
  const { agreement } = (await readSettings(work, projectId)).settings;
  const everybody = await askedIn(work, projectId, [id]);
  const asked = everybody.map(({ person, name, may }) => ({ person, name, may, waiting: items.filter((i) => i.standing === 'waiting' && waitsFor(i, everybody, i.answers, agreement, person)).length }));
  return { rowId: id, review: { ...rest, asked, items }, rowOf: new Map(rows.map((r) => [artefactId(r.kind, r.number), r.rowId])) };
}

interface AskedIn {
  readonly review: string;
  readonly person: string;
  readonly name: string;
  readonly may: boolean;
}

/** Who is asked in reviews, in the order in which they were named; who left the project is not among them. */
async function askedIn(work: UnitOfWork, projectId: string, reviews: readonly string[]): Promise<AskedIn[]> {
  const { agreement } = (await readSettings(work, projectId)).settings;
  const members = new Map((await listMembers(work, projectId)).map((m) => [m.id, m]));
  const rows = await selectRows(work, askedRow, 'SELECT review_id AS review, person_id AS person FROM review_asked WHERE review_id = ANY($1) ORDER BY place', [reviews]);
  return rows.flatMap(({ review, person }) => {
    const member = members.get(person);
    return member === undefined ? [] : [{ review, person, name: member.name, may: member.sees === null && roleReaches(member.role, agreement.role) }];
  });
}

const countsRow = z.object({ review: z.string(), standing: z.enum(ITEM_STANDINGS), count: z.number() });
const openRow = z.object({ review: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), module: z.string() });
const waitingRow = z.object({ review: z.string(), person: z.string(), count: z.number() });

/** Reviews that are listed: those that go on, and of those that ended the latest. */
const MOST_LISTED = 500;

/** The reviews of a project: those that go on first, the latest first. */
export async function listReviews(work: UnitOfWork, projectId: string): Promise<ReviewLine[]> {
  const heads = await selectRows(work, headRow, `${HEADS} ORDER BY r.ended_at IS NOT NULL, r.number DESC LIMIT ${MOST_LISTED}`, [projectId]);
  const ids = heads.map((h) => h.id);
  const counts = await selectRows(work, countsRow, `SELECT i.review_id AS review, i.standing, count(*)::int AS count FROM review_item i JOIN artefact a ON a.id = i.artefact_id AND a.deleted_at IS NULL WHERE i.review_id = ANY($1) GROUP BY 1, 2`, [ids]);
  const open = await selectRows(
    work,
    openRow,
    `SELECT i.review_id AS review, a.kind, a.number, a.module FROM review_item i JOIN artefact a ON a.id = i.artefact_id
     WHERE i.review_id = ANY($1) AND i.open AND i.standing <> 'agreed' AND a.deleted_at IS NULL ORDER BY i.place`,
    [ids],
  );
  const { agreement } = (await readSettings(work, projectId)).settings;
  const waits = await selectRows(
    work,
    waitingRow,
    `SELECT q.review_id AS review, q.person_id AS person, count(*)::int AS count
     FROM review_asked q JOIN review_item i ON i.review_id = q.review_id AND i.standing = 'waiting' JOIN artefact a ON a.id = i.artefact_id AND a.deleted_at IS NULL
     WHERE q.review_id = ANY($1)
       AND NOT EXISTS (SELECT 1 FROM review_answer w WHERE w.review_id = i.review_id AND w.artefact_id = i.artefact_id AND w.version = i.version AND w.person_id = q.person_id)
       AND ($2 OR NOT EXISTS (SELECT 1 FROM artefact_version v WHERE v.artefact_id = i.artefact_id AND v.author_id = q.person_id AND v.version > coalesce(i.since, 0) AND v.version <= i.version))
     GROUP BY 1, 2`,
    [ids, agreement.authors],
  );
  const asked = await askedIn(work, projectId, ids);
  return heads.map(({ id, ...head }) => {
    const count = (standing: (typeof ITEM_STANDINGS)[number]): number => counts.find((c) => c.review === id && c.standing === standing)?.count ?? 0;
    const here = open.filter((o) => o.review === id);
    const waiting = (person: string): number => waits.find((w) => w.review === id && w.person === person)?.count ?? 0;
    return {
      ...head,
      asked: asked.flatMap(({ review, person, name, may }) => (review === id ? [{ person, name, may, waiting: may ? waiting(person) : 0 }] : [])),
      counts: { waiting: count('waiting'), agreed: count('agreed'), objected: count('objected'), left: count('left') },
      modules: [...new Set(here.map((o) => o.module))].toSorted(),
      ids: here.map((o) => artefactId(o.kind, o.number)),
    };
  });
}
