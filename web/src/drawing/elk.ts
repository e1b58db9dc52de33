import ELK, { type ElkNode } from 'elkjs/lib/elk-api.js';
import workerUrl from 'elkjs/lib/elk-worker.min.js?url';

let elk: InstanceType<typeof ELK> | null = null;

/** Lays a graph out in a worker. */
export function layOutGraph(graph: ElkNode): Promise<ElkNode> {
  elk ??= new ELK({ workerUrl });
  return elk.layout(graph);
}
