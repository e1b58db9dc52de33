export { dataSetKind } from './dataSetKind.ts';
export { EMPTY_DATA_SET, type DataSetContent, type Served } from './dataSet.ts';
export { asCase, fromCase } from './asCase.ts';
export { columnsNotTaken, sharedRows, takenRows, withDataSet, withOwnRows, withRowsOwned, withRowsShared, withRunsSettled, type KnownDataSet } from './sharing.ts';
