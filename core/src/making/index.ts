export { combinedRows, type CombinedColumn, type CombinedRows, type Combining } from './combinedRows.ts';
export { randomRows, type RandomColumn, type RandomRows } from './randomRows.ts';
export { withoutDoubles } from './doubles.ts';
