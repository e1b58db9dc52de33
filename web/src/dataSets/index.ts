export { DataSetPage } from './DataSetPage.tsx';
export { DataSetIndex } from './DataSetIndex.tsx';
