/** Where a requirement stood before it was moved. `after`: the sibling before it, null: it was the first; where that was not kept, `position` counts from 1. */
export interface StoodAt<Id extends string> {
  readonly parent: Id | null;
  readonly after?: Id | null | undefined;
  readonly position: number;
}

/** A move of the outline as a journal keeps it. */
export interface MoveMade<Id extends string> {
  readonly id: Id;
  readonly from: StoodAt<Id>;
}

/**
 * Where all stood before some moves, which are named from the first to the last. `now`: where they stand since, siblings in
 * their order; what came to be meanwhile keeps its place among them. Positions count from 1 below each parent.
 */
export function outlineBefore<Id extends string>(now: readonly { readonly id: Id; readonly parent: Id | null }[], moves: readonly MoveMade<Id>[]): { id: Id; parent: Id | null; position: number }[] {
  const parents = new Map(now.map(({ id, parent }) => [id, parent]));
  const below = new Map<Id | null, Id[]>();
  const siblings = (parent: Id | null): Id[] => {
    const list = below.get(parent) ?? [];
    below.set(parent, list);
    return list;
  };
  for (const { id, parent } of now) siblings(parent).push(id);
  for (const { id, from } of moves.toReversed()) {
    const list = siblings(parents.get(id) ?? null);
    list.splice(list.indexOf(id), 1);
    const back = siblings(from.parent);
    back.splice(from.after === undefined ? from.position - 1 : from.after === null ? 0 : back.indexOf(from.after) + 1, 0, id);
    parents.set(id, from.parent);
  }
  return [...below].flatMap(([parent, ids]) => ids.map((id, i) => ({ id, parent, position: i + 1 })));
}
