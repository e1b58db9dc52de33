export { extentOf, holds, moved, within, type CellAt, type Extent, type GridShape, type Selection } from './gridSelection.ts';
