export { ListPage } from './ListPage.tsx';
export type { LineLook } from './ListLines.tsx';
export { ListTable } from './ListTable.tsx';
export { ChooseColumns } from './ChooseColumns.tsx';
export { QueryLine } from './QueryLine.tsx';
export { SavedQueries } from './SavedQueries.tsx';
export { SelectionBar } from './SelectionBar.tsx';
export { ViewBar } from './ViewBar.tsx';
export { useListing, type Listing } from './useListing.ts';
