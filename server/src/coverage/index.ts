export { CoverageKeeper } from './keeper.ts';
export { CoverageIndexes } from './indexes.ts';
export { answer } from './question.ts';
export { listConditions, readDesign } from './design.ts';
