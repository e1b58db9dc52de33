/** What stands on an axis of a matrix, with the group it is folded into. */
export interface AxisItem<T extends string = string> {
  readonly id: T;
  readonly group: string;
  /** Where in the cells it is found: a requirement at each of its conditions, a case once; nowhere when there is nothing of it. */
  readonly places: readonly number[];
}

/** A line of an axis. A heading that is folded sums its items; one that is open sums nothing, as they stand below it. */
export type AxisLine<I extends AxisItem> =
  | { readonly kind: 'heading'; readonly group: string; readonly items: number; readonly folded: boolean; readonly places: readonly number[] }
  | { readonly kind: 'item'; readonly item: I; readonly places: readonly number[] };

/** The items under the headings of their groups, in the order in which these come first. Of one group there is nothing to fold: then there are no headings. */
export function axisLines<I extends AxisItem>(items: readonly I[], folded: ReadonlySet<string>): AxisLine<I>[] {
  const groups = new Map<string, I[]>();
  for (const item of items) {
    const group = groups.get(item.group);
    if (group === undefined) groups.set(item.group, [item]);
    else group.push(item);
  }
  if (groups.size < 2) return itemLines(items);
  return [...groups].flatMap(([group, of]): AxisLine<I>[] => {
    const heading = { kind: 'heading' as const, group, items: of.length };
    // What hangs on two of its items counts once.
    if (folded.has(group)) return [{ ...heading, folded: true, places: [...new Set(of.flatMap((i) => i.places))] }];
    return [{ ...heading, folded: false, places: [] }, ...itemLines(of)];
  });
}

/** The items in the order in which their groups stand on another axis, those of other groups last: what belongs together comes near the diagonal. */
export function groupedLike<I extends AxisItem>(items: readonly I[], like: readonly AxisItem[]): I[] {
  const places = new Map<string, number>();
  for (const { group } of like) if (!places.has(group)) places.set(group, places.size);
  const place = ({ group }: I): number => places.get(group) ?? places.size;
  return [...items].sort((a, b) => place(a) - place(b));
}

/** The items without headings. */
export function itemLines<I extends AxisItem>(items: readonly I[]): AxisLine<I>[] {
  return items.map((item) => ({ kind: 'item', item, places: item.places }));
}
