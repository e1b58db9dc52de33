/** A directed graph by number: `from[e]` and `to[e]` are the nodes of edge e. */
export interface Digraph {
  readonly nodes: number;
  readonly from: readonly number[];
  readonly to: readonly number[];
}

/** Edges in the order walked, from a start node. */
export interface Walk {
  readonly start: number;
  readonly edges: readonly number[];
}

/** Dearer than any walk: the number of walks counts before their length. */
const NEW_WALK = 1_000_000;

/**
 * The fewest, and among these the shortest, walks from start nodes that pass every edge: the least costly flow with at
 * least one unit on each edge, taken apart by Hierholzer's method. Every
 * edge must be reachable from a start. `startCost` is added to the length of each walk.
 */
export function walksOverAllEdges(graph: Digraph, starts: readonly number[], startCost: number): Walk[] {
  if (graph.from.length === 0) return [];
  const ends: Ends = { end: graph.nodes, begin: graph.nodes + 1 };
  const arcs = arcsOf(graph, starts, ends, startCost);
  const network: Network = { arcs, around: arcsAround(arcs, graph.nodes + 2) };
  const balance = new Array<number>(graph.nodes + 2).fill(0);
  const move = (from: number, to: number): void => {
    balance[from] = (balance[from] ?? 0) - 1;
    balance[to] = (balance[to] ?? 0) + 1;
  };
  graph.from.forEach((from, e) => {
    move(from, graph.to[e] ?? 0);
  });
  // One walk there is in any case, so the first costs nothing.
  move(ends.end, ends.begin);
  const flow = new Array<number>(arcs.length).fill(0);
  while (augment(network, balance, flow));
  return takeApart(ends, arcs, flow);
}

/** Two nodes beside the graph's: walks go from any node to the end, from the end to the beginning, and from there to a start. */
interface Ends {
  readonly end: number;
  readonly begin: number;
}

interface Arc {
  readonly from: number;
  readonly to: number;
  readonly cost: number;
  /** The edge it adds a unit to; null: a walk ends or begins. */
  readonly edge: number | null;
}

interface Network {
  readonly arcs: readonly Arc[];
  readonly around: readonly (readonly number[])[];
}

function arcsOf(graph: Digraph, starts: readonly number[], { end, begin }: Ends, startCost: number): Arc[] {
  const edges = graph.from.map((from, e): Arc => ({ from, to: graph.to[e] ?? 0, cost: 1, edge: e }));
  const ending = Array.from({ length: graph.nodes }, (_, v): Arc => ({ from: v, to: end, cost: 0, edge: null }));
  const beginning = starts.map((s): Arc => ({ from: begin, to: s, cost: startCost, edge: null }));
  return [...edges, ...ending, ...beginning, { from: end, to: begin, cost: NEW_WALK, edge: null }];
}

/** Sends what is too much at some node along the cheapest way to where it is wanting; false when nothing is left. */
function augment(network: Network, balance: number[], flow: number[]): boolean {
  const { arcs } = network;
  const { distance, by } = cheapest(network, balance, flow);
  let sink = -1;
  for (let v = 0; v < balance.length; v += 1) if ((balance[v] ?? 0) < 0 && Number.isFinite(distance[v]) && (sink < 0 || (distance[v] ?? 0) < (distance[sink] ?? 0))) sink = v;
  if (sink < 0) return false;
  const way: number[] = [];
  let source = sink;
  for (let step = by[source]; step !== undefined && step !== 0; step = by[source]) {
    way.push(step);
    const arc = arcs[Math.abs(step) - 1];
    source = (step > 0 ? arc?.from : arc?.to) ?? 0;
  }
  const room = way.map((step) => (step > 0 ? Infinity : (flow[-step - 1] ?? 0)));
  const amount = Math.min(balance[source] ?? 0, -(balance[sink] ?? 0), ...room);
  for (const step of way) flow[Math.abs(step) - 1] = (flow[Math.abs(step) - 1] ?? 0) + Math.sign(step) * amount;
  balance[source] = (balance[source] ?? 0) - amount;
  balance[sink] = (balance[sink] ?? 0) + amount;
  return true;
}

/**
 * Cheapest ways from all nodes with too much (Bellman and Ford, with a queue: ways back over flow have negative cost).
 * `by[v]` is the arc that leads to v, from 1, negative when it is taken backwards; 0 at a source.
 */
function cheapest({ arcs, around }: Network, balance: readonly number[], flow: readonly number[]): { distance: number[]; by: number[] } {
  const distance = balance.map((b) => (b > 0 ? 0 : Infinity));
  const by = new Array<number>(balance.length).fill(0);
  const queue = balance.flatMap((b, v) => (b > 0 ? [v] : []));
  const queued = balance.map((b) => b > 0);
  for (let head = 0; head < queue.length; head += 1) {
    const v = queue[head] ?? 0;
    queued[v] = false;
    for (const step of around[v] ?? []) {
      const place = Math.abs(step) - 1;
      const arc = arcs[place];
      if (arc === undefined || (step < 0 && (flow[place] ?? 0) === 0)) continue;
      const [next, cost] = step > 0 ? [arc.to, arc.cost] : [arc.from, -arc.cost];
      const reached = (distance[v] ?? 0) + cost;
      if (reached >= (distance[next] ?? 0)) continue;
      distance[next] = reached;
      by[next] = step;
      if (!queued[next]) queue.push(next);
      queued[next] = true;
    }
  }
  return { distance, by };
}

