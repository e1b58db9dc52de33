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

/** What moving in a grid needs to know of it. */
export interface GridShape {
  readonly size: CellAt;
  /** How many lines are seen at once. */
  readonly page: number;
  readonly isFilled: (at: CellAt) => boolean;
}

const STEP: Readonly<Record<string, readonly [number, number]>> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };

/** The selection after a key that moves, as in a spreadsheet; `extend` keeps the anchor. Null: the key moves nothing. */
export function moved(selection: Selection, key: string, { extend, control }: { readonly extend: boolean; readonly control: boolean }, shape: GridShape): Selection | null {
  const focus = placeAfter(selection.focus, key, control, shape);
  return focus === null ? null : { anchor: extend ? selection.anchor : focus, focus };
}

function placeAfter(from: CellAt, key: string, control: boolean, shape: GridShape): CellAt | null {
  const { size, page } = shape;
  switch (key) {
    case 'Home':
      return { row: control ? 0 : from.row, column: 0 };
    case 'End':
      return within({ row: control ? size.row - 1 : from.row, column: size.column - 1 }, size);
    case 'PageUp':
      return within({ ...from, row: from.row - page }, size);
    case 'PageDown':
      return within({ ...from, row: from.row + page }, size);
    default: {
      const step = STEP[key];
      if (step === undefined) return null;
      return control ? edgeOfBlock(from, step, shape) : within({ row: from.row + step[0], column: from.column + step[1] }, size);
    }
  }
}

/** The last filled cell before a gap; from a gap or its edge, the next filled one; with none left, the edge of the grid. */
function edgeOfBlock(from: CellAt, [down, right]: readonly [number, number], { size, isFilled }: GridShape): CellAt {
  const next = (at: CellAt): CellAt => within({ row: at.row + down, column: at.column + right }, size);
  const isEdge = (at: CellAt): boolean => next(at).row === at.row && next(at).column === at.column;
  let at = next(from);
  const inBlock = isFilled(from) && isFilled(at);
  while (!isEdge(at) && (inBlock ? isFilled(next(at)) : !isFilled(at))) at = next(at);
  return at;
}

export function within({ row, column }: CellAt, size: CellAt): CellAt {
  return { row: Math.max(0, Math.min(size.row - 1, row)), column: Math.max(0, Math.min(size.column - 1, column)) };
}
