export { DataGrid, type RowShows } from './DataGrid.tsx';
export { DataFiles } from './DataFiles.tsx';
