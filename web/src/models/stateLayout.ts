import { eventWords, liveTransitions, type StateId, type StateTransitionsModel, type Transition, type TransitionId } from '@caderno/core/conditions';
import type { ElkExtendedEdge, ElkNode } from 'elkjs/lib/elk-api.js';
import { layOutGraph, type Point } from '../drawing/index.ts';

export interface StateBox extends Point {
  readonly id: StateId;
  readonly width: number;
  readonly height: number;
}

/** A line through points, with its words at a place. */
export interface TransitionLine {
  readonly id: TransitionId;
  readonly points: readonly Point[];
  readonly label: Point;
}

/** A state model as it lies. */
export interface StateDrawing {
  readonly width: number;
  readonly height: number;
  readonly states: readonly StateBox[];
  readonly lines: readonly TransitionLine[];
}

const STATE_HEIGHT = 34;
const LETTER = 7.4;
const LABEL_LETTER = 6.3;
export const LABEL_LINE = 14;
/** What a drawing has room for before it is made smaller. */
const ROOM = { width: 680, height: 520 };
const MOST_TRIED_TWICE = 60;
const MARGIN = 14;
/** Above so many transitions words would hide the lines. */
export const MOST_LABELLED = 150;

/** Lays a state model out, left to right, in a worker; states put by hand stay where they are put. */
export async function layOut(model: StateTransitionsModel): Promise<StateDrawing> {
  const across = await layOutGraph(graphOf(model, 'RIGHT'));
  // States put by hand keep to one direction: the other would carry the rest of the diagram away from them.
  // Neither does it pay to lay out a large one twice.
  const down = model.states.some((s) => s.place !== null) || model.states.length > MOST_TRIED_TWICE || fit(across) === 1 ? null : await layOutGraph(graphOf(model, 'DOWN'));
  return withHandPlaces(model, drawingOf(model, down !== null && fit(down) > fit(across) ? down : across));
}

/** How large a drawing can be shown; 1 is its own size. */
function fit({ width = 1, height = 1 }: ElkNode): number {
  return Math.min(1, ROOM.width / width, ROOM.height / height);
}

/** The words at a transition: the event, and below it the guard. */
export function labelLines(model: StateTransitionsModel, t: Pick<Transition, 'event' | 'guard'>): string[] {
  return [eventWords(model, { event: t.event, guard: '' }), ...(t.guard === '' ? [] : [`[${t.guard}]`])];
}

function widthOf(name: string): number {
  return Math.max(74, Math.min(190, name.length * LETTER + 26));
}

function graphOf(model: StateTransitionsModel, direction: 'RIGHT' | 'DOWN'): ElkNode {
  const transitions = liveTransitions(model);
  const labelled = transitions.length <= MOST_LABELLED;
  return {
    id: 'model',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': direction,
      'elk.edgeRouting': 'SPLINES',
      'elk.spacing.nodeNode': '34',
      'elk.spacing.edgeLabel': '3',
      'elk.layered.spacing.nodeNodeBetweenLayers': '46',
      'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
      'elk.padding': `[top=${MARGIN},left=${MARGIN},bottom=${MARGIN},right=${MARGIN}]`,
      'elk.edgeLabels.inline': 'true',
    },
    children: model.states.map((s) => ({ id: s.id, width: widthOf(s.name), height: STATE_HEIGHT, ...(s.initial ? { layoutOptions: { 'elk.layered.layering.layerConstraint': 'FIRST' } } : {}) })),
    edges: transitions.map((t): ElkExtendedEdge => ({
      id: t.id,
      sources: [t.from],
      targets: [t.to],
      labels: labelled ? [{ text: eventWords(model, t), width: Math.max(...labelLines(model, t).map((l) => l.length)) * LABEL_LETTER + 6, height: labelLines(model, t).length * LABEL_LINE }] : [],
    })),
  };
}

