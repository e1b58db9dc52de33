import { ARTEFACT_STATES, ARTEFACT_KINDS, artefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { usersOf, usesOf, type Connected, type ReusableId, type UseEdge } from '@caderno/core/shared';
import type { ConnectedArtefact, Reuse } from '@caderno/contract';
import { z } from 'zod';
import { findArtefact, storedPinSchema } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

/** What uses shared steps, a case or a data set and what it uses, directly and through others. */
export async function readReuse(work: UnitOfWork, projectId: string, id: ArtefactId): Promise<Reuse> {
  const row = await findArtefact(work, projectId, id);
  const of = reusable(row.kind, row.number);
  if (of === null) throw new DomainError({ code: 'kind_mismatch', id, kind: 'shared' });
  const users = usersOf(await readEdges(work, row.id, 'to_id', 'from_id'), of);
  const uses = usesOf(await readEdges(work, row.id, 'from_id', 'to_id'), of);
  const known = await describe(work, projectId, [...users, ...uses].map((c) => c.id));
  const named = (list: readonly Connected[]): ConnectedArtefact[] => list.flatMap((c) => {
    const head = known.get(c.id);
    return head === undefined ? [] : [{ ...c, ...head }];
  });
  return { users: named(users), uses: named(uses) };
}

/** A use as the database answers it. */
export const edgeRow = z.object({ fromKind: z.enum(ARTEFACT_KINDS), fromNumber: z.number(), toKind: z.enum(ARTEFACT_KINDS), toNumber: z.number(), pinned: storedPinSchema });
type EdgeRow = z.infer<typeof edgeRow>;

/** Of a link with `f` and `t` at its ends. */
export const EDGE_COLUMNS = 'f.kind AS "fromKind", f.number AS "fromNumber", t.kind AS "toKind", t.number AS "toNumber", link.pinned';

/** The links of uses that are reached from an artefact by going on and on from one end of a link to the other. */
async function readEdges(work: UnitOfWork, rowId: string, at: 'from_id' | 'to_id', next: 'from_id' | 'to_id'): Promise<UseEdge[]> {
  const rows = await selectRows(
    work,
    edgeRow,
    `WITH RECURSIVE reached(id) AS (SELECT $1::bigint UNION SELECT link.${next} FROM link JOIN reached ON link.${at} = reached.id WHERE link.type = 'uses')
     SELECT ${EDGE_COLUMNS}
     FROM link JOIN reached ON link.${at} = reached.id JOIN artefact f ON f.id = link.from_id JOIN artefact t ON t.id = link.to_id
     WHERE link.type = 'uses' AND f.deleted_at IS NULL AND t.deleted_at IS NULL ORDER BY f.kind, f.number, t.kind, t.number`,
    [rowId],
  );
  return toEdges(rows);
}

export function toEdges(rows: readonly EdgeRow[]): UseEdge[] {
  return rows.flatMap(({ fromKind, fromNumber, toKind, toNumber, pinned }) => {
    const [from, to] = [reusable(fromKind, fromNumber), reusable(toKind, toNumber)];
    return from === null || to === null ? [] : [{ from, to, pinned }];
  });
}

export function reusable(kind: ArtefactKind, number: number): ReusableId | null {
  return kind === 'shared' || kind === 'case' || kind === 'dataSet' ? artefactId(kind, number) : null;
}

const describedRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), title: z.string(), state: z.enum(ARTEFACT_STATES), agreedVersion: z.number().nullable(), rows: z.number().nullable() });

async function describe(work: UnitOfWork, projectId: string, ids: readonly ReusableId[]): Promise<Map<ReusableId, Pick<ConnectedArtefact, 'title' | 'state' | 'agreedVersion' | 'instances'>>> {
  const numbers = (letter: string): number[] => ids.filter((id) => id.startsWith(letter)).map((id) => Number(id.slice(2)));
  const rows = await selectRows(
    work,
    describedRow,
    `SELECT kind, number, title, state, agreed_version AS "agreedVersion", (facts->>'rows')::int AS rows FROM artefact
     WHERE project_id = $1 AND ((kind = 'shared' AND number = ANY($2)) OR (kind = 'case' AND number = ANY($3)) OR (kind = 'dataSet' AND number = ANY($4)))`,
    [projectId, numbers('S'), numbers('C'), numbers('D')],
  );
  return new Map(
    rows.flatMap(({ kind, number, title, state, agreedVersion, rows: count }) => {
      const id = reusable(kind, number);
      return id === null ? [] : [[id, { title, state, agreedVersion, instances: kind === 'case' ? Math.max(1, count ?? 0) : null }] as const];
    }),
  );
}
