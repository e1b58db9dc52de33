/** A cell by row and column index; a selection is the range between two cells. */
export interface CellAt {
  readonly row: number;
  readonly column: number;
}
export interface Selection {
  readonly anchor: CellAt;
  readonly focus: CellAt;
}
export interface Extent {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

export function extentOf({ anchor, focus }: Selection): Extent {
  return {
    top: Math.min(anchor.row, focus.row),
    bottom: Math.max(anchor.row, focus.row),
    left: Math.min(anchor.column, focus.column),
    right: Math.max(anchor.column, focus.column),
  };
}

export function holds(extent: Extent, { row, column }: CellAt): boolean {
  return row >= extent.top && row <= extent.bottom && column >= extent.left && column <= extent.right;
}

const STEP: Readonly<Record<string, readonly [number, number]>> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };

/** The selection after an arrow key; `extend` keeps the anchor, `toEdge` goes as far as there are cells. */
export function moved(selection: Selection, key: string, size: CellAt, extend: boolean, toEdge: boolean): Selection | null {
  const step = STEP[key];
  if (step === undefined) return null;
  const far = toEdge ? Math.max(size.row, size.column) : 1;
  const focus = within({ row: selection.focus.row + step[0] * far, column: selection.focus.column + step[1] * far }, size);
  return { anchor: extend ? selection.anchor : focus, focus };
}

export function within({ row, column }: CellAt, size: CellAt): CellAt {
  return { row: Math.max(0, Math.min(size.row - 1, row)), column: Math.max(0, Math.min(size.column - 1, column)) };
}