/** The arcs at each node, from 1, negative for those that end there. */
function arcsAround(arcs: readonly Arc[], nodes: number): number[][] {
  const around: number[][] = Array.from({ length: nodes }, () => []);
  arcs.forEach(({ from, to }, i) => {
    around[from]?.push(i + 1);
    around[to]?.push(-i - 1);
  });
  return around;
}

/** One closed walk over every edge as often as it carries flow, cut where it begins and ends. */
function takeApart({ end, begin }: Ends, arcs: readonly Arc[], flow: readonly number[]): Walk[] {
  const left: { to: number; edge: number | null }[][] = Array.from({ length: begin + 1 }, () => []);
  arcs.forEach(({ from, to, edge }, i) => {
    const always = edge !== null || from === end ? 1 : 0;
    for (let n = (flow[i] ?? 0) + always; n > 0; n -= 1) left[from]?.push({ to, edge });
  });
  const walks: { start: number; edges: number[] }[] = [];
  for (const { from, to, edge } of circuit(left, begin)) {
    if (from === begin) walks.push({ start: to, edges: [] });
    else if (edge !== null) walks.at(-1)?.edges.push(edge);
  }
  return walks;
}

/** Hierholzer: a closed walk from a node over all edges that can be reached; uses them up. */
function circuit(left: { to: number; edge: number | null }[][], start: number): { from: number; to: number; edge: number | null }[] {
  const stack: { at: number; by: { from: number; to: number; edge: number | null } | null }[] = [{ at: start, by: null }];
  const found: { from: number; to: number; edge: number | null }[] = [];
  for (let top = stack.at(-1); top !== undefined; top = stack.at(-1)) {
    const next = left[top.at]?.pop();
    if (next !== undefined) stack.push({ at: next.to, by: { from: top.at, ...next } });
    else {
      stack.pop();
      if (top.by !== null) found.push(top.by);
    }
  }
  return found.reverse();
}

/**
 * Walks from start nodes that pass an edge of every wanted group: always on to the nearest that is left, those first
 * from which one can come back, so that a part of the graph is finished before it is left. Few walks, not proven the
 * fewest.
 */
export function walksOverGroups(graph: Digraph, starts: readonly number[], wanted: ReadonlySet<number>, groupOf: (edge: number) => number): Walk[] {
  const out: number[][] = Array.from({ length: graph.nodes }, () => []);
  graph.from.forEach((v, e) => out[v]?.push(e));
  const left = new Set(wanted);
  const isWanted = (e: number): boolean => left.has(groupOf(e));
  const walks: Walk[] = [];
  while (left.size > 0) {
    const begun = starts.flatMap((start) => {
      const way = nearest(graph, out, start, isWanted);
      return way === null ? [] : [{ start, way }];
    });
    const [best] = begun.toSorted((a, b) => a.way.length - b.way.length);
    if (best === undefined) break;
    const edges: number[] = [];
    for (let way: readonly number[] | null = best.way; way !== null; way = nearest(graph, out, graph.to[edges.at(-1) ?? 0] ?? 0, isWanted)) {
      edges.push(...way);
      for (const e of way) left.delete(groupOf(e));
    }
    walks.push({ start: best.start, edges });
  }
  return walks;
}

/** The shortest way that ends with a wanted edge from whose end one can come back, else with any; null: none. */
function nearest(graph: Digraph, out: readonly (readonly number[])[], start: number, isWanted: (edge: number) => boolean): number[] | null {
  const by = new Map<number, number>();
  const seen = new Set([start]);
  const found: { edge: number; at: number }[] = [];
  for (const v of seen) {
    for (const e of out[v] ?? []) {
      if (isWanted(e)) found.push({ edge: e, at: v });
      const next = graph.to[e] ?? 0;
      if (!seen.has(next)) by.set(next, e);
      seen.add(next);
    }
  }
  const home = nodesLeadingTo(graph, start);
  const chosen = found.find(({ edge }) => home.has(graph.to[edge] ?? 0)) ?? found[0];
  if (chosen === undefined) return null;
  const way = [chosen.edge];
  for (let v = chosen.at; v !== start; v = graph.from[way[0] ?? 0] ?? start) {
    const e = by.get(v);
    if (e === undefined) break;
    way.unshift(e);
  }
  return way;
}

function nodesLeadingTo(graph: Digraph, node: number): ReadonlySet<number> {
  const into: number[][] = Array.from({ length: graph.nodes }, () => []);
  graph.to.forEach((v, e) => into[v]?.push(graph.from[e] ?? 0));
  const leading = new Set([node]);
  for (const v of leading) for (const before of into[v] ?? []) leading.add(before);
  return leading;
}
