import { CELL_SIZE, type MatrixCells } from '../coverage/index.ts';
import { axisLines, itemLines, type AxisItem, type AxisLine } from './axis.ts';
import { byPartner, cellAt, matrixOf } from './matrix.ts';

/** How an axis of a matrix is seen: in its own order with its headings; those that meet most or fewest first; or by one of the other axis. */
export type AxisOrder = { readonly kind: 'own' } | { readonly kind: 'most' } | { readonly kind: 'fewest' } | { readonly kind: 'partner'; readonly id: string };

export interface AxisView {
  readonly order: AxisOrder;
  /** Only what meets this one of the other axis; null: all. */
  readonly meets: string | null;
  /** Only what meets nothing in the whole project. */
  readonly alone: boolean;
  /** Headings that are folded. */
  readonly folded: ReadonlySet<string>;
}

export const PLAIN_VIEW: AxisView = { order: { kind: 'own' }, meets: null, alone: false, folded: new Set() };

/** What stands on one axis, and what of it a query leaves. */
export interface Axis<I extends AxisItem> {
  readonly all: readonly I[];
  readonly found: readonly I[];
}

/** The items of an axis that meet anything of the other one, whatever queries leave of that. */
export function meeting(cells: MatrixCells, items: readonly AxisItem[], others: readonly AxisItem[], turned: boolean): ReadonlySet<string> {
  const [own, their] = turned ? [cells.columns.length, cells.conditions.length] : [cells.conditions.length, cells.columns.length];
  const [there, met] = [new Uint8Array(their), new Uint8Array(own)];
  for (const other of others) for (const place of other.places) there[place] = 1;
  for (let at = 0; at < cells.cells.length; at += CELL_SIZE) {
    const [place = -1, other = -1] = turned ? [cells.cells[at + 1], cells.cells[at]] : [cells.cells[at], cells.cells[at + 1]];
    if (there[other] === 1) met[place] = 1;
  }
  return new Set(items.flatMap((item) => (item.places.some((place) => met[place] === 1) ? [item.id] : [])));
}

/** Answers the lines of an axis as it is seen against the other one. `turned`: this axis stands for what covers, not for conditions. In another order than its own there are no headings. */
export function arranged<I extends AxisItem>(cells: MatrixCells, axis: Axis<I>, other: Axis<AxisItem>, view: AxisView, turned: boolean): AxisLine<I>[] {
  const partner = (id: string): AxisItem | undefined => other.all.find((item) => item.id === id);
  const cellsWith = (items: readonly I[], id: string) => {
    const found = partner(id);
    return found === undefined ? null : matrixOf(cells, items, [found], turned).rows.map((row) => cellAt(row, 0));
  };
  let items: readonly I[] = axis.found;
  if (view.meets !== null) {
    const met = cellsWith(items, view.meets);
    if (met !== null) items = items.filter((_, i) => met[i] !== undefined);
  }
  if (view.alone) {
    const some = meeting(cells, items, other.all, turned);
    items = items.filter((item) => !some.has(item.id));
  }
  return inOrder(cells, items, other, view, turned, cellsWith);
}

function inOrder<I extends AxisItem>(cells: MatrixCells, items: readonly I[], other: Axis<AxisItem>, { order, folded }: AxisView, turned: boolean, cellsWith: (items: readonly I[], id: string) => ReturnType<typeof cellAt>[] | null): AxisLine<I>[] {
  const placed = (places: readonly number[]): AxisLine<I>[] => itemLines(places.flatMap((at) => items[at] ?? []));
  switch (order.kind) {
    case 'own':
      return axisLines(items, folded);
    case 'most':
    case 'fewest': {
      const met = matrixOf(cells, items, other.found, turned).rows.map((row) => row.length);
      const sign = order.kind === 'most' ? -1 : 1;
      return placed(met.map((_, at) => at).sort((a, b) => sign * ((met[a] ?? 0) - (met[b] ?? 0)) || a - b));
    }
    case 'partner': {
      const met = cellsWith(items, order.id);
      // One that is gone orders nothing.
      return met === null ? axisLines(items, folded) : placed(byPartner(met));
    }
  }
}
