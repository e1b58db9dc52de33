export {
  changedSince,
  waitingFor,
  worstRequirements,
  type ChangedKind,
  type ChangedRequirement,
  type DesignReport,
  type FiguresThen,
  type ReportSince,
  type Some,
  type TrendMoment,
  type WaitingFor,
  type WaitingQuestion,
  type WaitingReview,
  type WorstRequirement,
} from './designReport.ts';
export { reportDocument, type ReportCell, type ReportCurve, type ReportDocument, type ReportSection, type ReportTable, type ReportWords } from './reportDocument.ts';
export { moreRows } from './reportRows.ts';
export { reportMarkdown } from './reportMarkdown.ts';
export { reportSheets } from './reportSheets.ts';
export { BAR_ORDER, hasBars, reportPage } from './reportPage.ts';
