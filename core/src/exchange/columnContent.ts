/** Rows that are looked at to see what a column holds. */
export const LOOKED_AT = 200;

/** Longer on average than this, a column holds texts and not titles. */
export const LONG_TEXT = 90;

/** Shorter on average than this, a column holds marks and no titles. */
const SHORT_TITLE = 4;

/** `W-12`, `REQ_3.1`: what is numbered by whoever wrote the file. */
const NUMBERED = /^\p{L}{1,12}[-_. #]?\d{1,12}(?:[.-]\d{1,6})*$/u;

/** Whether all cells are such as people number things with; an empty column is not. */
export function areNumbered(cells: readonly string[]): boolean {
  return cells.length > 0 && cells.every((cell) => NUMBERED.test(cell));
}

/** Whether all say something, and each something else: so do ids and titles. */
export function isEachOther(cells: readonly string[]): boolean {
  return cells.length > 1 && cells.every((cell) => cell !== '') && new Set(cells).size === cells.length;
}

/** Whether they may be titles: each another one, neither marks nor whole texts. */
export function areTitles(cells: readonly string[]): boolean {
  const length = averageLength(cells);
  return length >= SHORT_TITLE && length <= LONG_TEXT && isEachOther(cells);
}

/** Of those that say something; 0: none does. */
export function averageLength(cells: readonly string[]): number {
  const filled = cells.filter((cell) => cell.trim() !== '');
  return filled.length === 0 ? 0 : filled.reduce((sum, cell) => sum + cell.length, 0) / filled.length;
}
