export { EMPTY_CELL, MISSING_CELL, readCell, type CellText, type CellValue } from './cell.ts';
export { MOST_PASTED_CELLS, parsePastedGrid } from './pastedGrid.ts';
