export { DataGrid, type RowShows } from './DataGrid.tsx';
