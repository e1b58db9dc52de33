export { extentOf, moved, within, type CellAt, type Extent, type Selection } from './gridSelection.ts';
export { fieldKeys } from './fieldKeys.ts';
