import { ARTEFACT_STATES, ARTEFACT_KINDS } from '@caderno/core/artefacts';
import type { ReuseGraph } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { EDGE_COLUMNS, reusable, edgeRow, toEdges } from './reuse.ts';

/** More cannot be drawn so that anybody reads it: those with the most uses stay. */
const MOST_NODES = 600;

const nodeRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), title: z.string(), module: z.string(), state: z.enum(ARTEFACT_STATES) });

/** Everything that uses something or is used, and the uses between: the whole project's reuse, as it is drawn. */
export async function readReuseGraph(work: UnitOfWork, projectId: string): Promise<ReuseGraph> {
  const nodes = await selectRows(
    work,
    nodeRow,
    `SELECT a.kind, a.number, a.title, a.module, a.state, count(*) AS uses FROM artefact a JOIN link ON link.type = 'uses' AND (link.from_id = a.id OR link.to_id = a.id)
     WHERE a.project_id = $1 AND a.deleted_at IS NULL GROUP BY a.id ORDER BY uses DESC, a.kind DESC, a.number`,
    [projectId],
  );
  const drawn = nodes.slice(0, MOST_NODES);
  const edges = await selectRows(
    work,
    edgeRow,
    `SELECT ${EDGE_COLUMNS}
     FROM link JOIN artefact f ON f.id = link.from_id JOIN artefact t ON t.id = link.to_id
     WHERE link.type = 'uses' AND f.project_id = $1 AND f.deleted_at IS NULL AND t.deleted_at IS NULL ORDER BY f.kind, f.number, t.kind, t.number`,
    [projectId],
  );
  const named = drawn.flatMap(({ kind, number, title, module, state }) => {
    const id = reusable(kind, number);
    return id === null ? [] : [{ id, title, module, state }];
  });
  const ids = new Set(named.map((n) => n.id));
  return { leftOut: nodes.length - drawn.length, nodes: named, edges: toEdges(edges).filter((e) => ids.has(e.from) && ids.has(e.to)) };
}
