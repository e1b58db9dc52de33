import { isElementList, isRecord, sameJson, type Json, type JsonElement, type JsonRecord } from './json.ts';

export const SIDES = ['mine', 'theirs'] as const;
export type Side = (typeof SIDES)[number];
/** What holds where both sides changed the same: one of them, or something third. */
export type Choice = Side | { readonly own: Json };

/** Where both sides changed the same thing. Undefined: that side removed it. `path` joins names and ids by `/`. */
export interface Conflict {
  readonly path: string;
  readonly base: Json | undefined;
  readonly mine: Json | undefined;
  readonly theirs: Json | undefined;
}

export interface Merge {
  /** Where in conflict and not chosen: mine. */
  readonly content: Json;
  readonly conflicts: readonly Conflict[];
}

/**
 * Three-way merge of two contents that grew from `base`. Fields and elements changed on one side only are taken
 * from there; what both changed differently is a conflict, which `choices` (by path) settles. Removing an element
 * that the other side changed is a conflict; so is reordering one list in two ways.
 */
export function mergeContent(base: Json, mine: Json, theirs: Json, choices: ReadonlyMap<string, Choice> = new Map()): Merge {
  const conflicts: Conflict[] = [];
  const settle = (path: string, b: Json | undefined, m: Json | undefined, t: Json | undefined): Json | undefined => {
    const choice = choices.get(path);
    if (choice === undefined) conflicts.push({ path, base: b, mine: m, theirs: t });
    if (typeof choice === 'object') return choice.own;
    return choice === 'theirs' ? t : m;
  };
  const content = mergeValue('', base, mine, theirs, settle) ?? null;
  return { content, conflicts };
}

type Settle = (path: string, base: Json | undefined, mine: Json | undefined, theirs: Json | undefined) => Json | undefined;

function mergeValue(path: string, base: Json | undefined, mine: Json | undefined, theirs: Json | undefined, settle: Settle): Json | undefined {
  if (equal(mine, theirs) || equal(theirs, base)) return mine;
  if (equal(mine, base)) return theirs;
  if (isRecord(mine) && isRecord(theirs) && isRecord(base)) return mergeRecords(path, base, mine, theirs, settle);
  if (isElementList(mine) && isElementList(theirs) && isElementList(base)) return mergeLists(path, base, mine, theirs, settle);
  return settle(path, base, mine, theirs);
}

function mergeRecords(path: string, base: JsonRecord, mine: JsonRecord, theirs: JsonRecord, settle: Settle): JsonRecord {
  const merged: Record<string, Json> = {};
  for (const name of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const value = mergeValue(join(path, name), base[name], mine[name], theirs[name], settle);
    if (value !== undefined) merged[name] = value;
  }
  return merged;
}

function mergeLists(path: string, base: readonly JsonElement[], mine: readonly JsonElement[], theirs: readonly JsonElement[], settle: Settle): Json[] {
  const [b, m, t] = [byId(base), byId(mine), byId(theirs)];
  const merged = new Map<string, Json>();
  for (const id of new Set([...b.keys(), ...m.keys(), ...t.keys()])) {
    const value = mergeValue(join(path, id), b.get(id), m.get(id), t.get(id), settle);
    if (value !== undefined) merged.set(id, value);
  }
  return mergeOrder(path, base, mine, theirs, settle).flatMap((id) => merged.get(id) ?? []);
}

/** One side's order as a whole, with what only the other side has put after the neighbour it had there. */
function mergeOrder(path: string, base: readonly JsonElement[], mine: readonly JsonElement[], theirs: readonly JsonElement[], settle: Settle): string[] {
  const [b, m, t] = [ids(base), ids(mine), ids(theirs)];
  const [inB, inM, inT] = [new Set(b), new Set(m), new Set(t)];
  const mineMoved = reordered(b, inB, m, inM);
  const theirsMoved = reordered(b, inB, t, inT);
  const clash = mineMoved && theirsMoved && !sameJson(m.filter((id) => inT.has(id)), t.filter((id) => inM.has(id)));
  const leading = clash && !sameJson(settle(join(path, '(order)'), b, m, t) ?? null, m) ? t : theirsMoved && !mineMoved ? t : m;
  return insertMissing(leading, leading === m ? t : m, b.filter((id) => !inM.has(id) || !inT.has(id)));
}

/** Every id of `other` that `leading` lacks stands behind the one before it in `other`, which by then is there. */
function insertMissing(leading: readonly string[], other: readonly string[], rest: readonly string[]): string[] {
  const there = new Set(leading);
  const behind = new Map<string | null, string>();
  other.forEach((id, i) => {
    if (!there.has(id)) behind.set(other[i - 1] ?? null, id);
  });
  const order: string[] = [];
  const put = (id: string | null): void => {
    if (id !== null) order.push(id);
    for (let next = behind.get(id); next !== undefined; next = behind.get(next)) order.push(next);
  };
  put(null);
  leading.forEach(put);
  const placed = new Set(order);
  return [...order, ...rest.filter((id) => !placed.has(id))];
}

function reordered(before: readonly string[], inBefore: ReadonlySet<string>, after: readonly string[], inAfter: ReadonlySet<string>): boolean {
  return !sameJson(before.filter((id) => inAfter.has(id)), after.filter((id) => inBefore.has(id)));
}

function equal(a: Json | undefined, b: Json | undefined): boolean {
  return a === undefined || b === undefined ? a === b : sameJson(a, b);
}

function join(path: string, name: string): string {
  return path === '' ? name : `${path}/${name}`;
}

function ids(elements: readonly JsonElement[]): string[] {
  return elements.map((e) => e.id);
}

function byId(elements: readonly JsonElement[]): Map<string, JsonElement> {
  return new Map(elements.map((e) => [e.id, e]));
}
