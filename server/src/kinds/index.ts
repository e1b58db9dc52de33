export { summaryColumns, summaryOf } from './kinds.ts';
export type { SummaryColumns } from './kind.ts';
