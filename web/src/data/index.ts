export { DataGrid } from './DataGrid.tsx';
export type { RowShows } from './GridRow.tsx';
export type { ColumnCheck } from './columnCheck.ts';
export { useColumnChecks } from './useColumnChecks.ts';
export { rowShows } from './rowShows.ts';
export { MakeRows } from './MakeRows.tsx';
export { freshRow, type DataTable, type EditTable } from './table.ts';
export { DataFiles } from './DataFiles.tsx';
export { RedundantRows } from './RedundantRows.tsx';
