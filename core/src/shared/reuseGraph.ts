import type { CaseId, DataSetId, Pin, SharedId } from '../artefacts/index.ts';

/** What has steps. */
export type StepsOwnerId = SharedId | CaseId;
/** What can be used by others. */
export type ReusableId = StepsOwnerId | DataSetId;

/** `from` uses `to`: in one place or in many; null where any of them follows the latest. */
export interface UseEdge {
  readonly from: ReusableId;
  readonly to: ReusableId;
  readonly pinned: Pin;
}

/** What depends on something, or what it depends on. */
export interface Connected {
  readonly id: ReusableId;
  /** How many uses lie between, at least: 1 for a direct one. */
  readonly distance: number;
  /** Whether a change reaches it at once: by uses that all follow the latest. */
  readonly follows: boolean;
  /** Of a direct use: what it means. */
  readonly pinned: Pin;
}

/** Everything that uses something, directly or through others, the nearest first: the reach of its change are those that follow. */
export function usersOf(edges: readonly UseEdge[], id: ReusableId): Connected[] {
  return connected(edges.map(({ from, to, pinned }) => ({ at: to, next: from, pinned })), id);
}

/** Everything that something uses, directly or through others, the nearest first. */
export function usesOf(edges: readonly UseEdge[], id: ReusableId): Connected[] {
  return connected(edges.map(({ from, to, pinned }) => ({ at: from, next: to, pinned })), id);
}

interface Way {
  readonly at: ReusableId;
  readonly next: ReusableId;
  readonly pinned: Pin;
}

function connected(ways: readonly Way[], id: ReusableId): Connected[] {
  const from = new Map<ReusableId, Way[]>();
  for (const way of ways) from.set(way.at, [...(from.get(way.at) ?? []), way]);
  const following = distances(from, id, (w) => w.pinned === null);
  const direct = new Map((from.get(id) ?? []).map((w) => [w.next, w.pinned]));
  return [...distances(from, id, () => true)].flatMap(([reached, distance]) => (reached === id ? [] : [{ id: reached, distance, follows: following.has(reached), pinned: direct.get(reached) ?? null }]));
}

function distances(from: ReadonlyMap<ReusableId, readonly Way[]>, id: ReusableId, passes: (way: Way) => boolean): Map<ReusableId, number> {
  const found = new Map([[id, 0]]);
  const queue = [id];
  for (const at of queue) {
    for (const way of from.get(at) ?? []) {
      if (!passes(way) || found.has(way.next)) continue;
      found.set(way.next, (found.get(at) ?? 0) + 1);
      queue.push(way.next);
    }
  }
  return found;
}
