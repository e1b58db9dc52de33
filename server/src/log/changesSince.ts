import { ARTEFACT_KINDS, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { MOST_CHANGED, packHeads, type ChangesSince, type Touched } from '@caderno/contract';
import { z } from 'zod';
import { selectSummaries } from '../artefacts/index.ts';
import { answersAny, selectRows, type UnitOfWork } from '../database/index.ts';
import { countSuspectLinks } from '../projects/index.ts';
import { revisionOf } from './revision.ts';

/**
 * What changed in a project since a revision. Read in one snapshot. Too much, or a revision that the project has not
 * come to (it was restored from a backup), is answered as too old.
 */
export async function readChangesSince(work: UnitOfWork, projectId: string, since: number): Promise<ChangesSince> {
  const revision = await revisionOf(work, projectId);
  if (since > revision) return { kind: 'tooOld', revision };
  const altered = since === revision ? [] : await alteredSince(work, projectId, since, MOST_CHANGED + 1);
  if (altered.length > MOST_CHANGED) return { kind: 'tooOld', revision };
  const rowIds = altered.map((a) => a.rowId);
  const summaries = altered.length === 0 ? [] : await selectSummaries(work, 'a.id = ANY($1) AND a.deleted_at IS NULL', [rowIds], 'a.kind, a.number');
  return {
    kind: 'changes',
    since,
    revision,
    heads: packHeads(summaries),
    gone: altered.flatMap((a) => (a.gone ? [artefactId(a.kind, a.number)] : [])),
    touched: await touchedBy(work, altered),
    settings: since !== revision && (await settingsChangedSince(work, projectId, since)),
    suspectLinks: await countSuspectLinks(work, projectId),
  };
}

const alteredRow = z.object({ rowId: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), gone: z.boolean() });
export type Altered = z.infer<typeof alteredRow>;

/** The artefacts of which anything that lists show was altered since a revision; at most so many. */
export function alteredSince(work: UnitOfWork, projectId: string, since: number, most: number): Promise<Altered[]> {
  return selectRows(
    work,
    alteredRow,
    `SELECT id AS "rowId", kind, number, deleted_at IS NOT NULL AS gone FROM artefact WHERE project_id = $1 AND revision > $2 ORDER BY kind, number LIMIT $3`,
    [projectId, since, most],
  );
}

const touchedRow = z.object({ from: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number() });

async function touchedBy(work: UnitOfWork, altered: readonly Altered[]): Promise<Touched[]> {
  if (altered.length === 0) return [];
  const links = await selectRows(
    work,
    touchedRow,
    'SELECT DISTINCT link.from_id AS "from", t.kind, t.number FROM link JOIN artefact t ON t.id = link.to_id WHERE link.from_id = ANY($1) ORDER BY t.kind, t.number',
    [altered.map((a) => a.rowId)],
  );
  const targets = new Map<string, ArtefactId[]>(altered.map((a) => [a.rowId, []]));
  for (const { from, kind, number } of links) targets.get(from)?.push(artefactId(kind, number));
  return altered.map(({ rowId, kind, number }) => ({ id: artefactId(kind, number), to: targets.get(rowId) ?? [] }));
}

/** Whether a change since was of the settings, which are no artefact. */
export async function settingsChangedSince(work: UnitOfWork, projectId: string, revision: number): Promise<boolean> {
  return answersAny(work, 'SELECT 1 FROM change c JOIN change_part p ON p.change_id = c.id WHERE c.project_id = $1 AND c.revision > $2 AND p.artefact_id IS NULL LIMIT 1', [projectId, revision]);
}
