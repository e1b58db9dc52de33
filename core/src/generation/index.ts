export { RowSearch, type SearchProgress } from './rowSearch.ts';
export { seededRandom, type Random } from './random.ts';
export type { CoveringRow, CoveringTask } from './coveringTask.ts';
