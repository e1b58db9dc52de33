export { EMPTY_CELL, MISSING_CELL, isPlainCell, readCell, type CellText, type CellValue } from './cell.ts';
export { MOST_PASTED_CELLS, parsePastedGrid } from './pastedGrid.ts';
export { continueSeries } from './series.ts';
