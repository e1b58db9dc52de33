import type { ArtefactState } from '@caderno/core/artefacts';
import { reviewNumber } from '@caderno/core/reviews';
import { z } from 'zod';
import { answersAny, execute, numberRow, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { readSettings, tellPages } from '../projects/index.ts';
import { DomainError } from '../domainError.ts';
import type { Actor } from './journalEntry.ts';

const movedRow = z.object({ id: z.string(), review: z.string() });

/**
 * What changed in meaning is asked for anew in the review it is in, also where it was agreed there before: answers the
 * rows of these. What was objected to waits until somebody asks again.
 */
export async function moveOnInReviews(work: UnitOfWork, projectId: string, changed: readonly { readonly id: string; readonly version: number }[]): Promise<ReadonlySet<string>> {
  if (changed.length === 0) return new Set();
  const rows = await selectRows(
    work,
    movedRow,
    `UPDATE review_item i SET version = r.version, since = CASE WHEN i.standing = 'agreed' THEN i.version ELSE i.since END, standing = 'waiting'
     FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, version int) WHERE i.artefact_id = r.id AND i.open AND i.standing <> 'objected' RETURNING i.artefact_id AS id, i.review_id AS review`,
    [JSON.stringify(changed)],
  );
  await tellReviews(work, projectId, rows.map((r) => r.review));
  return new Set(rows.map((r) => r.id));
}

async function tellReviews(work: UnitOfWork, projectId: string, reviews: readonly string[]): Promise<void> {
  if (reviews.length === 0) return;
  for (const { number } of await selectRows(work, numberRow, 'SELECT number FROM review WHERE id = ANY($1) ORDER BY number', [reviews])) await tellPages(work, projectId, { event: 'reviewed', data: { review: reviewNumber(number) } });
}

/** Whose state is set by hand is no longer asked for; a review that asks for nothing more has ended. */
export async function leaveReviews(work: UnitOfWork, { projectId, at }: Pick<Actor, 'projectId' | 'at'>, rows: readonly ArtefactRow[]): Promise<void> {
  const left = await selectRows(
    work,
    movedRow,
    `UPDATE review_item SET standing = CASE WHEN standing = 'agreed' THEN 'agreed' ELSE 'left' END, open = false WHERE artefact_id = ANY($1) AND open RETURNING artefact_id AS id, review_id AS review`,
    [rows.map((r) => r.id)],
  );
  const reviews = left.map((l) => l.review);
  if (reviews.length > 0) await endWhatIsDone(work, reviews, at);
  await tellReviews(work, projectId, reviews);
}

/** Ends those reviews that ask for nothing more. */
export async function endWhatIsDone(work: UnitOfWork, reviews: readonly string[], at: Date): Promise<void> {
  await execute(
    work,
    `WITH done AS (
       UPDATE review SET ended_at = $2 WHERE id = ANY($1) AND ended_at IS NULL
         AND NOT EXISTS (SELECT 1 FROM review_item i WHERE i.review_id = review.id AND i.open AND i.standing <> 'agreed') RETURNING id)
     UPDATE review_item SET open = false FROM done WHERE review_id = done.id`,
    [reviews, at],
  );
}

/** The state something is put back to when a setting of its state is undone: what was agreed since, or is no longer asked for, is neither agreed nor in review. */
export async function stateToReturnTo(work: UnitOfWork, row: Pick<ArtefactRow, 'id' | 'meaningSince' | 'agreedVersion'>, state: ArtefactState): Promise<ArtefactState> {
  switch (state) {
    case 'inReview':
      return (await answersAny(work, 'SELECT 1 FROM review_item WHERE artefact_id = $1 AND open', [row.id])) ? 'inReview' : 'draft';
    case 'agreed':
      return row.agreedVersion !== null && row.agreedVersion >= row.meaningSince ? 'agreed' : 'draft';
    case 'draft':
    case 'withdrawn':
      return state;
  }
}

/** @throws {DomainError} for a state that a review only gives. */
export async function refuseByHand(work: UnitOfWork, projectId: string, state: ArtefactState): Promise<void> {
  if (state === 'inReview') throw new DomainError({ code: 'state_by_review', state });
  if (state === 'agreed' && !(await readSettings(work, projectId)).settings.agreement.byHand) throw new DomainError({ code: 'state_by_review', state });
}
