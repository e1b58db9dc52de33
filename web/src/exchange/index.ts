export { CaseImportPage } from './cases/CaseImportPage.tsx';
export { ImportPage } from './ImportPage.tsx';
