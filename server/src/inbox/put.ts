import type { InboxReason } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { tellPages } from '../projects/index.ts';

/** Something for some people. */
export interface Delivery {
  readonly projectId: string;
  readonly reason: InboxReason;
  readonly by: string;
  readonly at: Date;
  readonly people: readonly string[];
  readonly artefactId?: string;
  readonly remarkId?: string;
  readonly reviewId?: string;
  readonly detail?: string;
}

const personRow = z.object({ person: z.string() });

/** Puts something into the inboxes of people who see all of the project and want to hear of such; nobody is told what they did themselves. */
export async function put(work: UnitOfWork, { projectId, reason, by, at, people, artefactId, remarkId, reviewId, detail = '' }: Delivery): Promise<void> {
  const reached = await selectRows(
    work,
    personRow,
    `INSERT INTO inbox_entry (project_id, person_id, reason, by_id, at, artefact_id, remark_id, review_id, detail)
     SELECT $1, m.person_id, $2, $3, $4, $6, $7, $8, $9 FROM member m
     WHERE m.project_id = $1 AND m.sees IS NULL AND m.person_id = ANY($5) AND m.person_id <> $3 AND NOT EXISTS (SELECT 1 FROM inbox_silence s WHERE s.project_id = $1 AND s.person_id = m.person_id AND s.reason = $2)
     RETURNING person_id AS person`,
    [projectId, reason, by, at, people, artefactId ?? null, remarkId ?? null, reviewId ?? null, detail],
  );
  await tellReached(work, projectId, reached.map((r) => r.person));
}

/** Tells the pages of people that something came in. */
export async function tellReached(work: UnitOfWork, projectId: string, people: readonly string[]): Promise<void> {
  // A notification has room for some 200 of them.
  const once = [...new Set(people)];
  for (let at = 0; at < once.length; at += 150) await tellPages(work, projectId, { event: 'delivered', data: { people: once.slice(at, at + 150) } });
}
