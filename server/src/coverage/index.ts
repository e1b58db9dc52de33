export { CoverageKeeper } from './keeper.ts';
export { CoverageIndexes } from './indexes.ts';
export { answer } from './question.ts';
export { readDesign } from './design.ts';
