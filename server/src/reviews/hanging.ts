import { ARTEFACT_KINDS, artefactId, kindOfId, type ArtefactId, type RequirementId, type SuiteId } from '@caderno/core/artefacts';
import { z } from 'zod';
import { findArtefact } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readReachOfSuite } from '../suites/index.ts';

const hangingRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number() });

/** What hangs on a requirement or a suite: what is reviewed with it. */
export function readHanging(work: UnitOfWork, projectId: string, id: RequirementId | SuiteId, now: number): Promise<ArtefactId[]> {
  return isSuite(id) ? readReachOfSuite(work, projectId, id, now) : hangingOn(work, projectId, id);
}

function isSuite(id: RequirementId | SuiteId): id is SuiteId {
  return kindOfId(id) === 'suite';
}

/** What hangs on a requirement: what stands below it, what is derived from these or covers them, and whatever that uses; the requirement itself first, nothing that is withdrawn. Suites are none of it. */
export async function hangingOn(work: UnitOfWork, projectId: string, requirement: RequirementId): Promise<ArtefactId[]> {
  const { id } = await findArtefact(work, projectId, requirement);
  const rows = await selectRows(
    work,
    hangingRow,
    `WITH RECURSIVE basis AS (
       SELECT $1::bigint AS id UNION SELECT a.id FROM artefact a JOIN basis b ON a.parent_id = b.id
     ), shows AS (
       SELECT id FROM basis UNION SELECT l.from_id FROM link l JOIN shows s ON l.to_id = s.id WHERE l.type IN ('derives', 'covers', 'serves')
     ), hanging AS (
       SELECT id FROM shows UNION SELECT l.to_id FROM link l JOIN hanging h ON l.from_id = h.id WHERE l.type = 'uses'
     )
     SELECT a.kind, a.number FROM hanging JOIN artefact a USING (id)
     WHERE a.deleted_at IS NULL AND a.state <> 'withdrawn' AND a.kind <> 'question' ORDER BY a.id <> $1, array_position($2::text[], a.kind), a.number`,
    [id, ARTEFACT_KINDS],
  );
  return rows.map((r) => artefactId(r.kind, r.number));
}
