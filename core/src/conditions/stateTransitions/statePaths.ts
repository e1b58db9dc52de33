import type { ItemKey } from '../item.ts';
import { invalidPairKey, invalidPairs, leaving, sequenceKey, sequencesOf, stateKey } from './stateItems.ts';
import { stateItemsShown, stateJudge } from './stateEvidence.ts';
import { initialState, sequenceLength, type EventId, type StateId, type StateTransitionsModel, type Transition } from './stateTransitions.ts';
import { walksOverAllEdges, walksOverGroups, type Walk } from './walks.ts';

/** A way through the states, from the initial one. */
export interface StatePath {
  readonly start: StateId;
  readonly transitions: readonly Transition[];
  /** An event that is tried at the end and refused. */
  readonly refused: EventId | null;
  /** The wanted items it shows, in the order of the condition's list. */
  readonly shows: readonly ItemKey[];
}

export interface StatePaths {
  readonly paths: readonly StatePath[];
  /** Wanted items that no path from the initial state can show. */
  readonly unreachable: readonly ItemKey[];
  /** The paths for sequences are the fewest, and the shortest of these. Only claimed when all sequences are wanted. */
  readonly fewest: boolean;
}

/**
 * Paths from the initial state that show the wanted items: the fewest and then the shortest when all sequences of the
 * level are wanted, few otherwise; and one path per invalid pair, the shortest way to its state.
 */
export function statePaths(model: StateTransitionsModel, wanted: ReadonlySet<ItemKey>): StatePaths {
  const start = initialState(model);
  if (start === null) return { paths: [], unreachable: [...wanted], fewest: false };
  const length = Math.max(1, sequenceLength(model.level));
  const graph = sequenceGraph(model, start.id, length);
  const edges = new Set(graph.sequences.flatMap((s, e) => (wanted.has(sequenceKey(s.map((t) => t.id))) ? [e] : [])));
  const fewest = sequenceLength(model.level) > 0 && edges.size === graph.sequences.length;
  const walks = fewest ? walksOverAllEdges(graph, graph.starts, length - 1) : model.level === 'states' ? walksToStates(graph, start.id, wanted) : walksOverGroups(graph, graph.starts, edges, (e) => e);
  const judge = stateJudge(model);
  const order = [...judge.places.keys()];
  const shows = (transitions: readonly Transition[], refused: EventId | null): ItemKey[] => {
    const events = [...transitions.map((t) => ({ event: t.event, transition: t.id })), ...(refused === null ? [] : [{ event: refused, transition: null }])];
    const shown = new Set(stateItemsShown(judge, start.id, events));
    return order.filter((key, place) => shown.has(place) && wanted.has(key));
  };
  const along = walks.map((w) => pathOf(graph, w)).map((transitions): StatePath => ({ start: start.id, transitions, refused: null, shows: shows(transitions, null) }));
  const paths = [...along, ...refusals(model, wanted, start.id).map(({ transitions, refused }): StatePath => ({ start: start.id, transitions, refused, shows: shows(transitions, refused) }))];
  const shown = new Set(paths.flatMap((p) => p.shows));
  return { paths, unreachable: [...wanted].filter((key) => !shown.has(key)), fewest };
}

/** Nodes are sequences one shorter than the items, edges the items: an edge leads from its beginning to its end. */
interface SequenceGraph {
  readonly nodes: number;
  readonly from: readonly number[];
  readonly to: readonly number[];
  readonly starts: readonly number[];
  /** The transitions that lead into a start node. */
  readonly leadIn: ReadonlyMap<number, readonly Transition[]>;
  /** By edge. Only sequences that can be reached. */
  readonly sequences: readonly (readonly Transition[])[];
}

function sequenceGraph(model: StateTransitionsModel, start: StateId, length: number): SequenceGraph {
  const numbers = new Map<string, number>();
  const number = (key: string): number => {
    const known = numbers.get(key) ?? numbers.size;
    numbers.set(key, known);
    return known;
  };
  const key = (state: StateId, transitions: readonly Transition[]): string => (length === 1 ? state : transitions.map((t) => t.id).join('>'));
  const leadIn = new Map<number, readonly Transition[]>();
  const all = sequencesOf(model, length).map((s) => ({ s, from: number(key(s[0]?.from ?? start, s.slice(0, -1))), to: number(key(s.at(-1)?.to ?? start, s.slice(1))) }));
  const shorter = length === 1 ? [[]] : sequencesOf(model, length - 1).filter((s) => s[0]?.from === start);
  for (const s of shorter) leadIn.set(number(key(start, s)), s);
  const reached = reachedFrom([...leadIn.keys()], all);
  const edges = all.filter((e) => reached.has(e.from));
  return { nodes: numbers.size, from: edges.map((e) => e.from), to: edges.map((e) => e.to), starts: [...leadIn.keys()], leadIn, sequences: edges.map((e) => e.s) };
}

function reachedFrom(starts: readonly number[], edges: readonly { readonly from: number; readonly to: number }[]): ReadonlySet<number> {
  const out = new Map<number, number[]>();
  for (const { from, to } of edges) out.set(from, [...(out.get(from) ?? []), to]);
  const reached = new Set(starts);
  for (const node of reached) for (const next of out.get(node) ?? []) reached.add(next);
  return reached;
}

/** Each wanted state by some transition that leads to it. The start is shown by any event, so it needs one of its own only when it stands alone. */
function walksToStates(graph: SequenceGraph, start: StateId, wanted: ReadonlySet<ItemKey>): Walk[] {
  const entered = new Set(graph.sequences.flatMap(([t], e) => (t !== undefined && t.to !== start && wanted.has(stateKey(t.to)) ? [graph.to[e] ?? 0] : [])));
  const walks = walksOverGroups(graph, graph.starts, entered, (e) => graph.to[e] ?? 0);
  const first = graph.sequences.findIndex(([t]) => t?.from === start);
  return walks.length === 0 && wanted.has(stateKey(start)) && first >= 0 ? [{ start: graph.from[first] ?? 0, edges: [first] }] : walks;
}

function pathOf(graph: SequenceGraph, walk: Walk): Transition[] {
  return [...(graph.leadIn.get(walk.start) ?? []), ...walk.edges.flatMap((e) => graph.sequences[e]?.at(-1) ?? [])];
}

/** For each wanted invalid pair the shortest way to its state; pairs in states that cannot be reached are left out. */
function refusals(model: StateTransitionsModel, wanted: ReadonlySet<ItemKey>, start: StateId): { transitions: Transition[]; refused: EventId }[] {
  const pairs = model.invalidPairs ? invalidPairs(model).filter((p) => wanted.has(invalidPairKey(p.state, p.event))) : [];
  if (pairs.length === 0) return [];
  const ways = shortestWays(model, start);
  return pairs.flatMap(({ state, event }) => {
    const transitions = ways.get(state);
    return transitions === undefined ? [] : [{ transitions, refused: event }];
  });
}

function shortestWays(model: StateTransitionsModel, start: StateId): Map<StateId, Transition[]> {
  const out = leaving(model);
  const ways = new Map<StateId, Transition[]>([[start, []]]);
  for (const [state, way] of ways) for (const t of out.get(state) ?? []) if (!ways.has(t.to)) ways.set(t.to, [...way, t]);
  return ways;
}
