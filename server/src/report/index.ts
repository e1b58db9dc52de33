export { readReport, type ReportCounted } from './readReport.ts';
