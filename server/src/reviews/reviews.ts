import type { ArtefactId } from '@caderno/core/artefacts';
import { answerOf, isReviewable, neededOf, reviewNumber, standingOf, type ReviewNumber, type Standing } from '@caderno/core/reviews';
import type { Answers, BodyOf, NewReview, Review, ReviewItem, ResponseOf, UnreviewedReason } from '@caderno/contract';
import { z } from 'zod';
import { changeOfRetry, endWhatIsDone, idOfRow, lockProject, putStates, rowsOfIds, writeJournalEntry, type Actor, type StateNow } from '../artefacts/index.ts';
import { execute, idRow, numberRow, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { put } from '../inbox/index.ts';
import { listMembers } from '../people/index.ts';
import { readSettings, tellPages } from '../projects/index.ts';
import { readReview, type StoredReview } from './readReview.ts';

type AskedReview = ResponseOf<'askReview'>;
type Terms = BodyOf<'changeReview'>;

const deedRow = z.object({ detail: z.string() });

/** The review that an earlier command with the same id asked for; null when this is the first. */
async function reviewOfRetry(work: UnitOfWork, actor: Actor): Promise<ReviewNumber | null> {
  const change = await changeOfRetry(work, actor);
  if (change === null) return null;
  const [deed] = await selectRows(work, deedRow, 'SELECT detail FROM change WHERE id = $1', [change]);
  return reviewNumber(Number.parseInt(deed?.detail ?? '', 10));
}

const madeRow = z.object({ id: z.string(), number: z.number().transform(reviewNumber) });

/** Asks people to agree to artefacts as they are now. What cannot be asked for is told; the rest is. */
export async function askReview(work: UnitOfWork, actor: Actor, { ids, ...terms }: NewReview): Promise<AskedReview> {
  await lockProject(work, actor.projectId);
  const earlier = await reviewOfRetry(work, actor);
  if (earlier !== null) return { review: (await readReview(work, actor.projectId, earlier)).review, left: [] };
  await refuseStrangers(work, actor.projectId, terms.people);
  const { rows, left } = await reviewable(work, actor, ids);
  const [made] = await selectRows(
    work,
    madeRow,
    `INSERT INTO review (project_id, number, title, note, due, asked_by, at)
     SELECT $1, coalesce(max(number), 0) + 1, $2, $3, $4, $5, $6 FROM review WHERE project_id = $1 RETURNING id, number`,
    [actor.projectId, terms.title, terms.note, terms.due, actor.personId, actor.at],
  );
  if (made === undefined) throw new Error('A review is made with its number: expected a row, got none');
  await writeAsked(work, made.id, terms.people);
  await execute(
    work,
    `INSERT INTO review_item (review_id, artefact_id, place, version, since, standing, open)
     SELECT $1, r.id, r.place, r.version, r.since, 'waiting', true FROM jsonb_to_recordset($2::jsonb) AS r(id bigint, place int, version int, since int)`,
    [made.id, JSON.stringify(rows.map((row, place) => ({ id: row.id, place, version: row.head, since: row.agreedVersion })))],
  );
  await putAll(work, actor, made.number, 'asked', rows.map((row) => ({ row, state: 'inReview', agreed: row.agreedVersion })));
  await put(work, { projectId: actor.projectId, reason: 'review', by: actor.personId, at: actor.at, people: terms.people, reviewId: made.id });
  const review = await told(work, actor, made.number);
  await refuseHopeless(work, actor.projectId, review);
  return { review, left };
}

/** Asks again for what was objected to or taken out, as it is now. */
export async function askAgain(work: UnitOfWork, actor: Actor, number: ReviewNumber, ids: readonly ArtefactId[]): Promise<AskedReview> {
  await lockProject(work, actor.projectId);
  if ((await changeOfRetry(work, actor)) !== null) return { review: (await readReview(work, actor.projectId, number)).review, left: [] };
  const { rowId, review } = await openReview(work, actor.projectId, number);
  const items = new Map(review.items.map((i) => [i.id, i]));
  const { rows, left } = await reviewable(work, actor, ids, items);
  await execute(
    work,
    `UPDATE review_item i SET version = r.version, standing = 'waiting', open = true FROM jsonb_to_recordset($2::jsonb) AS r(id bigint, version int) WHERE i.review_id = $1 AND i.artefact_id = r.id`,
    [rowId, JSON.stringify(rows.map((row) => ({ id: row.id, version: row.head })))],
  );
  await put(work, { projectId: actor.projectId, reason: 'review', by: actor.personId, at: actor.at, people: review.asked.map((a) => a.person), reviewId: rowId });
  await putAll(work, actor, number, 'again', rows.map((row) => ({ row, state: 'inReview', agreed: row.agreedVersion })));
  return { review: await told(work, actor, number), left };
}

/** Says what a review is called, until when it goes and whom it asks. What is agreed stays so; what waits may be agreed by this. */
export async function changeReview(work: UnitOfWork, actor: Actor, number: ReviewNumber, { title, note, due, people }: Terms): Promise<Review> {
  await lockProject(work, actor.projectId);
  const { rowId, review } = await openReview(work, actor.projectId, number);
  await refuseStrangers(work, actor.projectId, people);
  await execute(work, 'UPDATE review SET title = $2, note = $3, due = $4 WHERE id = $1', [rowId, title, note, due]);
  await execute(work, 'DELETE FROM review_asked WHERE review_id = $1', [rowId]);
  await writeAsked(work, rowId, people);
  const fresh = people.filter((person) => !review.asked.some((a) => a.person === person));
  if (fresh.length > 0) await put(work, { projectId: actor.projectId, reason: 'review', by: actor.personId, at: actor.at, people: fresh, reviewId: rowId });
  await decide(work, actor, number, null);
  return told(work, actor, number);
}

/** Takes somebody's answer to exact versions. @throws {DomainError} `review_moved` when another version of one is asked for by now: nothing is taken. */
export async function answerReview(work: UnitOfWork, actor: Actor, number: ReviewNumber, { of, agrees, note }: Answers): Promise<Review> {
  await lockProject(work, actor.projectId);
  const { rowId, review, rowOf } = await openReview(work, actor.projectId, number);
  if (!review.asked.some((a) => a.person === actor.personId)) throw new DomainError({ code: 'review_not_asked' });
  const items = new Map(review.items.map((i) => [i.id, i]));
  const fresh = of.flatMap(({ id, version }) => {
    const item = items.get(id);
    if (item === undefined || item.standing === 'left') throw new DomainError({ code: 'artefact_unknown', id });
    if (item.version !== version) throw new DomainError({ code: 'review_moved', id, version: item.version });
    const said = answerOf(item.answers, actor.personId, version);
    // The same once more, as when it is sent again, is said already.
    return said?.agrees === agrees && said.note === note ? [] : [{ artefact: rowOf.get(id), version }];
  });
  await execute(
    work,
    `INSERT INTO review_answer (review_id, artefact_id, person_id, version, agrees, note, at)
     SELECT $1, r.artefact, $3, r.version, $4, $5, $6 FROM jsonb_to_recordset($2::jsonb) AS r(artefact bigint, version int)`,
    [rowId, JSON.stringify(fresh), actor.personId, agrees, note, actor.at],
  );
  if (!agrees && fresh.length > 0) await put(work, { projectId: actor.projectId, reason: 'objected', by: actor.personId, at: actor.at, people: await askedBy(work, rowId), reviewId: rowId, detail: note });
  await decide(work, actor, number, of.map((o) => o.id));
  return told(work, actor, number);
}

const askerRow = z.object({ person: z.string() });

/** Who asked for a review. */
async function askedBy(work: UnitOfWork, rowId: string): Promise<string[]> {
  return (await selectRows(work, askerRow, 'SELECT asked_by AS person FROM review WHERE id = $1', [rowId])).map((r) => r.person);
}

/** Ends a review: what is agreed stays so, the rest is a draft again. */
export async function endReview(work: UnitOfWork, actor: Actor, number: ReviewNumber): Promise<Review> {
  await lockProject(work, actor.projectId);
  if ((await changeOfRetry(work, actor)) !== null) return (await readReview(work, actor.projectId, number)).review;
  const { rowId, review } = await openReview(work, actor.projectId, number);
  const { rows } = await rowsOfIds(work, actor.projectId, review.items.filter((i) => i.standing === 'waiting').map((i) => i.id));
  await execute(work, `UPDATE review_item SET standing = CASE WHEN standing = 'waiting' THEN 'left' ELSE standing END, open = false WHERE review_id = $1`, [rowId]);
  await execute(work, 'UPDATE review SET ended_at = $2, ended_by = $3 WHERE id = $1', [rowId, actor.at, actor.personId]);
  await putAll(work, actor, number, 'ended', rows.filter((r) => r.state === 'inReview').map((row) => ({ row, state: 'draft', agreed: row.agreedVersion })));
  return told(work, actor, number);
}

/** Settles the reviews that go on anew: what the project asks for, or who may agree, is another now. */
export async function decideAnew(work: UnitOfWork, actor: Actor): Promise<void> {
  await lockProject(work, actor.projectId);
  for (const { number } of await selectRows(work, numberRow, 'SELECT number FROM review WHERE project_id = $1 AND ended_at IS NULL ORDER BY number', [actor.projectId])) {
    await decide(work, { ...actor, commandId: null }, reviewNumber(number), null);
    await tellPages(work, actor.projectId, { event: 'reviewed', data: { review: reviewNumber(number) } });
  }
}

/** Settles what the answers make of artefacts (null: of all), and ends the review when nothing is left to be agreed to. */
async function decide(work: UnitOfWork, actor: Actor, number: ReviewNumber, ids: readonly ArtefactId[] | null): Promise<void> {
  const { rowId, review } = await readReview(work, actor.projectId, number);
  const { agreement } = (await readSettings(work, actor.projectId)).settings;
  const some = review.items.filter((i) => i.standing !== 'left' && (ids === null ? i.standing !== 'agreed' : ids.includes(i.id)));
  const changed = some.flatMap((item) => {
    const standing = standingOf(item, review.asked, item.answers, agreement);
    return standing === item.standing ? [] : [{ item, standing }];
  });
  if (changed.length > 0) {
    const rows = new Map((await rowsOfIds(work, actor.projectId, changed.map((c) => c.item.id))).rows.map((row) => [idOfRow(row), row]));
    const settled = changed.flatMap(({ item, standing }) => {
      const row = rows.get(item.id);
      return row === undefined ? [] : [settledAs(row, item, standing)];
    });
    await execute(
      work,
      `UPDATE review_item i SET standing = r.standing, version = r.version FROM jsonb_to_recordset($2::jsonb) AS r(id bigint, standing text, version int) WHERE i.review_id = $1 AND i.artefact_id = r.id`,
      [rowId, JSON.stringify(settled.map(({ row, standing, version }) => ({ id: row.id, standing, version })))],
    );
    await putAll(work, actor, number, deedOf(settled.map((s) => s.standing)), settled);
  }
  await endWhatIsDone(work, [rowId], actor.at);
}

interface Settled extends StateNow {
  readonly standing: Standing;
  readonly version: number;
}

/** What becomes of an artefact by the answers to it. An objection to what was agreed in the same review takes this agreement back. */
function settledAs(row: ArtefactRow, item: ReviewItem, standing: Standing): Settled {
  const before = row.agreedVersion === item.version ? item.since : row.agreedVersion;
  if (standing === 'objected') return { row, standing, version: item.version, state: 'draft', agreed: before };
  // It was mended after an objection that is taken back now: what is asked for is what it has become.
  if (row.meaningSince > item.version) return { row, standing: 'waiting', version: row.head, state: 'inReview', agreed: before };
  return standing === 'agreed' ? { row, standing, version: item.version, state: 'agreed', agreed: item.version } : { row, standing, version: item.version, state: 'inReview', agreed: before };
}

function deedOf(standings: readonly Standing[]): ReviewDeed {
  return standings.includes('objected') ? 'objected' : standings.includes('agreed') ? 'agreed' : 'waiting';
}

/** What the journal calls what a review did. */
type ReviewDeed = 'asked' | 'again' | 'agreed' | 'objected' | 'waiting' | 'ended';

async function putAll(work: UnitOfWork, actor: Actor, number: ReviewNumber, deed: ReviewDeed, now: readonly StateNow[]): Promise<void> {
  if (now.length === 0) return;
  const parts = await putStates(work, now);
  await writeJournalEntry(work, actor, { action: 'review', parts, detail: `${number} ${deed}`, note: '' });
}

async function openReview(work: UnitOfWork, projectId: string, number: ReviewNumber): Promise<StoredReview> {
  const stored = await readReview(work, projectId, number);
  if (stored.review.endedAt !== null) throw new DomainError({ code: 'review_ended' });
  return stored;
}

async function told(work: UnitOfWork, { projectId }: Actor, number: ReviewNumber): Promise<Review> {
  await tellPages(work, projectId, { event: 'reviewed', data: { review: number } });
  return (await readReview(work, projectId, number)).review;
}

async function writeAsked(work: UnitOfWork, review: string, people: readonly string[]): Promise<void> {
  await execute(work, 'INSERT INTO review_asked (review_id, person_id, place) SELECT $1, p.id, p.place FROM unnest($2::uuid[]) WITH ORDINALITY AS p(id, place)', [review, people]);
}

/** Who sees only a part could not read what they agree to. */
async function refuseStrangers(work: UnitOfWork, projectId: string, people: readonly string[]): Promise<void> {
  const members = new Set((await listMembers(work, projectId)).filter((m) => m.sees === null).map((m) => m.id));
  if (people.some((p) => !members.has(p))) throw new DomainError({ code: 'person_unknown' });
}

/** What can be asked for of these; `before`: asked for in this review already. @throws {DomainError} when it is nothing. */
async function reviewable(work: UnitOfWork, { projectId }: Actor, ids: readonly ArtefactId[], before: ReadonlyMap<ArtefactId, ReviewItem> | null = null): Promise<{ readonly rows: ArtefactRow[]; readonly left: AskedReview['left'] }> {
  const found = await rowsOfIds(work, projectId, ids);
  const held = new Set((await selectRows(work, idRow, 'SELECT artefact_id AS id FROM review_item WHERE artefact_id = ANY($1) AND open', [found.rows.map((r) => r.id)])).map((r) => r.id));
  const left: AskedReview['left'] = found.absent.map((id) => ({ id, reason: 'absent' }));
  const rows = found.rows.filter((row) => {
    const id = idOfRow(row);
    const item = before?.get(id);
    // What was objected to here is still held by this review.
    const reason = before !== null && item === undefined ? 'absent' : reasonToLeave(row, item, held.has(row.id) && item?.standing !== 'objected');
    if (reason !== null) left.push({ id, reason });
    return reason === null;
  });
  if (rows.length === 0) throw new DomainError({ code: 'review_of_nothing' });
  return { rows, left };
}

function reasonToLeave(row: ArtefactRow, item: ReviewItem | undefined, isHeld: boolean): UnreviewedReason | null {
  if (!isReviewable(row.kind)) return 'question';
  if (row.state === 'withdrawn') return 'withdrawn';
  if (isHeld) return 'inReview';
  if (row.state === 'agreed') return 'agreedAlready';
  return item?.standing === 'objected' && item.version >= row.meaningSince ? 'unchanged' : null;
}

/** @throws {DomainError} when an artefact can never be agreed to by those who are asked. */
async function refuseHopeless(work: UnitOfWork, projectId: string, review: Review): Promise<void> {
  const { agreement } = (await readSettings(work, projectId)).settings;
  const hopeless = review.items.find((item) => neededOf(item, review.asked, agreement) === null);
  if (hopeless !== undefined) throw new DomainError({ code: 'reviewers_too_few', id: hopeless.id, needed: agreement.needed, authors: agreement.authors });
}
