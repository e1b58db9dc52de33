import { type ArtefactKind, type ArtefactState } from '@caderno/core/artefacts';
import type { ReuseGraph } from '@caderno/contract';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { EDGE_COLUMNS, reusable, toEdges, type EdgeRow } from './reuse.ts';

/** More cannot be drawn so that anybody reads it: those with the most uses stay. */
const MOST_NODES = 600;

interface NodeRow {
  readonly kind: ArtefactKind;
  readonly number: number;
  readonly title: string;
  readonly module: string;
  readonly state: ArtefactState;
}

/** Everything that uses something or is used, and the uses between: the whole project's reuse, as it is drawn. */
export async function readReuseGraph(work: UnitOfWork, projectId: string): Promise<ReuseGraph> {
  const nodes = await selectRows<NodeRow>(
    work,
    `SELECT a.kind, a.number, a.title, a.module, a.state, count(*) AS uses FROM artefact a JOIN link ON link.type = 'uses' AND (link.from_id = a.id OR link.to_id = a.id)
     WHERE a.project_id = $1 AND a.deleted_at IS NULL GROUP BY a.id ORDER BY uses DESC, a.kind DESC, a.number`,
    [projectId],
  );
  const drawn = nodes.slice(0, MOST_NODES);
  const edges = await selectRows<EdgeRow>(
    work,
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
