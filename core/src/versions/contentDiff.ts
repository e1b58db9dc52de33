import { isElementList, isRecord, sameJson, type Json, type JsonElement, type JsonRecord } from './json.ts';

/**
 * The difference between two contents, as an algebra: `applyDiff(diffContent(a, b), a)` is b, and the reverse of a
 * difference leads back. Records differ by field; lists whose elements have ids by element and order, so that a
 * moved step is moved, not removed and added; all else is replaced whole.
 */
export type ContentDiff =
  | { readonly kind: 'same' }
  | { readonly kind: 'replaced'; readonly from: Json; readonly to: Json }
  | { readonly kind: 'record'; readonly fields: Readonly<Record<string, FieldDiff>> }
  | {
      readonly kind: 'list';
      readonly from: readonly string[];
      readonly to: readonly string[];
      readonly added: readonly JsonElement[];
      readonly removed: readonly JsonElement[];
      readonly changed: Readonly<Record<string, ContentDiff>>;
    };

/** `added` and `removed`: the name itself came or went (a cell, an optional field). */
export type FieldDiff = ContentDiff | { readonly kind: 'added'; readonly to: Json } | { readonly kind: 'removed'; readonly from: Json };

const SAME: ContentDiff = { kind: 'same' };

export function diffContent(from: Json, to: Json): ContentDiff {
  if (from === to) return SAME;
  if (isRecord(from) && isRecord(to)) return diffRecords(from, to);
  if (isElementList(from) && isElementList(to)) return diffLists(from, to);
  return sameJson(from, to) ? SAME : { kind: 'replaced', from, to };
}

/** @throws when the difference does not start from `content`: a caller's mistake, never a user's. */
export function applyDiff(diff: ContentDiff, content: Json): Json {
  switch (diff.kind) {
    case 'same':
      return content;
    case 'replaced':
      return diff.to;
    case 'record':
      if (!isRecord(content)) throw new RangeError('A record difference applies to a record');
      return applyToRecord(diff.fields, content);
    case 'list':
      if (!isElementList(content)) throw new RangeError('A list difference applies to a list of elements with ids');
      return applyToList(diff, content);
  }
}

export function reverseDiff(diff: ContentDiff): ContentDiff {
  switch (diff.kind) {
    case 'same':
      return diff;
    case 'replaced':
      return { kind: 'replaced', from: diff.to, to: diff.from };
    case 'record':
      return { kind: 'record', fields: mapValues(diff.fields, reverseField) };
    case 'list':
      return { kind: 'list', from: diff.to, to: diff.from, added: diff.removed, removed: diff.added, changed: mapValues(diff.changed, reverseDiff) };
  }
}

/** The ids that kept their place relative to each other; elements in both lists and not here were moved. */
export function unmoved(from: readonly string[], to: readonly string[]): Set<string> {
  const place = new Map(from.map((id, i) => [id, i]));
  const kept = to.filter((id) => place.has(id));
  return new Set(longestIncreasing(kept, (id) => place.get(id) ?? 0));
}

function diffRecords(from: JsonRecord, to: JsonRecord): ContentDiff {
  const fields: Record<string, FieldDiff> = {};
  for (const name of [...new Set([...Object.keys(from), ...Object.keys(to)])].sort()) {
    const [before, after] = [from[name], to[name]];
    if (before === undefined && after !== undefined) fields[name] = { kind: 'added', to: after };
    else if (before !== undefined && after === undefined) fields[name] = { kind: 'removed', from: before };
    else if (before !== undefined && after !== undefined) {
      const inner = diffContent(before, after);
      if (inner.kind !== 'same') fields[name] = inner;
    }
  }
  return Object.keys(fields).length === 0 ? SAME : { kind: 'record', fields };
}

function diffLists(from: readonly JsonElement[], to: readonly JsonElement[]): ContentDiff {
  return from.length === to.length && from.every((e, i) => e === to[i] || e.id === to[i]?.id) ? diffInPlace(from, to) : diffMoved(from, to);
}

/** The same elements in the same order, as nearly always: nothing need be looked up. */
function diffInPlace(from: readonly JsonElement[], to: readonly JsonElement[]): ContentDiff {
  const changed: Record<string, ContentDiff> = {};
  let any = false;
  from.forEach((element, i) => {
    const later = to[i];
    if (later === undefined || later === element) return;
    const inner = diffContent(element, later);
    if (inner.kind === 'same') return;
    changed[element.id] = inner;
    any = true;
  });
  if (!any) return SAME;
  const ids = from.map((e) => e.id);
  return { kind: 'list', from: ids, to: ids, added: [], removed: [], changed };
}

function diffMoved(from: readonly JsonElement[], to: readonly JsonElement[]): ContentDiff {
  const [before, after] = [byId(from), byId(to)];
  const changed: Record<string, ContentDiff> = {};
  for (const element of from) {
    const later = after.get(element.id);
    const inner = later === undefined ? SAME : diffContent(element, later);
    if (inner.kind !== 'same') changed[element.id] = inner;
  }
  const [fromIds, toIds] = [from.map((e) => e.id), to.map((e) => e.id)];
  return {
    kind: 'list',
    from: fromIds,
    to: toIds,
    added: to.filter((e) => !before.has(e.id)),
    removed: from.filter((e) => !after.has(e.id)),
    changed,
  };
}

function applyToRecord(fields: Readonly<Record<string, FieldDiff>>, content: JsonRecord): JsonRecord {
  const kept = Object.entries(content).filter(([name]) => fields[name]?.kind !== 'removed');
  const result: Record<string, Json> = Object.fromEntries(kept);
  for (const [name, diff] of Object.entries(fields)) {
    if (diff.kind === 'removed') continue;
    if (diff.kind === 'added') result[name] = diff.to;
    else result[name] = applyDiff(diff, content[name] ?? null);
  }
  return result;
}

function applyToList(diff: Extract<ContentDiff, { kind: 'list' }>, content: readonly JsonElement[]): Json[] {
  const elements = byId([...content, ...diff.added]);
  return diff.to.map((id) => {
    const element = elements.get(id);
    if (element === undefined) throw new RangeError(`A list difference needs all elements it keeps: '${id}' is not there`);
    const inner = diff.changed[id];
    return inner === undefined ? element : applyDiff(inner, element);
  });
}

function reverseField(diff: FieldDiff): FieldDiff {
  if (diff.kind === 'added') return { kind: 'removed', from: diff.to };
  if (diff.kind === 'removed') return { kind: 'added', to: diff.from };
  return reverseDiff(diff);
}

function byId(elements: readonly JsonElement[]): Map<string, JsonElement> {
  return new Map(elements.map((e) => [e.id, e]));
}

function mapValues<A, B>(record: Readonly<Record<string, A>>, f: (value: A) => B): Record<string, B> {
  return Object.fromEntries(Object.entries(record).map(([name, value]) => [name, f(value)]));
}

/** Patience sorting: tails[k] ends the best increasing run of length k + 1. */
function longestIncreasing(ids: readonly string[], rank: (id: string) => number): string[] {
  const tails: number[] = [];
  const previous: number[] = [];
  const ranks = ids.map(rank);
  ranks.forEach((r, i) => {
    let low = 0;
    let high = tails.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((ranks[tails[middle] ?? 0] ?? 0) < r) low = middle + 1;
      else high = middle;
    }
    previous[i] = low > 0 ? (tails[low - 1] ?? -1) : -1;
    tails[low] = i;
  });
  const run: string[] = [];
  for (let i = tails.at(-1) ?? -1; i >= 0; i = previous[i] ?? -1) run.push(ids[i] ?? '');
  return run.reverse();
}
