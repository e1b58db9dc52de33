import type { ReusableId } from '@caderno/core/shared';
import type { ReuseGraph } from '@caderno/contract';
import { layOutGraph, type Point } from '../drawing/index.ts';

export type ReuseNode = ReuseGraph['nodes'][number];
export type ReuseEdge = ReuseGraph['edges'][number];

export interface PlacedNode extends Point {
  readonly node: ReuseNode;
}

export interface PlacedEdge {
  readonly edge: ReuseEdge;
  readonly points: readonly Point[];
}

export interface ReuseDrawing {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly PlacedNode[];
  readonly edges: readonly PlacedEdge[];
}

export const NODE_WIDTH = 200;
export const NODE_HEIGHT = 30;

/** Lays reuse out from left to right: what uses stands left of what it uses, so that one reads it as a sentence. */
export async function layOutReuse(nodes: readonly ReuseNode[], edges: readonly ReuseEdge[]): Promise<ReuseDrawing> {
  const laid = await layOutGraph({
    id: 'reuse',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'RIGHT',
      'elk.edgeRouting': 'SPLINES',
      'elk.spacing.nodeNode': '8',
      'elk.spacing.componentComponent': '18',
      'elk.layered.spacing.nodeNodeBetweenLayers': '44',
      // What uses stands right before what it uses, not at the far left.
      'elk.layered.layering.strategy': 'NETWORK_SIMPLEX',
      'elk.layered.spacing.edgeEdgeBetweenLayers': '6',
      'elk.padding': '[top=12,left=12,bottom=12,right=12]',
    },
    children: nodes.map((n) => ({ id: n.id, width: NODE_WIDTH, height: NODE_HEIGHT })),
    edges: edges.map((e) => ({ id: keyOfEdge(e), sources: [e.from], targets: [e.to] })),
  });
  const places = new Map((laid.children ?? []).map((c) => [c.id, { x: c.x ?? 0, y: c.y ?? 0 }]));
  const lines = new Map((laid.edges ?? []).map((e) => [e.id, e.sections?.[0]]));
  return {
    width: laid.width ?? 0,
    height: laid.height ?? 0,
    nodes: nodes.flatMap((node) => {
      const place = places.get(node.id);
      return place === undefined ? [] : [{ node, ...place }];
    }),
    edges: edges.flatMap((edge) => {
      const section = lines.get(keyOfEdge(edge));
      return section === undefined ? [] : [{ edge, points: [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] }];
    }),
  };
}

export function keyOfEdge({ from, to }: { readonly from: ReusableId; readonly to: ReusableId }): string {
  return `${from} ${to}`;
}
