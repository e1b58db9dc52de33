import type { ArtefactId } from '@caderno/core/artefacts';
import type { Following } from '@caderno/contract';
import { z } from 'zod';
import { findArtefact } from '../artefacts/index.ts';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';

/** A command on more than these is one deed: whoever gave it has written in none of them, and it is told as one. */
export const MOST_SINGLE = 20;

/** Somebody of a project. */
export interface Reader {
  readonly projectId: string;
  readonly personId: string;
}

/**
 * Who follows artefacts, whether still in the project or not: rows (artefact_id, person_id) of those among `ids`, an SQL
 * expression of a set of row ids. Who owns one, is asked by it or wrote in it does, unless they chose not to; whoever chose
 * to does. An import or another command on many is no writing in each.
 */
export const followersSql = (ids: string, project: string): string => `
  SELECT f.artefact_id, f.person_id FROM follow f WHERE f.artefact_id IN (${ids}) AND f.follows
  UNION
  (SELECT a.id, p.id FROM artefact a JOIN person p ON p.name = a.owner JOIN member m ON m.person_id = p.id AND m.project_id = ${project} WHERE a.id IN (${ids}) AND a.owner <> ''
   UNION SELECT v.artefact_id, v.author_id FROM artefact_version v JOIN change c ON c.id = v.change_id AND c.size <= ${MOST_SINGLE} WHERE v.artefact_id IN (${ids})
   EXCEPT SELECT f.artefact_id, f.person_id FROM follow f WHERE f.artefact_id IN (${ids}) AND NOT f.follows)`;

const followRow = z.object({ chosen: z.boolean().nullable(), owns: z.boolean(), wrote: z.boolean() });

/** Whether somebody follows an artefact. */
export async function readFollowing(work: UnitOfWork, { projectId, personId }: Reader, id: ArtefactId): Promise<Following> {
  const { id: rowId } = await findArtefact(work, projectId, id);
  const [row] = await selectRows(
    work,
    followRow,
    `SELECT (SELECT f.follows FROM follow f WHERE f.artefact_id = $1 AND f.person_id = $2) AS chosen,
       EXISTS (SELECT 1 FROM artefact a JOIN person p ON p.name = a.owner WHERE a.id = $1 AND p.id = $2) AS owns,
       EXISTS (SELECT 1 FROM artefact_version v JOIN change c ON c.id = v.change_id AND c.size <= ${MOST_SINGLE} WHERE v.artefact_id = $1 AND v.author_id = $2) AS wrote`,
    [rowId, personId],
  );
  const why = row?.owns === true ? 'owner' : row?.wrote === true ? 'wrote' : null;
  if (row?.chosen === false) return { follows: false, why: null };
  return row?.chosen === true ? { follows: true, why: 'chosen' } : { follows: why !== null, why };
}

/** Follows an artefact, or not; null: as it comes. */
export async function follow(work: UnitOfWork, reader: Reader, id: ArtefactId, follows: boolean | null): Promise<Following> {
  const { id: rowId } = await findArtefact(work, reader.projectId, id);
  if (follows === null) await execute(work, 'DELETE FROM follow WHERE artefact_id = $1 AND person_id = $2', [rowId, reader.personId]);
  else await execute(work, 'INSERT INTO follow (artefact_id, person_id, follows) VALUES ($1, $2, $3) ON CONFLICT (artefact_id, person_id) DO UPDATE SET follows = EXCLUDED.follows', [rowId, reader.personId, follows]);
  return readFollowing(work, reader, id);
}
