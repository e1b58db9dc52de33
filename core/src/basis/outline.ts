import type { RequirementId } from '../artefacts/index.ts';

/** Where a requirement stands in the outline: under a parent (null: at the top), sorted by position. */
export interface OutlinePlace {
  readonly id: RequirementId;
  readonly parent: RequirementId | null;
  readonly position: number;
}

export interface OutlineEntry<P extends OutlinePlace> {
  readonly place: P;
  readonly depth: number;
  readonly children: number;
}

/** A move names the new parent and the sibling it comes after (null: first). */
export interface OutlineMove {
  readonly parent: RequirementId | null;
  readonly after: RequirementId | null;
}

export const OUTLINE_DIRECTIONS = ['up', 'down', 'in', 'out'] as const;
export type OutlineDirection = (typeof OUTLINE_DIRECTIONS)[number];

/** Deepest nesting an outline may have. */
export const DEEPEST_OUTLINE = 12;

/** The outline from top to bottom, parents before children. A place whose parent is unknown stands at the top. */
export function orderOutline<P extends OutlinePlace>(places: readonly P[]): OutlineEntry<P>[] {
  const known = new Set(places.map((p) => p.id));
  const byParent = new Map<RequirementId | null, P[]>();
  for (const place of places) {
    const parent = place.parent !== null && known.has(place.parent) ? place.parent : null;
    const siblings = byParent.get(parent);
    if (siblings === undefined) byParent.set(parent, [place]);
    else siblings.push(place);
  }
  const entries: OutlineEntry<P>[] = [];
  const visit = (parent: RequirementId | null, depth: number): void => {
    const siblings = [...(byParent.get(parent) ?? [])].sort(byPosition);
    for (const place of siblings) {
      entries.push({ place, depth, children: byParent.get(place.id)?.length ?? 0 });
      visit(place.id, depth + 1);
    }
  };
  visit(null, 0);
  return entries;
}

/** The places without those hidden; what stood below one stands below what is above it, at its place. */
export function withoutHidden<P extends OutlinePlace>(places: readonly P[], hidden: ReadonlySet<RequirementId>): P[] {
  const parents = new Map(places.map((p) => [p.id, p.parent]));
  const seen = (id: RequirementId | null): RequirementId | null => {
    let at = id;
    while (at !== null && hidden.has(at)) at = parents.get(at) ?? null;
    return at;
  };
  const kept = orderOutline(places).flatMap(({ place }) => (hidden.has(place.id) ? [] : [{ ...place, parent: seen(place.parent) }]));
  return kept.map((place, position) => ({ ...place, position }));
}

/** Whether a move would put a requirement under itself. */
export function makesCircle(places: readonly OutlinePlace[], moved: RequirementId, parent: RequirementId | null): boolean {
  const parents = new Map(places.map((p) => [p.id, p.parent]));
  for (let at = parent; at !== null; at = parents.get(at) ?? null) if (at === moved) return true;
  return false;
}

/** The move a direction key means; null when there is nowhere to go. */
export function moveTowards(places: readonly OutlinePlace[], id: RequirementId, direction: OutlineDirection): OutlineMove | null {
  const self = places.find((p) => p.id === id);
  if (!self) return null;
  const siblings = places.filter((p) => p.parent === self.parent).sort(byPosition);
  const index = siblings.findIndex((p) => p.id === id);
  const idAt = (i: number): RequirementId | null => siblings[i]?.id ?? null;
  switch (direction) {
    case 'up':
      return index === 0 ? null : { parent: self.parent, after: idAt(index - 2) };
    case 'down':
      return index === siblings.length - 1 ? null : { parent: self.parent, after: idAt(index + 1) };
    case 'in': {
      const parent = idAt(index - 1);
      if (parent === null) return null;
      const last = places.filter((p) => p.parent === parent).sort(byPosition).at(-1);
      return { parent, after: last?.id ?? null };
    }
    case 'out': {
      const parent = places.find((p) => p.id === self.parent);
      return parent === undefined ? null : { parent: parent.parent, after: parent.id };
    }
  }
}

/** The places after a move: the moved one takes its position, later siblings make room. The server does the same. */
export function movedPlaces<P extends OutlinePlace>(places: readonly P[], id: RequirementId, { parent, after }: OutlineMove): P[] {
  const position = after === null ? 1 : (places.find((p) => p.id === after)?.position ?? 0) + 1;
  return places.map((place) => {
    if (place.id === id) return { ...place, parent, position };
    return place.parent === parent && place.position >= position ? { ...place, position: place.position + 1 } : place;
  });
}

function byPosition(a: OutlinePlace, b: OutlinePlace): number {
  return a.position - b.position || Number(a.id.slice(2)) - Number(b.id.slice(2));
}