function drawingOf(model: StateTransitionsModel, laid: ElkNode): StateDrawing {
  const states = model.states.flatMap((s): StateBox[] => {
    const node = laid.children?.find((c) => c.id === s.id);
    return node === undefined ? [] : [{ id: s.id, x: node.x ?? 0, y: node.y ?? 0, width: node.width ?? 80, height: node.height ?? STATE_HEIGHT }];
  });
  const lines = liveTransitions(model).flatMap((t): TransitionLine[] => {
    const edge = laid.edges?.find((e) => e.id === t.id);
    const section = edge?.sections?.[0];
    if (edge === undefined || section === undefined) return [];
    const points = [section.startPoint, ...(section.bendPoints ?? []), section.endPoint];
    const label = edge.labels?.[0];
    const at = label === undefined ? middle(points) : { x: (label.x ?? 0) + (label.width ?? 0) / 2, y: (label.y ?? 0) + (label.height ?? 0) / 2 };
    return [{ id: t.id, points, label: at }];
  });
  return { width: laid.width ?? 0, height: laid.height ?? 0, states, lines };
}

function middle(points: readonly Point[]): Point {
  return points[Math.floor(points.length / 2)] ?? { x: 0, y: 0 };
}

/** Lines at a state that was moved are drawn anew, as arcs. */
function withHandPlaces(model: StateTransitionsModel, drawing: StateDrawing): StateDrawing {
  const places = new Map(model.states.flatMap((s) => (s.place === null ? [] : [[s.id, s.place] as const])));
  if (places.size === 0) return drawing;
  const states = drawing.states.map((s) => ({ ...s, ...places.get(s.id) }));
  const moved = { ...drawing, states, lines: drawing.lines.map((line) => redrawn(model, line, states, places)) };
  return { ...moved, width: Math.max(drawing.width, ...states.map((s) => s.x + s.width + MARGIN)), height: Math.max(drawing.height, ...states.map((s) => s.y + s.height + MARGIN)) };
}

function redrawn(model: StateTransitionsModel, line: TransitionLine, states: readonly StateBox[], places: ReadonlyMap<StateId, Point>): TransitionLine {
  const transition = model.transitions.find((t) => t.id === line.id);
  const from = states.find((s) => s.id === transition?.from);
  const to = states.find((s) => s.id === transition?.to);
  if (transition === undefined || from === undefined || to === undefined || !(places.has(from.id) || places.has(to.id))) return line;
  const beside = model.transitions.filter((t) => (t.from === transition.from && t.to === transition.to) || (t.from === transition.to && t.to === transition.from));
  return arc(line.id, from, to, beside.findIndex((t) => t.id === line.id));
}

/** An arc between two boxes; the more lines already lead along, the wider. */
export function arc(id: TransitionId, from: StateBox, to: StateBox, nth: number): TransitionLine {
  const [a, b] = [centre(from), centre(to)];
  if (from.id === to.id) {
    const top = { x: a.x, y: from.y - 34 - nth * 16 };
    return { id, points: [{ x: a.x - 14, y: from.y }, { x: a.x - 22, y: top.y }, { x: a.x + 22, y: top.y }, { x: a.x + 14, y: from.y }], label: { x: top.x, y: top.y + 6 } };
  }
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  const bend = 22 + nth * 20;
  const control = { x: (a.x + b.x) / 2 - ((b.y - a.y) / length) * bend, y: (a.y + b.y) / 2 + ((b.x - a.x) / length) * bend };
  const [start, end] = [edgeOf(from, control), edgeOf(to, control)];
  const near = (p: Point): Point => ({ x: p.x + (control.x - p.x) * 0.66, y: p.y + (control.y - p.y) * 0.66 });
  return { id, points: [start, near(start), near(end), end], label: { x: (start.x + end.x) / 4 + control.x / 2, y: (start.y + end.y) / 4 + control.y / 2 } };
}

function centre(box: StateBox): Point {
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

/** Where the line from a box's middle to a point leaves the box. */
function edgeOf(box: StateBox, towards: Point): Point {
  const c = centre(box);
  const [dx, dy] = [towards.x - c.x, towards.y - c.y];
  const scale = Math.min(dx === 0 ? Infinity : box.width / 2 / Math.abs(dx), dy === 0 ? Infinity : box.height / 2 / Math.abs(dy));
  return { x: c.x + dx * scale, y: c.y + dy * scale };
}
