export { ReportPage } from './ReportPage.tsx';
